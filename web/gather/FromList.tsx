import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import type { RowsAnswer } from '../../contract/responses.ts';
import { termColumns, termsOf, type TermColumn } from '../../core/gather/list-terms.ts';
import { subjectOf } from '../../core/fields/registry.ts';
import { MOST_SEARCHES } from '../../core/gather/words-places.ts';
import { emptyTape } from '../../core/tape/nodes.ts';
import { call } from '../api.ts';
import { useFormat } from '../app/format.ts';
import { useLists } from '../lists/use-lists.ts';
import { Button, Trouble } from '../ui/controls.tsx';

const ROWS_A_READ = 1000;

/** Words or places out of a column of one of our lists. */
export function FromList({ label, onTerms }: { label: string; onTerms(terms: string[]): void }) {
  const format = useFormat();
  const { data, error } = useLists();
  const [chosen, setChosen] = useState<string | null>(null);
  const [wanted, setWanted] = useState<string | null>(null);
  const lists = data?.lists ?? [];
  const list = lists.find(({ key }) => key === chosen) ?? lists[0];
  const columns = list ? termColumns(list.subject) : [];
  const column = columns.find(({ key }) => key === wanted) ?? columns[0];
  const take = useMutation({
    mutationFn: ({ key, subject, of }: { key: string; subject: string; of: TermColumn }) =>
      readColumn(key, subject, of),
    onSuccess: onTerms,
  });
  if (error) return <Trouble error={error} />;
  if (!data) return <p className="text-[13px] text-soft">Looking …</p>;
  if (lists.length === 0) return <p className="text-[13px] text-soft">There is no list yet.</p>;
  return (
    <div
      role="group"
      aria-label={`${label} from a list`}
      className="mt-1 flex flex-wrap items-center gap-2 text-[13px]"
    >
      <select
        aria-label="List"
        className="field basis-full py-0.5"
        value={list?.key ?? ''}
        onChange={(event) => setChosen(event.target.value)}
      >
        {lists.map(({ key, name, members, subject }) => (
          <option key={key} value={key}>
            {name}, {format.number(members)} {subjectOf(subject).many}
          </option>
        ))}
      </select>
      <select
        aria-label="Column"
        className="field flex-1 py-0.5"
        value={column?.key ?? ''}
        onChange={(event) => setWanted(event.target.value)}
      >
        {columns.map((one) => (
          <option key={one.key} value={one.key}>
            {one.label}
          </option>
        ))}
      </select>
      <Button
        disabled={!list || !column || take.isPending}
        onClick={() => take.mutate({ key: list!.key, subject: list!.subject, of: column! })}
      >
        {take.isPending ? 'Reading …' : 'Take them'}
      </Button>
      {list && list.members > MOST_SEARCHES && (
        <p className="basis-full text-unsure">
          Of the first {format.number(MOST_SEARCHES)}, as many as there can be searches.
        </p>
      )}
      <Trouble error={take.error} />
    </div>
  );
}

/** What a column says of the members of a list: of as many as there can be searches. */
async function readColumn(key: string, subject: string, of: TermColumn): Promise<string[]> {
  const tape = { ...emptyTape(subject), lines: [{ id: 'l1', field: 'list', test: { any: [key] } }] };
  const cells = [];
  for (let offset = 0; offset < MOST_SEARCHES; offset += ROWS_A_READ) {
    const { rows, total } = await call<RowsAnswer>('POST', '/rows', {
      ...{ tape, columns: [of.column], offset, limit: ROWS_A_READ },
    });
    cells.push(...rows.map((row) => row.cells[of.column] ?? null));
    if (offset + rows.length >= total) break;
  }
  const terms = termsOf(cells, of);
  if (terms.length === 0)
    throw new Error(`Of nobody on this list “${of.label}” is known. Choose another column.`);
  return terms;
}
