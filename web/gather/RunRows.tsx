import { useSearchParams } from 'react-router';
import { RUN_PARTS, type GatherRunView, type RunPart } from '../../contract/gather-views.ts';
import { useFormat } from '../app/format.ts';
import { Button, Segments, Trouble } from '../ui/controls.tsx';
import { SortHead, useOrder } from '../ui/SortHead.tsx';
import { ROWS_AT_ONCE, useRunRows } from './use-gather.ts';
import { PART_WORDS } from './words.ts';

/** What a run has found, as it comes: its records with their words and places, and what came to none with the reason. */
export function RunRows({ run }: { run: GatherRunView }) {
  const format = useFormat();
  const [query, setQuery] = useSearchParams();
  const part = RUN_PARTS.find((one) => one === query.get('part')) ?? 'records';
  const search = part === 'records' && query.get('search') ? Number(query.get('search')) : null;
  const { data, error, hasNextPage, isFetchingNextPage, fetchNextPage } = useRunRows(
    run.id,
    part,
    search,
    run.state === 'running',
  );
  const last = data?.pages.at(-1);
  const set = (next: RunPart, of: number | null = null) =>
    setQuery(
      (now) => {
        now.set('part', next);
        now.delete('search');
        if (of !== null) now.set('search', String(of));
        return now;
      },
      { replace: true },
    );
  const fields =
    part === 'failed' || part === 'not-allowed' || part === 'adverts' ? [] : (last?.fields ?? []);
  const rows = (data?.pages.flatMap((page) => page.rows) ?? []).map((row) => ({
    ...Object.fromEntries(fields.map(({ field }) => [`v:${field}`, row.values[field] ?? null])),
    ...{ row, tags: row.tags.join('; '), page: row.page, reason: row.reason, nth: row.id },
  }));
  const { sorted, order, setOrder } = useOrder<
    string,
    (typeof rows)[number] & Record<string, string | number | null>
  >(rows as never, { by: 'nth', descending: false });
  const one = search === null ? null : run.searches[search - 1];
  const parts = RUN_PARTS.filter((key) => key !== 'not-allowed' || run.pagesNotAllowed > 0 || part === key);
  return (
    <>
      <div className="flex flex-wrap items-center gap-3 py-2">
        <Segments
          label="Rows"
          value={part}
          options={parts.map((key) => ({ key, label: PART_WORDS[key] }))}
          onChange={(key) => set(key)}
        />
        {one && (
          <Button onClick={() => set('records')} title="See the records of all searches">
            {[one.word, one.place].filter(Boolean).join(', ')} ×
          </Button>
        )}
        <span className="ml-auto text-[13px] text-soft">
          {last && (
            <>
              <span className="figure">{format.number(last.total)}</span> {PART_WORDS[part]}
              {last.total > rows.length && `, the first ${format.number(rows.length)} shown`}
            </>
          )}
        </span>
      </div>
      <Trouble error={error} />
      <div className="min-h-0 flex-1 overflow-auto border-t border-edge">
        <table className="w-full" aria-label={PART_WORDS[part]}>
          <thead className="sticky top-0 bg-ground text-[13px]">
            <tr>
              {fields.map(({ field, heading }) => (
                <SortHead key={field} by={`v:${field}`} label={heading} order={order} onOrder={setOrder} />
              ))}
              {part !== 'records' && part !== 'twice' && part !== 'adverts' && (
                <SortHead by="reason" label="Why" order={order} onOrder={setOrder} />
              )}
              {part !== 'failed' && part !== 'not-allowed' && (
                <SortHead by="tags" label="Found by" order={order} onOrder={setOrder} />
              )}
              <SortHead by="page" label="Page" order={order} onOrder={setOrder} />
            </tr>
          </thead>
          <tbody>
            {sorted.map(({ row }) => (
              <tr key={row.id} className="border-b border-rule align-top">
                {fields.map(({ field }) => (
                  <td
                    key={field}
                    className={`max-w-56 truncate py-1.5 pr-4 ${field === 'name' ? 'font-semibold' : ''}`}
                    title={row.values[field]}
                  >
                    {row.values[field] ?? <i className="text-soft">none</i>}
                  </td>
                ))}
                {part !== 'records' && part !== 'twice' && part !== 'adverts' && (
                  <td className="py-1.5 pr-4 text-cut">{row.reason}</td>
                )}
                {part !== 'failed' && part !== 'not-allowed' && (
                  <td className="max-w-52 truncate py-1.5 pr-4 text-[13px]" title={row.tags.join('; ')}>
                    {row.tags.join('; ')}
                  </td>
                )}
                <td className="max-w-64 truncate py-1.5 pr-2 text-[13px] text-soft" title={row.page}>
                  {row.page}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        {hasNextPage && (
          <Button className="my-3" disabled={isFetchingNextPage} onClick={() => void fetchNextPage()}>
            Show {format.number(Math.min(ROWS_AT_ONCE, last!.total - rows.length))} more
          </Button>
        )}
        {!data && !error && <p className="py-4 text-soft">Looking …</p>}
        {last?.total === 0 && <p className="py-4 text-soft">None so far.</p>}
      </div>
    </>
  );
}
