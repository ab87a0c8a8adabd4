import type { ReactNode } from 'react';
import type { FileReadingAnswer } from '../../../contract/readings.ts';
import { useFormat } from '../../app/format.ts';
import { Button } from '../../ui/controls.tsx';
import { Roll, type ShownStep } from '../../ui/Roll.tsx';
import type { Reading } from './useReading.ts';

/** What the file comes to: its rows, less what is no data, less refused, less twice, are the records. */
export function ReadingRoll({
  fileName,
  many,
  matching,
  reading: { answer, job, stopped, cancel, again },
  children,
}: {
  fileName: string;
  many: string;
  /** Whether the rows are to be found in the universe rather than loaded. */
  matching: boolean;
  reading: Reading;
  children: ReactNode;
}) {
  const format = useFormat();
  const left = answer ? answer.columns.reduce((sum, { notUnderstood }) => sum + notUnderstood, 0) : 0;
  const share = job?.total ? job.done / job.total : null;
  return (
    <Roll
      title="What it comes to"
      about={
        answer === null
          ? `${fileName} has not been read whole yet.`
          : matching
            ? `All of ${fileName} as its rows will be looked for.`
            : `All of ${fileName} as it would be loaded; nothing is kept yet.`
      }
      steps={answer ? stepsOf(answer, many) : []}
      foot={{ label: many, total: answer ? answer.records : null }}
      busy={job !== null}
      note={
        left > 0 && (
          <span className="text-unsure">
            <span className="figure">{format.number(left)}</span> {left === 1 ? 'cell' : 'cells'} not
            understood
          </span>
        )
      }
    >
      {job && (
        <p role="status" className="flex w-full items-center justify-between text-[13px] text-soft">
          <span>
            Reading {share !== null && <span className="figure">{Math.floor(share * 100)} %</span>}{' '}
            {job.message}
          </span>
          <Button look="quiet" onClick={cancel}>
            Cancel
          </Button>
        </p>
      )}
      {stopped && (
        <p role="status" className="flex w-full items-center justify-between text-[13px] text-soft">
          The reading was cancelled{answer && '; this is an earlier one'}.
          <Button look="quiet" className="underline" onClick={again}>
            Read it whole
          </Button>
        </p>
      )}
      {children}
    </Roll>
  );
}

function stepsOf(
  { rows, notData, refused, twice, notDataRows, refusals }: FileReadingAnswer,
  many: string,
): ShownStep[] {
  const first = refusals[0];
  return [
    { key: 'rows', label: 'Rows under the headings', delta: rows, total: rows },
    {
      key: 'not-data',
      label: 'Not data: totals, notes, headings again',
      delta: -notData,
      total: rows - notData,
      note: notDataRows[0] && `row ${notDataRows[0].row}: ${notDataRows[0].text.slice(0, 60)}`,
    },
    {
      key: 'refused',
      label: 'Refused',
      delta: -refused,
      total: rows - notData - refused,
      note: first && `row ${first.row}, ${first.column}: expected ${first.rule}`,
    },
    // Of what hangs on companies each row is a record of its own.
    ...(many === 'companies'
      ? [
          {
            key: 'twice',
            label: 'Twice: a company that an earlier row has',
            delta: -twice,
            total: rows - notData - refused - twice,
          },
        ]
      : []),
  ];
}
