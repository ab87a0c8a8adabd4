import type { ReactNode } from 'react';
import { Button } from '../ui/controls.tsx';

/** A place below Sources: the way back, what it is, and what stands on its stage. */
export function SubPlace({
  name,
  about,
  onLeave,
  children,
}: {
  name: string;
  about: ReactNode;
  onLeave(): void;
  children: ReactNode;
}) {
  return (
    <div className="flex min-h-0 min-w-0 flex-1 flex-col overflow-y-auto px-5 pb-6">
      <p className="flex items-center gap-2 pt-2 text-[13px] text-soft">
        <Button look="quiet" className="-ml-1.5 underline" onClick={onLeave}>
          Sources
        </Button>
        <span aria-hidden="true">/</span> {name}
      </p>
      <h1 className="title pt-1 text-[25px]">{name}</h1>
      <p className="pb-3 text-soft">{about}</p>
      {children}
    </div>
  );
}
