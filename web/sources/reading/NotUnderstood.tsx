import { useState } from 'react';
import type { ColumnReading } from '../../../core/records/census.ts';
import type { Mapping } from '../../../core/records/mapping.ts';
import { useFormat } from '../../app/format.ts';
import { Button } from '../../ui/controls.tsx';

/** The different cells of a column that were not understood, each to be answered once for all its rows. */
export function NotUnderstood({
  at,
  name,
  read,
  mapping,
  onMapping,
}: {
  at: number;
  name: string;
  read: ColumnReading;
  mapping: Mapping;
  onMapping(part: Partial<Mapping>): void;
}) {
  const format = useFormat();
  const answers = mapping.answers?.[at] ?? {};
  const set = (next: Record<string, string | null>) =>
    onMapping({
      answers: mapping.columns.map((_, i) => (i === at ? next : (mapping.answers?.[i] ?? null))),
    });
  const give = (value: string, answer: string | null) => set({ ...answers, [value]: answer });
  const take = (value: string) =>
    set(Object.fromEntries(Object.entries(answers).filter(([key]) => key !== value)));
  return (
    <div className="rounded-md border border-edge bg-paper px-3 py-2 text-[13px]">
      {Object.keys(answers).length > 0 && (
        <ul
          aria-label={`Answers for ${name}`}
          className="mb-2 flex flex-wrap gap-x-4 gap-y-1 border-b border-rule pb-2"
        >
          {Object.entries(answers).map(([value, answer]) => (
            <li key={value}>
              “{value}”{' '}
              {answer === null
                ? 'refuses its row'
                : answer === ''
                  ? 'is left empty'
                  : `is read as “${answer}”`}
              <Button look="quiet" className="underline" onClick={() => take(value)}>
                take back
              </Button>
            </li>
          ))}
        </ul>
      )}
      {read.values.length > 0 && (
        <table className="w-full">
          <thead className="text-left text-soft">
            <tr>
              <th className="py-1 pr-4 text-right font-normal">rows</th>
              <th className="py-1 pr-4 font-normal">cell</th>
              <th className="py-1 pr-4 font-normal">expected</th>
              <th className="py-1 font-normal">read it as</th>
            </tr>
          </thead>
          <tbody>
            {read.values.map(({ value, count, rule }) => (
              <Value
                key={value}
                value={value}
                count={format.number(count)}
                rule={rule}
                onAnswer={(answer) => give(value, answer)}
              />
            ))}
          </tbody>
        </table>
      )}
      {read.more > 0 && (
        <p className="pt-1 text-soft">
          and <span className="figure">{format.number(read.more)}</span> other values; they come up as these
          are answered
        </p>
      )}
    </div>
  );
}

function Value({
  value,
  count,
  rule,
  onAnswer,
}: {
  value: string;
  count: string;
  rule: string;
  onAnswer(answer: string | null): void;
}) {
  const [text, setText] = useState('');
  return (
    <tr className="border-t border-rule">
      <td className="figure py-1 pr-4 text-right">{count}</td>
      <td className="max-w-56 truncate py-1 pr-4" title={value}>
        {value || <em>empty</em>}
      </td>
      <td className="max-w-72 py-1 pr-4 text-soft">{rule}</td>
      <td className="py-1 whitespace-nowrap">
        <form
          className="inline-flex items-center gap-1"
          onSubmit={(event) => {
            event.preventDefault();
            if (text.trim() !== '') onAnswer(text.trim());
          }}
        >
          <input
            aria-label={`Read “${value}” as`}
            className="field w-36 py-0.5"
            value={text}
            onChange={(event) => setText(event.target.value)}
          />
          <Button look="quiet" type="submit" disabled={text.trim() === ''}>
            read so
          </Button>
          <Button look="quiet" onClick={() => onAnswer('')} aria-label={`Leave “${value}” empty`}>
            leave empty
          </Button>
          <Button look="quiet" onClick={() => onAnswer(null)} aria-label={`Refuse rows with “${value}”`}>
            refuse rows
          </Button>
        </form>
      </td>
    </tr>
  );
}
