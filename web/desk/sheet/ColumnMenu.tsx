import { ArrowDown, ArrowUp, ChevronDown } from 'lucide-react';
import { Popover } from 'radix-ui';
import { useState } from 'react';
import { SECTIONS } from '../../../core/fields/field.ts';
import { keyColumns } from '../../../core/tape/own-columns.ts';
import { Button } from '../../ui/controls.tsx';
import { useTally } from '../queries.ts';
import { useColumns, useDesk } from '../store.ts';
import { ColumnSets } from './ColumnSets.tsx';
import { allColumns, columnOf, type ShownColumn } from './columns.ts';

/** Which columns the sheet and an export have, in which order, and how many of them stay in view. */
export function ColumnMenu() {
  const tape = useDesk((state) => state.tape);
  const columns = useColumns();
  const frozen = useDesk((state) => state.frozen);
  const { data: tally } = useTally();
  const { setColumns, setFrozen } = useDesk.getState();
  const [search, setSearch] = useState('');
  const all = allColumns(tape, tally);
  const shown = columns.flatMap((id) => columnOf(tape, id, tally) ?? []);
  const keyed = all.flatMap(({ field }) => (field ? keyColumns(field.id, tape.subject) : []));
  const others = [...all, ...keyed.flatMap(({ id }) => columnOf(tape, id, tally) ?? [])].filter(
    ({ id, heading, label }) =>
      !columns.includes(id) && `${heading} ${label}`.toLowerCase().includes(search.trim().toLowerCase()),
  );
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
          className="z-50 max-h-[74vh] w-84 overflow-auto rounded-md border border-edge bg-paper py-2 shadow-lg"
          aria-label="Columns"
        >
          <ColumnSets />
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
          {shown.map((field, i) => (
            <div key={field.id} className="flex items-center gap-1 px-3 py-0.5 hover:bg-ground">
              <label className="flex min-w-0 flex-1 items-center gap-2 py-1">
                <input
                  type="checkbox"
                  checked
                  disabled={columns.length === 1}
                  onChange={() => setColumns(columns.filter((id) => id !== field.id))}
                />
                <span className="truncate">{field.heading}</span>
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
          <div className="mt-1 border-t border-rule px-3 pt-2 pb-1">
            <input
              className="field w-full py-1"
              value={search}
              placeholder="Find a column"
              aria-label="Find a column"
              onChange={(event) => setSearch(event.target.value)}
            />
          </div>
          {bySection(others).map(([section, fields]) => (
            <div key={section} role="group" aria-label={section}>
              <p className="px-3 pt-2 pb-0.5 text-[12px] text-soft">{section}</p>
              {fields.map((field) => (
                <label
                  key={field.id}
                  className="flex items-center gap-2 px-3 py-1 hover:bg-ground"
                  title={field.meaning}
                >
                  <input
                    type="checkbox"
                    checked={false}
                    onChange={() => setColumns([...columns, field.id])}
                  />
                  {field.heading}
                </label>
              ))}
            </div>
          ))}
          {others.length === 0 && <p className="px-3 py-1 text-soft">No other column of that name.</p>}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

const OWN = 'Of this tape’s lines, and by key';

function bySection(columns: readonly ShownColumn[]): [string, ShownColumn[]][] {
  const sections = new Map<string, ShownColumn[]>();
  for (const column of columns) {
    const name = column.field ? SECTIONS[column.field.section] : OWN;
    sections.set(name, [...(sections.get(name) ?? []), column]);
  }
  return [...sections];
}
