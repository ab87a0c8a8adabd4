import { Link } from 'react-router';
import type { PastRunView } from '../../contract/runs.ts';
import { useFormat } from '../app/format.ts';
import { call } from '../api.ts';
import { Button } from '../ui/controls.tsx';
import { SortHead, useOrder } from '../ui/SortHead.tsx';
import { dayHere, KIND_WORDS, STATE_WORDS, timeWords, tookWords } from './words.ts';

type By = 'name' | 'kind' | 'state' | 'startedAt' | 'took';

/** What ran, by plans and without: loads, matches, exports, gatherers, with what came of each. */
export function PastRuns({
  past,
  wanted,
}: {
  past: readonly PastRunView[];
  /** Whether a name is searched for, and a kind. */
  wanted(name: string, kind: string): boolean;
}) {
  const format = useFormat();
  const rows = past.filter(({ name, kind }) => wanted(name, kind));
  const { sorted, order, setOrder } = useOrder<By, (typeof rows)[number]>(rows, {
    by: 'startedAt',
    descending: true,
  });
  if (rows.length === 0) return <p className="py-4 text-soft">Nothing of that name or kind ran.</p>;
  return (
    <table className="w-full" aria-label="What ran">
      <thead className="border-b border-edge text-[13px]">
        <tr>
          <SortHead by="name" label="What ran" order={order} onOrder={setOrder} />
          <SortHead by="kind" label="Kind" order={order} onOrder={setOrder} />
          <SortHead by="state" label="Came to" order={order} onOrder={setOrder} />
          <SortHead by="startedAt" label="Began" order={order} onOrder={setOrder} />
          <SortHead by="took" label="Took" order={order} onOrder={setOrder} right />
        </tr>
      </thead>
      <tbody>
        {sorted.map(({ id, kind, name, state, startedAt, took, outcome, job, link }) => (
          <tr key={id} className="border-b border-rule align-top">
            <td className="max-w-0 w-[32%] truncate py-1.5 pr-4 pl-1 font-semibold" title={name}>
              {link ? (
                <Link to={link} className="hover:underline">
                  {name}
                </Link>
              ) : (
                name
              )}
            </td>
            <td className="py-1.5 pr-4 text-soft">{KIND_WORDS[kind]}</td>
            <td className={`max-w-0 w-[32%] py-1.5 pr-4 text-[13px] ${state === 'failed' ? 'text-cut' : ''}`}>
              {state !== 'done' && <span className="font-semibold">{STATE_WORDS[state]} </span>}
              {outcome}
              {state === 'running' && job && (
                <Button look="quiet" onClick={() => void call('POST', `/jobs/${job}/cancel`).catch(() => {})}>
                  Cancel
                </Button>
              )}
            </td>
            <td className="figure py-1.5 pr-4 whitespace-nowrap">
              {format.date(dayHere(startedAt))} {timeWords(startedAt)}
            </td>
            <td className="figure py-1.5 pr-2 text-right whitespace-nowrap text-soft">{tookWords(took)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
