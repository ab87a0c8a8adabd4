import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { PartingAnswer } from '../../../contract/steering.ts';
import { addLines, freeId } from '../../../core/tape/edit.ts';
import { call } from '../../api.ts';
import { useFormat } from '../../app/format.ts';
import { useDesk } from '../../desk/store.ts';
import { Button, Trouble } from '../../ui/controls.tsx';

/** Judgements below which little is to be learned. */
const FEW = 20;
/** Chance from which a parting may well be nothing. */
const DOUBTFUL = 0.05;

/** From verdicts back to the tape: of each field the line that best parts those in from those out, added in one act. */
export function PartingLines({ list, judged }: { list: string; judged: number }) {
  const format = useFormat();
  const [open, setOpen] = useState(false);
  const { data, error } = useQuery({
    queryKey: ['lists', 'parting', list],
    queryFn: ({ signal }) =>
      call<PartingAnswer>('GET', `/lists/${encodeURIComponent(list)}/parting`, undefined, signal),
    enabled: open,
    retry: false,
  });
  if (judged === 0) return null;
  const add = (line: PartingAnswer['lines'][number]['line']) => {
    const { tape, change } = useDesk.getState();
    change(addLines(tape, [{ ...line, id: freeId(tape) }]));
  };
  return (
    <section className="border-t border-dashed border-edge/70 py-2 pr-4 pl-10">
      <Button look="quiet" className="-ml-1.5" aria-expanded={open} onClick={() => setOpen(!open)}>
        {open ? 'Lines that part in from out' : 'Which line would part in from out?'}
      </Button>
      {open && (
        <>
          <Trouble error={error} />
          {data && (
            <p className="text-[12px] text-soft">
              {data.judgedIn + data.judgedOut < FEW
                ? `Only ${data.judgedIn + data.judgedOut} are judged in or out: few to go by. `
                : ''}
              Ranked by Fisher’s exact test, corrected for the {format.number(data.tried)} lines tried.
            </p>
          )}
          {data?.lines.length === 0 && (
            <p className="text-[13px] text-soft">No line does so: some must be judged in and some out.</p>
          )}
          <ul aria-label="Lines that part in from out">
            {data?.lines.map(({ line, words, dropsIn, dropsOut, dropsNotJudged, chance }) => (
              <li key={words} className="border-t border-rule py-1.5 text-[13px]">
                <div className="flex items-baseline justify-between gap-2">
                  <strong>{words}</strong>
                  <Button look="quiet" aria-label={`Add ${words}`} onClick={() => add(line)}>
                    Add
                  </Button>
                </div>
                <p className="text-soft">
                  would drop <span className="figure text-cut">{format.number(dropsOut)}</span> of the{' '}
                  <span className="figure">{format.number(data.judgedOut)}</span> out and{' '}
                  <span className="figure text-kept">{format.number(dropsIn)}</span> of the{' '}
                  <span className="figure">{format.number(data.judgedIn)}</span> in;{' '}
                  <span className="figure">{format.number(dropsNotJudged)}</span> not judged would go
                  {chance > DOUBTFUL && <span className="text-unsure">; may well be chance</span>}
                </p>
              </li>
            ))}
          </ul>
        </>
      )}
    </section>
  );
}
