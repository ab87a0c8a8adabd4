import clsx from 'clsx';
import type { GatherRunView, SearchFigures } from '../../contract/gather-views.ts';
import { useFormat } from '../app/format.ts';

/** More places than this do not fit beside each other. */
const MOST_ACROSS = 4;

/** Searches that are listed; the records of the others are in What was found. */
const MOST_LISTED = 300;

/** Words times places with what each brought; a figure opens its records. */
export function SearchGrid({ run, onShow }: { run: GatherRunView; onShow(search: number): void }) {
  const format = useFormat();
  const { searches, state } = run;
  const words = [...new Set(searches.map(({ word }) => word))];
  const places = [...new Set(searches.map(({ place }) => place))];
  const isGrid = places.length > 1 && places.length <= MOST_ACROSS && words.some(Boolean);
  const cell = (search: SearchFigures, i: number) =>
    search.state === 'waits' && state !== 'done' && state !== 'stopped' ? (
      <i className="text-[12px] text-soft">waits</i>
    ) : (
      <button
        type="button"
        className="figure hover:underline"
        title="See these records"
        aria-label={`${search.records} records of ${[search.word, search.place].filter(Boolean).join(' / ')}`}
        onClick={() => onShow(i + 1)}
      >
        {format.number(search.records)}
      </button>
    );
  return (
    <div className="border-b border-dashed border-edge/70 px-4 pb-2.5 pl-10">
      <div className="flex items-baseline justify-between">
        <span className="font-semibold">
          Searches{' '}
          <span className="text-[13px] font-normal text-soft">
            {words.some(Boolean) && `${format.number(words.length)} ${words.length === 1 ? 'word' : 'words'}`}
            {words.some(Boolean) && places.some(Boolean) && ' × '}
            {places.some(Boolean) &&
              `${format.number(places.length)} ${places.length === 1 ? 'place' : 'places'}`}
          </span>
        </span>
        <span className="figure text-[15px] font-semibold">{format.number(searches.length)}</span>
      </div>
      {searches.length > 1 &&
        (isGrid ? (
          <table className="mt-1 w-full text-[13px]" aria-label="Records by word and place">
            <thead>
              <tr className="text-[12px] text-soft">
                <td />
                {places.map((place) => (
                  <th
                    key={place}
                    className="max-w-16 truncate py-0.5 pr-1 text-right font-normal"
                    title={place}
                  >
                    {place}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {words.map((word) => (
                <tr key={word}>
                  <th className="max-w-28 truncate pr-2 text-left font-normal" title={word}>
                    {word}
                  </th>
                  {places.map((place) => {
                    const at = searches.findIndex((one) => one.word === word && one.place === place);
                    return (
                      <td
                        key={place}
                        className={clsx(
                          'border border-rule py-0.5 pr-1 text-right',
                          searches[at]!.state === 'reads' && 'outline-2 outline-ink',
                        )}
                      >
                        {cell(searches[at]!, at)}
                      </td>
                    );
                  })}
                </tr>
              ))}
            </tbody>
          </table>
        ) : (
          <ul className="mt-1 max-h-40 overflow-y-auto text-[13px]" aria-label="Records by search">
            {searches.slice(0, MOST_LISTED).map((search, i) => (
              <li
                key={`${search.word} ${search.place}`}
                className="flex justify-between gap-3 border-b border-rule py-0.5"
              >
                <span className="truncate">{[search.word, search.place].filter(Boolean).join(', ')}</span>
                {cell(search, i)}
              </li>
            ))}
            {searches.length > MOST_LISTED && (
              <li className="py-0.5 text-soft">
                and {format.number(searches.length - MOST_LISTED)} more searches
              </li>
            )}
          </ul>
        ))}
    </div>
  );
}
