import { useDroppable } from '@dnd-kit/core';
import clsx from 'clsx';

/** Ids of places to drop a line on another, told apart from places between lines. */
export const OR_ZONE = 'or:';

/** Where a dragged line is dropped to join this one by *or*. */
export function OrZone({ lineId }: { lineId: string }) {
  const { setNodeRef, isOver } = useDroppable({ id: `${OR_ZONE}${lineId}` });
  return (
    <div
      ref={setNodeRef}
      aria-hidden="true"
      className={clsx(
        'absolute inset-y-1 right-2 left-1/2 z-20 grid place-items-center rounded-md border border-dashed text-[13px]',
        isOver ? 'border-ink bg-ink text-paper' : 'border-edge bg-paper/90 text-soft',
      )}
    >
      drop here: either this or that
    </div>
  );
}
