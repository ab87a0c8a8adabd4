import type { ReactNode } from 'react';
import { Button, Dialog } from './controls.tsx';

/** Asks before something is removed that cannot be had back by undoing; `name` is null where nothing is asked. */
export function RemoveDialog({
  name,
  onClose,
  onRemove,
  children,
}: {
  name: string | null;
  onClose(): void;
  onRemove(): void;
  children: ReactNode;
}) {
  return (
    <Dialog title={`Remove ${name ?? ''}?`} open={name !== null} onClose={onClose}>
      <p>{children}</p>
      <div className="mt-4 flex justify-end gap-2">
        <Button onClick={onClose}>Keep it</Button>
        <Button
          look="ink"
          onClick={() => {
            onRemove();
            onClose();
          }}
        >
          Remove
        </Button>
      </div>
    </Dialog>
  );
}
