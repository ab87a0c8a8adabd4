import { useQuery } from '@tanstack/react-query';
import { useDeferredValue, useState } from 'react';
import type { NearAnswer, NearWay } from '../../../contract/steering.ts';
import { subjectOf } from '../../../core/fields/registry.ts';
import { editLine } from '../../../core/tape/edit.ts';
import { call } from '../../api.ts';
import { useFormat } from '../../app/format.ts';
import { Button, Dialog, Trouble } from '../../ui/controls.tsx';
import { countedPart } from '../queries.ts';
import { useDesk } from '../store.ts';

/** “About so many, please”: which lines to turn so that the tape comes nearest a number, each way counted. */
export function NearDialog({ onClose }: { onClose(): void }) {
  const format = useFormat();
  const tape = useDesk((state) => state.tape);
  const [text, setText] = useState('');
  const target = useDeferredValue(Number(text));
  const asked = countedPart(tape);
  const { data, error, isFetching } = useQuery({
    queryKey: ['near', asked, target],
    queryFn: ({ signal }) => call<NearAnswer>('POST', '/near', { tape: asked, target }, signal),
    enabled: target >= 1,
    retry: false,
  });
  const { many } = subjectOf(tape.subject);
  const take = ({ lines }: NearWay) => {
    const changed = lines.reduce((now, { line }) => editLine(now, line.id, () => line), tape);
    useDesk.getState().change(changed);
    onClose();
  };
  const must = tape.lines.length > 0 && tape.lines.every((line) => line.must);
  return (
    <Dialog open title="About how many?" onClose={onClose} width={620}>
      <label className="flex items-center gap-2">
        About
        <input
          autoFocus
          inputMode="numeric"
          aria-label={`About how many ${many}`}
          value={text}
          className="field figure w-28 text-right"
          onChange={(event) => setText(event.target.value.replace(/\D/g, '').slice(0, 8))}
        />
        {many}, please
      </label>
      <p className="mt-1 text-[13px] text-soft">
        One or two lines are turned, those marked must never. Every way is counted exactly; click one to take
        it.
      </p>
      <Trouble error={error} />
      {must && <p className="mt-3 text-soft">Every line is marked must, so none may be turned.</p>}
      {data && target >= 1 && (
        <ul aria-label="Ways" aria-busy={isFetching} className="mt-3">
          {data.ways.map((way) => (
            <li
              key={way.lines.map(({ line, words }) => line.id + words).join()}
              className="border-t border-rule"
            >
              <button
                type="button"
                className="grid w-full grid-cols-[88px_1fr] items-baseline gap-3 py-2 text-left hover:bg-picked"
                onClick={() => take(way)}
              >
                <span className="figure text-right text-[17px] font-semibold">
                  {format.number(way.count)}
                </span>
                <span>
                  {way.lines.map(({ line, words, was }) => (
                    <span key={line.id} className="block">
                      {words} <span className="text-[12px] text-soft">instead of {was}</span>
                    </span>
                  ))}
                </span>
              </button>
            </li>
          ))}
          {data.ways.length === 0 && (
            <li className="border-t border-rule py-3 text-soft">
              No line can be turned. Lines that are parked, must, or made of others stay as they are.
            </li>
          )}
        </ul>
      )}
      <div className="mt-3 flex justify-end">
        <Button onClick={onClose}>Close</Button>
      </div>
    </Dialog>
  );
}
