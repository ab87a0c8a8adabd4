import type { RunView } from '../../contract/runs.ts';
import { useFormat } from '../app/format.ts';
import { Trouble } from '../ui/controls.tsx';
import { useSearches } from './use-runs.ts';

/** What came of each search of a batch, refused ones with why. */
export function SearchesSheet({ run }: { run: RunView }) {
  const format = useFormat();
  const { data, error } = useSearches(run);
  if (error) return <Trouble error={error} />;
  if (!data) return <p className="py-3 text-soft">Looking …</p>;
  if (data.searches.length === 0) return <p className="py-3 text-soft">None of its searches has run yet.</p>;
  const figure = (value: number | null) => (value === null ? '–' : format.number(value));
  return (
    <table className="w-full table-fixed text-[13px]" aria-label="Searches">
      <thead className="text-[12px] text-soft">
        <tr className="border-b border-rule text-left">
          <th className="w-12 py-1 pr-3 text-right font-normal">Row</th>
          <th className="w-[28%] py-1 font-normal">Search</th>
          <th className="py-1 font-normal">Read as</th>
          <th className="w-20 py-1 text-right font-normal">Found</th>
          <th className="w-20 py-1 text-right font-normal">Taken</th>
          <th className="w-20 py-1 pr-2 text-right font-normal">Fresh</th>
        </tr>
      </thead>
      <tbody>
        {data.searches.map(({ row, search, state, said, found, taken, added }) => (
          <tr key={row} className="border-b border-rule">
            <td className="figure py-1 pr-3 text-right text-soft">{row + 2}</td>
            <td className="truncate py-1 pr-3 font-semibold" title={search}>
              {search}
            </td>
            <td
              className={`py-1 pr-3 ${state === 'refused' ? 'text-cut' : 'truncate text-soft'}`}
              title={said}
            >
              {said}
            </td>
            <td className="figure py-1 text-right">{figure(found)}</td>
            <td className="figure py-1 text-right">{figure(taken)}</td>
            <td className="figure py-1 pr-2 text-right text-kept">{figure(added)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
