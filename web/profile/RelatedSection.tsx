import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { ArrowDown, ArrowUp } from 'lucide-react';
import { Fragment, useState } from 'react';
import type { RowsAnswer } from '../../contract/responses.ts';
import { RELATED, subjectOf } from '../../core/fields/registry.ts';
import { COUNT_COLUMN, emptyTape, type Line, type SortKey } from '../../core/tape/nodes.ts';
import { relatedTape } from '../../core/tape/turn.ts';
import { call } from '../api.ts';
import { useFormat } from '../app/format.ts';
import { addressOf } from '../desk/address.ts';
import { countedPart } from '../desk/queries.ts';
import { Cell } from '../desk/sheet/Cell.tsx';
import { columnOf, type ShownColumn } from '../desk/sheet/columns.ts';
import { useDesk } from '../desk/store.ts';
import { Trouble } from '../ui/controls.tsx';
import { OwnedBrands } from './BrandDetails.tsx';
import { Section } from './parts.tsx';
import { PeopleMatrix } from './PeopleMatrix.tsx';

const SHOWN = 8;

/** Lines that a company's page puts on a subject to show it in parts, each under its own heading. */
const PARTS: Readonly<Record<string, readonly { name: string; lines: readonly Line[] }[]>> = {
  events: [
    {
      name: 'Events',
      lines: [{ id: 'k', field: 'kind', test: { any: ['court'] }, not: true, unknown: 'keep' }],
    },
    { name: 'Court proceedings', lines: [{ id: 'k', field: 'kind', test: { any: ['court'] } }] },
  ],
};

/** Which columns of each subject a company's page shows beside the name, which below it, and in which order its records stand. */
const VIEWS: Readonly<
  Record<string, { columns: readonly string[]; below?: readonly string[]; sort: readonly SortKey[] }>
> = {
  people: { columns: ['title', 'since', 'mail', 'certainty'], sort: [{ by: 'level' }] },
  deals: {
    columns: ['date', 'kind', 'amount'],
    below: ['target', 'buyer', 'investors', 'sell-advisers', 'buy-advisers'],
    sort: [{ by: 'date', descending: true }],
  },
  sites: { columns: ['kind', 'place', 'headcount'], sort: [{ by: 'headcount', descending: true }] },
  brands: {
    columns: ['category', 'channel', 'products', 'sold-in'],
    sort: [{ by: 'products', descending: true }],
  },
  events: { columns: ['kind', 'date'], sort: [{ by: 'date', descending: true }] },
};

/** How many records of each subject hang on a company; null where no source covers the subject for it. */
export function useRelatedCounts(company: string): {
  counts: Readonly<Record<string, number | null>> | undefined;
  error: Error | null;
} {
  const lines = [
    { id: 'l1', field: 'company', test: { any: [company] } },
    ...RELATED.map(({ id }) => ({ id, has: id, lines: [], parked: true as const })),
  ];
  const { data, error } = useQuery({
    queryKey: ['related counts', company],
    queryFn: ({ signal }) =>
      call<RowsAnswer>(
        'POST',
        '/rows',
        { tape: { ...emptyTape(), lines }, columns: RELATED.map(({ id }) => COUNT_COLUMN + id), limit: 1 },
        signal,
      ),
    retry: false,
  });
  const cells = data?.rows[0]?.cells;
  const counts =
    cells && Object.fromEntries(RELATED.map(({ id }) => [id, cells[COUNT_COLUMN + id] as number | null]));
  return { counts, error };
}

interface Related {
  subject: string;
  company: string;
  /** How many there are; null where no source covers the subject for the company, undefined until that is known. */
  count: number | null | undefined;
}

/** What hangs on a company, of one subject, in its parts: of each the first few, and the way to all of them. */
export function RelatedSection(related: Related) {
  const { many } = subjectOf(related.subject);
  const parts = PARTS[related.subject] ?? [{ name: many.charAt(0).toUpperCase() + many.slice(1), lines: [] }];
  return parts.map(({ name, lines }) => <RelatedPart key={name} {...related} name={name} lines={lines} />);
}

function RelatedPart({
  subject,
  company,
  count,
  name,
  lines,
}: Related & { name: string; lines: readonly Line[] }) {
  const { columns, below = [], sort: first } = VIEWS[subject]!;
  const [sort, setSort] = useState(first);
  const tape = relatedTape({ id: 'h', has: subject, lines }, company);
  const format = useFormat();
  const { data, error } = useQuery({
    queryKey: ['related', subject, company, name, sort],
    queryFn: ({ signal }) =>
      call<RowsAnswer>(
        'POST',
        '/rows',
        { tape: countedPart(tape), sort, columns: ['name', ...columns, ...below], limit: SHOWN },
        signal,
      ),
    enabled: !!count,
    placeholderData: keepPreviousData,
    retry: false,
  });
  const shown = columns.flatMap((id) => columnOf(tape, id) ?? []);
  const parties = below.flatMap((id) => columnOf(tape, id) ?? []);
  const open = (to: string) => addressOf({ ...useDesk.getState(), company: to, openLine: null });
  if (!data || data.total === 0)
    return (
      <Section name={name}>
        <Trouble error={error} />
        <p className="py-1 text-soft italic">
          {count === null
            ? 'unknown: no source covers them for this company'
            : count === 0 || data?.total === 0
              ? 'none'
              : '…'}
        </p>
      </Section>
    );
  return (
    <Section
      name={name}
      note={
        <a
          href={addressOf({ tape, sort, openLine: null, company: null })}
          className="text-ink underline decoration-rule underline-offset-4"
          onClick={(event) => {
            if (event.ctrlKey || event.metaKey || event.shiftKey) return;
            event.preventDefault();
            const { change, set } = useDesk.getState();
            change(tape);
            set({ sort, company: null, openLine: null });
          }}
        >
          {data.total > SHOWN ? `all ${format.number(data.total)} as a tape` : 'as a tape'}
        </a>
      }
    >
      {subject === 'people' && <PeopleMatrix tape={tape} />}
      <table className="w-full table-fixed">
        <thead className="text-left text-[12px] text-soft">
          <tr>
            {[columnOf(tape, 'name')!, ...shown].map((column, at) => (
              <Heading key={column.id} column={column} sort={sort} first={at === 0} onSort={setSort}>
                {column.field?.kind === 'money' ? `${column.label}, ${format.symbol}k` : column.label}
              </Heading>
            ))}
          </tr>
        </thead>
        <tbody>
          {data.rows.map((row) => {
            const known = parties.filter(({ id }) => ((row.cells[id] as unknown[] | null) ?? []).length > 0);
            return (
              <Fragment key={row.key}>
                <tr className={`align-baseline ${known.length ? '' : 'border-b border-rule'}`}>
                  <th scope="row" className="w-[30%] py-1 pr-2 text-left font-semibold">
                    <a
                      href={open(`${subject}/${row.key}`)}
                      className="no-underline hover:underline"
                      onClick={(event) => {
                        if (event.ctrlKey || event.metaKey || event.shiftKey) return;
                        event.preventDefault();
                        useDesk.getState().set({ company: `${subject}/${row.key}`, openLine: null });
                      }}
                    >
                      {(row.cells.name as string | null) ?? row.key}
                    </a>
                  </th>
                  {shown.map((column) => (
                    <td
                      key={column.id}
                      className={`truncate py-1 pl-2 text-[13px] ${column.numeric ? 'text-right' : ''}`}
                    >
                      <Cell column={column} row={row} format={format} />
                    </td>
                  ))}
                </tr>
                {known.length > 0 && (
                  <tr className="border-b border-rule">
                    <td colSpan={1 + shown.length} className="pb-1.5 text-[12px]">
                      {known.map((column) => (
                        <span key={column.id} className="mr-3 inline-block">
                          <span className="text-soft">{column.label.toLowerCase()}</span>{' '}
                          <Cell column={column} row={row} format={format} />
                        </span>
                      ))}
                    </td>
                  </tr>
                )}
              </Fragment>
            );
          })}
        </tbody>
      </table>
      {subject === 'brands' && <OwnedBrands company={company} />}
    </Section>
  );
}

/** A heading that puts the records in its order: figures and days from the largest, texts from A. */
function Heading({
  column: { id, numeric = false, sortable = true, field },
  sort,
  first,
  onSort,
  children,
}: {
  column: ShownColumn;
  sort: readonly SortKey[];
  first: boolean;
  onSort(sort: readonly SortKey[]): void;
  children: string;
}) {
  const own = sort[0]?.by === id ? sort[0] : null;
  const descends = numeric || field?.kind === 'date';
  const Arrow = own?.descending ? ArrowDown : ArrowUp;
  return (
    <th
      scope="col"
      aria-sort={own ? (own.descending ? 'descending' : 'ascending') : 'none'}
      className={`truncate font-normal ${first ? 'w-[30%]' : 'pl-2'} ${numeric ? 'text-right' : ''}`}
    >
      {sortable ? (
        <button
          type="button"
          className="inline-flex max-w-full items-center gap-1 hover:underline"
          onClick={() => {
            const descending = own ? !own.descending : descends;
            onSort([{ by: id, ...(descending ? { descending } : {}) }]);
          }}
        >
          <span className="truncate">{children}</span>
          {own && <Arrow size={11} className="shrink-0" />}
        </button>
      ) : (
        children
      )}
    </th>
  );
}
