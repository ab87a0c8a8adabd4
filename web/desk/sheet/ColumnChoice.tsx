import { ArrowDown, ArrowUp } from 'lucide-react';
import { useState } from 'react';
import type { WordedTally } from '../../../contract/responses.ts';
import { SECTIONS } from '../../../core/fields/field.ts';
import type { Tape } from '../../../core/tape/nodes.ts';
import { keyColumns } from '../../../core/tape/own-columns.ts';
import { fold } from '../../../core/text/fold.ts';
import { Button } from '../../ui/controls.tsx';
import { ColumnSets } from './ColumnSets.tsx';
import { RightPersonColumns } from '../../people/RightPersonColumns.tsx';
import { useCarried } from '../../lists/use-lists.ts';
import { allColumns, columnOf, type ShownColumn } from './columns.ts';

/** Columns of a sheet or an export: by set, in an order, and more of them found by name. */
export function ColumnChoice({
  tape,
  columns,
  tally,
  onColumns,
  children,
}: {
  tape: Tape;
  columns: readonly string[];
  tally: WordedTally | undefined;
  onColumns(columns: readonly string[]): void;
  /** What else is said of the columns, between the sets and the columns. */
  children?: React.ReactNode;
}) {
  const [search, setSearch] = useState('');
  const all = allColumns(tape, tally, useCarried());
  const shown = columns.flatMap((id) => columnOf(tape, id, tally) ?? []);
  const keyed = all.flatMap(({ field }) => (field ? keyColumns(field.id, tape.subject) : []));
  const wanted = fold(search.trim());
  const offersRight = tape.subject === 'companies' && fold('the right person').includes(wanted);
  const others = [...all, ...keyed.flatMap(({ id }) => columnOf(tape, id, tally) ?? [])].filter(
    ({ id, heading, label }) => !columns.includes(id) && fold(`${heading} ${label}`).includes(wanted),
  );
  const move = (at: number, to: number) => {
    if (to < 0 || to >= columns.length) return;
    const next = [...columns];
    next.splice(to, 0, ...next.splice(at, 1));
    onColumns(next);
  };
  return (
    <div className="max-h-[50vh] overflow-auto py-2">
      <ColumnSets subject={tape.subject} columns={columns} onColumns={onColumns} />
      {children}
      {shown.map((field, i) => (
        <div key={field.id} className="flex items-center gap-1 px-3 py-0.5 hover:bg-ground">
          <label className="flex min-w-0 flex-1 items-center gap-2 py-1">
            <input
              type="checkbox"
              checked
              disabled={columns.length === 1}
              onChange={() => onColumns(columns.filter((id) => id !== field.id))}
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
              <input type="checkbox" checked={false} onChange={() => onColumns([...columns, field.id])} />
              {field.heading}
            </label>
          ))}
        </div>
      ))}
      {offersRight && <RightPersonColumns columns={columns} onColumns={onColumns} />}
      {others.length === 0 && !offersRight && (
        <p className="px-3 py-1 text-soft">No other column of that name.</p>
      )}
    </div>
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
