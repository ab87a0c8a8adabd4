import clsx from 'clsx';
import { useState } from 'react';
import { Link } from 'react-router';
import type { MatchRowView, MatchView, RowSort } from '../../../contract/matches.ts';
import { SURE_BY_WORDS } from '../../../core/match/outcome.ts';
import { useFormat } from '../../app/format.ts';
import { Button, Trouble } from '../../ui/controls.tsx';
import { SortHead, type Order } from '../../ui/SortHead.tsx';
import { chanceText } from './marks.tsx';
import { WORDS } from './words.ts';
import { useMatchRows, type RowsShown } from './use-match.ts';

const STATE_WORDS: Record<MatchRowView['state'], string> = {
  sure: 'sure',
  settled: 'settled by hand',
  doubtful: 'doubtful',
  none: 'none found',
  twice: 'twice in the file',
  unreadable: 'nothing to go by',
};
const LOOKS: Partial<Record<MatchRowView['state'], string>> = {
  sure: 'text-kept',
  settled: 'text-kept',
  doubtful: 'text-unsure',
  none: 'text-cut',
};

/** Rows of the file with what was found for each; a row opens to be settled, also one that was sure. */
export function MatchTable({
  match,
  shown,
  title,
  onRow,
  onAll,
}: {
  match: MatchView;
  shown: RowsShown;
  title: string;
  onRow(row: number): void;
  /** Shows all rows; null where all are shown. */
  onAll: (() => void) | null;
}) {
  const format = useFormat();
  const [order, setOrder] = useState<Order<RowSort>>({ by: 'row', descending: false });
  const { data, error, fetchNextPage, hasNextPage, isFetchingNextPage } = useMatchRows(
    match.id,
    shown,
    order,
  );
  const words = WORDS[match.of];
  const rows = data?.pages.flatMap((page) => page.rows) ?? [];
  const total = data?.pages[0]?.total ?? null;
  return (
    <section className="flex min-h-0 min-w-0 flex-1 flex-col px-5 pt-3" aria-label={title}>
      <header className="flex items-baseline gap-4 pb-2">
        <h1 className="title text-[23px]">{title}</h1>
        {total !== null && (
          <p>
            <span className="figure font-semibold">{format.number(total)}</span>{' '}
            <span className="text-soft">{words.rows}</span>
          </p>
        )}
        {onAll && (
          <Button look="quiet" className="underline" onClick={onAll}>
            show all rows
          </Button>
        )}
      </header>
      <Trouble error={error} />
      <div className="min-h-0 flex-1 overflow-auto">
        <table className="w-full text-left">
          <thead className="sticky top-0 border-b border-edge bg-ground text-[13px]">
            <tr>
              <SortHead by="row" label="Row" text right order={order} onOrder={setOrder} />
              <SortHead by="name" label={words.own} order={order} onOrder={setOrder} />
              <th className="py-1 pr-4 font-semibold">{words.other}</th>
              <SortHead by="state" label="Came to" text order={order} onOrder={setOrder} />
              <SortHead by="certainty" label="Certainty" right order={order} onOrder={setOrder} />
            </tr>
          </thead>
          <tbody>
            {rows.map((row) => (
              <tr key={row.row} className="border-b border-rule align-top hover:bg-paper">
                <td className="figure py-1.5 pr-5 text-right">{row.row}</td>
                <td className="py-1.5 pr-4">
                  {row.state === 'twice' || row.state === 'unreadable' ? (
                    row.name
                  ) : (
                    <button
                      type="button"
                      className="text-left hover:underline"
                      onClick={() => onRow(row.row)}
                    >
                      {row.name}
                    </button>
                  )}
                  {row.place && <span className="ml-2 text-[13px] text-soft">{row.place}</span>}
                </td>
                <td className="py-1.5 pr-4">
                  {row.company && row.state !== 'doubtful' && (
                    <>
                      <Link
                        to={`/desk?company=${encodeURIComponent(row.company.key)}`}
                        className="hover:underline"
                      >
                        {row.company.name}
                      </Link>
                      <span className="ml-2 text-[13px] text-soft">{row.company.place}</span>
                    </>
                  )}
                  {row.company && row.state === 'doubtful' && (
                    <span className="text-soft">perhaps {row.company.name}</span>
                  )}
                </td>
                <td className={clsx('py-1.5 pr-4 whitespace-nowrap', LOOKS[row.state])}>
                  {STATE_WORDS[row.state]}
                  {row.by && `, by ${SURE_BY_WORDS[row.by]}`}
                  {row.was && (
                    <span className="block text-[12px] text-soft">
                      was {STATE_WORDS[row.was.state]}
                      {row.was.name !== null && `, ${row.was.name}`}
                    </span>
                  )}
                  {row.twiceOf !== null && (
                    <span className="text-soft">
                      {' '}
                      as row <span className="figure">{row.twiceOf}</span>
                    </span>
                  )}
                </td>
                <td className="figure py-1.5 pr-5 text-right">
                  {row.chance === null || row.state === 'twice' ? '' : chanceText(row.chance)}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        {total === 0 && <p className="py-8 text-center text-soft">{words.none}</p>}
        {hasNextPage && (
          <Button className="my-3" disabled={isFetchingNextPage} onClick={() => void fetchNextPage()}>
            Show more of the {format.number(total ?? 0)}
          </Button>
        )}
      </div>
    </section>
  );
}
