import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Job, SourceView } from '../../contract/responses.ts';
import { FRESH_DAYS, together, type CoverageCell } from '../../core/records/coverage.ts';
import { PART_LABELS } from '../../core/records/part-labels.ts';
import { call } from '../api.ts';
import { useFormat } from '../app/format.ts';
import { Segments, Trouble } from '../ui/controls.tsx';
import { JobProgress, useJob } from '../ui/JobProgress.tsx';
import type { Order } from '../ui/SortHead.tsx';
import { SubPlace } from './SubPlace.tsx';

/** Countries that stand beside each other; the others are one column. */
const MOST_COUNTRIES = 9;

/** What each source knows: fields by source, or of one source by country, each as a share of its records, and how fresh they are. */
export function CoveragePlace({ sources, onLeave }: { sources: readonly SourceView[]; onLeave(): void }) {
  const format = useFormat();
  const [source, setSource] = useState('');
  const [country, setCountry] = useState('');
  const [order, setOrder] = useState<Order<string> | null>(null);
  const { data: begun, error } = useQuery({
    // Of another universe it is counted anew.
    queryKey: ['coverage', sources.map(({ key, loadedAt }) => `${key} ${loadedAt}`).join()],
    queryFn: ({ signal }) => call<{ job: Job }>('POST', '/coverage', undefined, signal),
    enabled: sources.length > 0,
    staleTime: Infinity,
    retry: false,
  });
  const job = begun?.job.id ?? null;
  const { data: ended } = useJob(job);
  const cells = ((ended?.job.state === 'done' ? ended.job.result : null) as { cells: CoverageCell[] } | null)
    ?.cells;
  const nameOf = (key: string) => sources.find((one) => one.key === key)?.name ?? key;
  const countries = [...new Set((cells ?? []).map((cell) => cell.country))].sort();
  const columns = source === '' ? bySource(cells ?? [], country, nameOf) : byCountry(cells ?? [], source);
  // By the share that a column knows; in the order of the fields where none is chosen.
  const by = columns.find(({ name }) => name === order?.by);
  const share = (at: number) => by!.of.known[at]! / by!.of.records;
  const fields = PART_LABELS.map((field, at) => ({ ...field, at }));
  if (by) fields.sort((a, b) => (order!.descending ? share(b.at) - share(a.at) : share(a.at) - share(b.at)));
  return (
    <main className="flex min-h-0 flex-1">
      <SubPlace
        name="What each source knows"
        about="Of its records, the share that knows a value. A cell without a figure knows it of none."
        onLeave={onLeave}
      >
        <Trouble error={error} />
        {!job && !error && <p className="text-soft">Looking …</p>}
        {job && !cells && <JobProgress id={job} />}
        {cells && (
          <>
            <div className="flex flex-wrap items-center gap-3 pb-2 text-[13px]">
              <Segments
                label="Columns"
                value={source}
                onChange={(key) => {
                  setSource(key);
                  setCountry('');
                }}
                options={[
                  { key: '', label: 'by source' },
                  ...[...new Set(cells.map((cell) => cell.source))].map((key) => ({
                    key,
                    label: nameOf(key),
                  })),
                ]}
              />
              {source === '' && (
                <label className="flex items-center gap-2">
                  in
                  <select
                    className="field py-0.5"
                    value={country}
                    onChange={(event) => setCountry(event.target.value)}
                  >
                    <option value="">all countries</option>
                    {countries.filter(Boolean).map((code) => (
                      <option key={code} value={code}>
                        {code}
                      </option>
                    ))}
                  </select>
                </label>
              )}
            </div>
            <div className="overflow-x-auto" role="region" aria-label="Shares" tabIndex={0}>
              <table className="text-[13px]" aria-label="Coverage">
                <thead>
                  <tr className="border-b border-edge text-right">
                    <th scope="col" className="min-w-44 py-1.5 pr-4 text-left font-semibold">
                      <button
                        type="button"
                        className="hover:underline"
                        title="In the order of the fields"
                        onClick={() => setOrder(null)}
                      >
                        Field
                      </button>
                    </th>
                    {columns.map(({ name, of }) => (
                      <th
                        key={name}
                        scope="col"
                        aria-sort={by?.of !== of ? 'none' : order!.descending ? 'descending' : 'ascending'}
                        className="w-24 max-w-36 px-2 py-1.5 align-bottom font-semibold"
                      >
                        <button
                          type="button"
                          className="hover:underline"
                          title="Sort by what it knows"
                          onClick={() =>
                            setOrder({ by: name, descending: by?.of !== of || !order!.descending })
                          }
                        >
                          {name}
                          {by?.of === of && (order!.descending ? ' ↓' : ' ↑')}
                        </button>
                        <span className="figure block font-normal text-soft">
                          {format.number(of.records)}
                        </span>
                      </th>
                    ))}
                  </tr>
                </thead>
                <tbody>
                  {fields.map(({ part, label, at }) =>
                    columns.some(({ of }) => of.known[at]! > 0) ? (
                      <Shares
                        key={part}
                        label={label}
                        shares={columns.map(({ name, of }) => ({ name, share: of.known[at]! / of.records }))}
                      />
                    ) : null,
                  )}
                  {FRESH_DAYS.map((days, at) => (
                    <Shares
                      key={days}
                      label={
                        days < 365
                          ? `Checked within ${days} days`
                          : `Checked within ${days / 365} ${days === 365 ? 'year' : 'years'}`
                      }
                      heavy={at === 0}
                      shares={columns.map(({ name, of }) => ({ name, share: of.fresh[at]! / of.records }))}
                    />
                  ))}
                </tbody>
              </table>
            </div>
          </>
        )}
      </SubPlace>
    </main>
  );
}

/** A share in whole percent; all and none are only what is that. */
function percent(share: number): string {
  if (share === 1) return '100';
  return share < 0.01 ? '<1' : String(Math.min(99, Math.round(100 * share)));
}

function Shares({
  label,
  shares,
  heavy = false,
}: {
  label: string;
  shares: readonly { name: string; share: number }[];
  heavy?: boolean;
}) {
  return (
    <tr className={`border-b border-rule ${heavy ? 'border-t-2 border-t-edge' : ''}`}>
      <th scope="row" className="py-1 pr-4 text-left font-normal">
        {label}
      </th>
      {shares.map(({ name, share }) => (
        <td key={name} className="px-2 py-1 text-right">
          {share > 0 && (
            <>
              <span className="figure">{percent(share)} %</span>
              <span className="mt-0.5 block h-1 bg-rule" aria-hidden="true">
                <span className="block h-full bg-ink" style={{ width: `${100 * share}%` }} />
              </span>
            </>
          )}
        </td>
      ))}
    </tr>
  );
}

interface Column {
  name: string;
  of: NonNullable<ReturnType<typeof together>>;
}

const column = (name: string, cells: readonly CoverageCell[]): Column[] => {
  const of = together(cells);
  return of ? [{ name, of }] : [];
};

function bySource(
  cells: readonly CoverageCell[],
  country: string,
  nameOf: (key: string) => string,
): Column[] {
  const here = cells.filter((cell) => country === '' || cell.country === country);
  return [...new Set(here.map(({ source }) => source))].flatMap((source) =>
    column(
      nameOf(source),
      here.filter((cell) => cell.source === source),
    ),
  );
}

function byCountry(cells: readonly CoverageCell[], source: string): Column[] {
  const own = cells.filter((cell) => cell.source === source);
  return [
    ...column('all', own),
    ...own.slice(0, MOST_COUNTRIES).flatMap((cell) => column(cell.country || 'unknown', [cell])),
    ...column('others', own.slice(MOST_COUNTRIES)),
  ];
}
