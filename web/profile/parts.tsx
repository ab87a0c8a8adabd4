import type { ReactNode } from 'react';
import { useDesk } from '../desk/store.ts';
import { Button, Trouble } from '../ui/controls.tsx';

/** A part of a page under a heading, with a note beside it. */
export function Section({ name, note, children }: { name: string; note?: ReactNode; children: ReactNode }) {
  return (
    <section>
      <h2 className="title flex items-baseline justify-between gap-3 border-b border-edge pb-1 text-[17px]">
        <span className="shrink-0">{name}</span>
        {note && <span className="truncate font-sans text-[12px] font-normal text-soft">{note}</span>}
      </h2>
      <div className="pt-1">{children}</div>
    </section>
  );
}

/** The source of what was corrected by hand. */
export const BY_HAND_WORDS = 'a correction by hand';

export function Fact({ name, from, children }: { name: string; from?: string; children: ReactNode }) {
  return (
    <div className="grid grid-cols-[104px_1fr] gap-3 py-1" title={from ? `from ${from}` : undefined}>
      <span className="text-soft">{name}</span>
      <span className="min-w-0 break-words">
        {children}
        {from === BY_HAND_WORDS && <span className="text-[12px] text-soft"> by hand</span>}
      </span>
    </div>
  );
}

/** What cannot be opened, and the way back. */
export function NotThere({ error }: { error: Error }) {
  return (
    <div className="pt-4">
      <Trouble error={error} />
      <Button className="mt-3" onClick={() => useDesk.getState().set({ company: null })}>
        Back to the sheet
      </Button>
    </div>
  );
}
