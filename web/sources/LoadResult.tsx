import type { JobAnswer } from '../../contract/responses.ts';
import { useFormat } from '../app/format.ts';

interface Refusal {
  row: number;
  column: string;
  value: string;
  rule: string;
}

/** What a load left out: row, column, value and rule, and the whole list as a file. */
export function LoadResult({ answer }: { answer: JobAnswer }) {
  const format = useFormat();
  const result = answer.job.result as {
    read: number;
    refused: number;
    left?: number;
    notData?: number;
    refusals: Refusal[];
    refusedCells: number;
    found?: { key?: number; number: number; domain: number; name: number; not: number };
    joinedDeals?: number;
    mayBeTwice?: number;
  } | null;
  return (
    <div className="mt-2 rounded-md border border-edge bg-paper p-3 text-[13px]">
      {result && (
        <p>
          <span className="figure">{format.number(result.read - result.refused)}</span> rows landed,{' '}
          <span className="figure text-cut">{format.number(result.refused)}</span> were refused
          {!!result.left && (
            <>
              ; <span className="figure text-unsure">{format.number(result.left)}</span> cells were not
              understood and left empty
            </>
          )}
          {!!result.notData && (
            <>
              ; <span className="figure">{format.number(result.notData)}</span> rows were no data
            </>
          )}
          .
        </p>
      )}
      {result?.found && (
        <p>
          Companies found{' '}
          {!!result.found.key && (
            <>
              by their key here <span className="figure">{format.number(result.found.key)}</span>,{' '}
            </>
          )}
          by registration number <span className="figure">{format.number(result.found.number)}</span>, by
          domain <span className="figure">{format.number(result.found.domain)}</span>, by name{' '}
          <span className="figure">{format.number(result.found.name)}</span>, not found{' '}
          <span className="figure text-unsure">{format.number(result.found.not)}</span>
          {!!result.joinedDeals && (
            <>
              ; <span className="figure">{format.number(result.joinedDeals)}</span> deals another source had
              already
            </>
          )}
          .
        </p>
      )}
      {!!result?.mayBeTwice && (
        <p>
          <span className="figure">{format.number(result.mayBeTwice)}</span>{' '}
          {result.mayBeTwice === 1 ? 'company has' : 'companies have'} no registration number and may be there
          under another name; see Doubles.
        </p>
      )}
      {!!result?.refused && (
        <table className="mt-2 w-full">
          <thead className="text-left text-soft">
            <tr>
              <th className="py-1 pr-4 text-right font-normal">row</th>
              <th className="py-1 pr-4 font-normal">column</th>
              <th className="py-1 pr-4 font-normal">value</th>
              <th className="py-1 font-normal">expected</th>
            </tr>
          </thead>
          <tbody>
            {(result?.refusals ?? []).slice(0, 20).map((refusal, i) => (
              <tr key={i} className="border-t border-rule">
                <td className="figure py-1 pr-4 text-right">{refusal.row}</td>
                <td className="py-1 pr-4">{refusal.column}</td>
                <td className="figure max-w-64 truncate py-1 pr-4">{refusal.value || '(empty)'}</td>
                <td className="py-1">{refusal.rule}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {!!result?.refused && (
        <a href={`/api/jobs/${answer.job.id}/refusals`} className="mt-2 inline-block underline">
          All refused rows as CSV, as they came, to be mended and loaded
        </a>
      )}
    </div>
  );
}
