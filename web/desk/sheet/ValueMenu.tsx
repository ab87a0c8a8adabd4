import { toast } from 'sonner';
import type { TypedAnswer } from '../../../contract/responses.ts';
import type { Cell } from '../../../core/cells.ts';
import type { Field } from '../../../core/fields/field.ts';
import { addLines, freeId, renamed } from '../../../core/tape/edit.ts';
import { linesOfValue } from '../../../core/tape/value-lines.ts';
import { call } from '../../api.ts';
import { PointMenu } from '../../ui/PointMenu.tsx';
import { Button } from '../../ui/controls.tsx';
import { useDesk } from '../store.ts';

export interface PickedValue {
  field: Field;
  cell: Cell;
  x: number;
  y: number;
}

/** What can be done with a value of the sheet: keep its like, or take them out. */
export function ValueMenu({ value, onClose }: { value: PickedValue; onClose(): void }) {
  const { field, cell, x, y } = value;
  const lines = linesOfValue(field, cell);
  const put = async (typed: string, not: boolean) => {
    onClose();
    try {
      const { subject } = useDesk.getState().tape;
      const { lines: read } = await call<TypedAnswer>('POST', '/typed', {
        text: `${not ? 'not ' : ''}${typed}`,
        stem: 'v',
        subject,
      });
      // What was changed while the line was read stays.
      const { tape, change } = useDesk.getState();
      if (tape.subject !== subject) return;
      change(
        addLines(
          tape,
          read.map((line) => renamed(line, freeId(tape))),
        ),
      );
    } catch (failure) {
      toast.error((failure as Error).message);
    }
  };
  return (
    <PointMenu
      x={x}
      y={y}
      label={`${field.label}: make it a line`}
      align="start"
      className="max-w-96 min-w-64 py-1.5"
      onClose={onClose}
    >
      <p className="px-3 pb-1 text-[12px] text-soft">{field.label}, as a line</p>
      {lines.map(({ label, typed }) => (
        <div key={typed} className="flex items-center gap-1 px-3 hover:bg-ground">
          <span className="min-w-0 flex-1 truncate" title={typed}>
            {label}
          </span>
          <Button look="quiet" className="text-kept" onClick={() => void put(typed, false)}>
            keep
          </Button>
          <Button look="quiet" className="text-cut" onClick={() => void put(typed, true)}>
            take out
          </Button>
        </div>
      ))}
    </PointMenu>
  );
}
