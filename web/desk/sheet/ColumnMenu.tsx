import { ChevronDown } from 'lucide-react';
import { Popover } from 'radix-ui';
import { Button } from '../../ui/controls.tsx';
import { useTally } from '../queries.ts';
import { useColumns, useDesk } from '../store.ts';
import { ColumnChoice } from './ColumnChoice.tsx';

/** Which columns the sheet has, in which order, and how many of them stay in view. */
export function ColumnMenu() {
  const tape = useDesk((state) => state.tape);
  const columns = useColumns();
  const frozen = useDesk((state) => state.frozen);
  const { data: tally } = useTally();
  const { setColumns, setFrozen } = useDesk.getState();
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
          className="z-50 w-84 rounded-md border border-edge bg-paper shadow-lg [&>div]:max-h-[74vh]"
          aria-label="Columns"
        >
          <ColumnChoice tape={tape} columns={columns} tally={tally} onColumns={setColumns}>
            <div className="flex items-center gap-2 border-t border-rule px-3 py-1.5 text-[13px]">
              <span className="flex-1 text-soft">Columns that stay in view</span>
              <input
                type="number"
                aria-label="Columns that stay in view"
                className="field figure w-16 py-0.5"
                min={0}
                max={columns.length}
                value={Math.min(frozen, columns.length)}
                onChange={(event) =>
                  setFrozen(Math.max(0, Math.min(columns.length, Number(event.target.value))))
                }
              />
            </div>
          </ColumnChoice>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
