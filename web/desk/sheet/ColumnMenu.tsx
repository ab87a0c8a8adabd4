import { ArrowDown, ArrowUp, ChevronDown } from 'lucide-react';
import { Popover } from 'radix-ui';
import { Button } from '../../ui/controls.tsx';
import { useTally } from '../queries.ts';
import { useColumns, useDesk } from '../store.ts';
import { allColumns } from './columns.ts';

/** Which columns the sheet and an export have, and in which order. */
export function ColumnMenu() {
  const tape = useDesk((state) => state.tape);
  const columns = useColumns();
  const { data: tally } = useTally();
  const { setColumns } = useDesk.getState();
  const all = allColumns(tape, tally);
  const shown = columns.flatMap((id) => all.find((column) => column.id === id) ?? []);
  const others = all.filter((field) => !columns.includes(field.id));
  const move = (at: number, to: number) => {
    if (to < 0 || to >= columns.length) return;
    const next = [...columns];
    next.splice(to, 0, ...next.splice(at, 1));
    setColumns(next);
  };
  return (
    <Popover.Root>
      <Popover.Trigger asChild>
        <Button>
          Columns: {columns.length} <ChevronDown size={14} />
        </Button>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={6}
          className="z-50 max-h-[70vh] w-72 overflow-auto rounded-md border border-edge bg-paper py-2 shadow-lg"
          aria-label="Columns"
        >
          {shown.map((field, i) => (
            <div key={field.id} className="flex items-center gap-1 px-3 py-0.5 hover:bg-ground">
              <label className="flex flex-1 items-center gap-2 py-1">
                <input
                  type="checkbox"
                  checked
                  disabled={columns.length === 1}
                  onChange={() => setColumns(columns.filter((id) => id !== field.id))}
                />
                {field.heading}
              </label>
              <Button
                look="quiet"
                aria-label={`${field.heading} further left`}
                disabled={i === 0}
                onClick={() => move(i, i - 1)}
              >
                <ArrowUp size={14} />
              </Button>
              <Button
                look="quiet"
                aria-label={`${field.heading} further right`}
                disabled={i === shown.length - 1}
                onClick={() => move(i, i + 1)}
              >
                <ArrowDown size={14} />
              </Button>
            </div>
          ))}
          <p className="mt-1 border-t border-rule px-3 pt-2 pb-1 text-[12px] text-soft">not shown</p>
          {others.map((field) => (
            <label
              key={field.id}
              className="flex items-center gap-2 px-3 py-1.5 hover:bg-ground"
              title={field.meaning}
            >
              <input type="checkbox" checked={false} onChange={() => setColumns([...columns, field.id])} />
              {field.heading}
            </label>
          ))}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
