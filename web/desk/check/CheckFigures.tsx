import { useState } from 'react';
import type { CheckAnswer } from '../../../contract/checks.ts';
import { useFormat } from '../../app/format.ts';

/** What the sample says of all: how many fit with the interval, whether enough do, and where the misses come through. */
export function CheckFigures({ answer, onAsk }: { answer: CheckAnswer; onAsk(atLeast: number): void }) {
  const format = useFormat();
  const { check, accuracy, holding, more, groups } = answer;
  const { fit, misses, unsure, size, population, atLeast } = check;
  const left = size - fit - misses - unsure;
  const percent = (share: number) => Math.round(100 * share);
  const rows = [
    { label: 'fit', count: fit, look: 'bg-kept', text: 'text-kept', from: 0 },
    { label: 'do not fit', count: misses, look: 'hatched', text: 'text-cut', from: fit },
    { label: 'cannot tell', count: unsure, look: 'unsure-bar', text: 'text-unsure', from: fit + misses },
    { label: 'left', count: left, look: 'border border-edge', text: 'text-ink', from: size - left },
  ];
  return (
    <section aria-label="What the sample says" className="min-h-0 min-w-0 overflow-y-auto pr-1 pb-2">
      <div className="flex items-baseline justify-between border-b border-edge pb-1">
        <h2 className="title text-[17px]">How many fit</h2>
        <span className="text-[13px] text-soft">
          <span className="figure">{fit}</span> of <span className="figure">{fit + misses}</span> judged
        </span>
      </div>
      {accuracy ? (
        <>
          <div className="flex items-center gap-3 pt-2">
            <p
              className="figure text-[40px] leading-none font-semibold"
              aria-label={`${percent(accuracy.share)} % fit`}
            >
              {percent(accuracy.share)}
              <span className="text-[22px]"> %</span>
            </p>
            <p className="text-[13px] leading-5">
              <span className="figure">{percent(accuracy.low)}</span> to{' '}
              <span className="figure">{percent(accuracy.high)}</span> %, 19 times in 20:
              <br />
              <span className="figure text-unsure">
                about {format.number(Math.round(accuracy.share * population))} of {format.number(population)},{' '}
                {format.number(Math.floor(accuracy.low * population))} to{' '}
                {format.number(Math.ceil(accuracy.high * population))}
              </span>
            </p>
          </div>
          <IntervalRule accuracy={accuracy} atLeast={atLeast} />
        </>
      ) : (
        <p className="py-3 text-soft">Nothing is judged yet.</p>
      )}
      <p className="flex flex-wrap items-center gap-1.5 py-1.5">
        At least <AtLeast key={atLeast} value={atLeast} onAsk={onAsk} /> % fit:{' '}
        <strong>{holding === 'not decided' ? 'not decided yet' : holding}</strong>
        {holding === 'not decided' && more !== null && (
          <span>
            , about <span className="figure font-semibold">{format.number(more)}</span> more
          </span>
        )}
      </p>
      <table className="mt-1 w-full text-[14px]">
        <tbody>
          {rows.map(({ label, count, look, text, from }) => (
            <tr key={label}>
              <th className={`w-28 py-0.5 text-left font-normal ${text}`}>{label}</th>
              <td className="figure w-12 text-right font-semibold">{count}</td>
              <td className="pl-4">
                <span className="relative block h-2 border-b border-rule" aria-hidden="true">
                  <span
                    className={`absolute bottom-0 h-2 ${look}`}
                    style={{ left: `${(100 * from) / size}%`, width: `${(100 * count) / size}%` }}
                  />
                </span>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {groups.length > 0 && (
        <>
          <h2 className="title mt-4 border-b border-edge pb-1 text-[17px]">
            Which line’s survivors miss most
          </h2>
          <table className="w-full text-[13px]">
            <thead>
              <tr className="text-[12px] text-soft">
                <th className="py-1 text-left font-normal">Survivors of</th>
                <th className="text-right font-normal">judged</th>
                <th className="text-right font-normal">miss</th>
                <th className="text-right font-normal">share</th>
                <th className="text-right font-normal">fit without</th>
              </tr>
            </thead>
            <tbody>
              {groups.slice(0, MOST_GROUPS).map(({ line, label, how, judged, misses: own, without }) => (
                <tr key={`${line} ${how}`} className="border-t border-rule">
                  <td
                    className="max-w-0 truncate py-1 pr-2"
                    style={{ width: '46%' }}
                    title={`${label} ${how}`}
                  >
                    <strong>{label}</strong> {how}
                  </td>
                  <td className="figure text-right">{judged}</td>
                  <td className="figure text-right text-cut">{own}</td>
                  <td className="figure text-right font-semibold">{percent(own / judged)} %</td>
                  <td className="figure text-right">{without === null ? '–' : `${percent(without)} %`}</td>
                </tr>
              ))}
              <tr className="border-t border-edge">
                <td className="py-1">all judged</td>
                <td className="figure text-right">{fit + misses}</td>
                <td className="figure text-right text-cut">{misses}</td>
                <td className="figure text-right font-semibold">
                  {percent(misses / Math.max(1, fit + misses))} %
                </td>
                <td />
              </tr>
            </tbody>
          </table>
        </>
      )}
    </section>
  );
}

const MOST_GROUPS = 6;

/** The interval on a ruler from nothing to all, with what was asked. */
function IntervalRule({
  accuracy,
  atLeast,
}: {
  accuracy: NonNullable<CheckAnswer['accuracy']>;
  atLeast: number;
}) {
  const { share, low, high } = accuracy;
  const at = (part: number) => `${100 * part}%`;
  return (
    <div className="relative mt-5 mb-8 h-3" aria-hidden="true">
      <div className="absolute inset-y-0 left-0 bg-kept" style={{ width: at(low) }} />
      <div className="unsure-bar absolute inset-y-0" style={{ left: at(low), width: at(high - low) }} />
      <div className="hatched absolute inset-y-0" style={{ left: at(high), width: at(1 - high) }} />
      <div
        className="absolute -inset-y-1 border border-ink"
        style={{ left: at(low), width: at(high - low) }}
      />
      <div className="absolute -inset-y-1.5 w-0.5 bg-ink" style={{ left: at(share) }} />
      {[0, 20, 40, 60, 80, 100].map((tick) => (
        <span
          key={tick}
          className="figure absolute top-4 -translate-x-1/2 text-[11px] text-soft"
          style={{ left: tick === 0 ? '1%' : tick === 100 ? '97.5%' : `${tick}%` }}
        >
          {tick}
        </span>
      ))}
      <span
        className="absolute top-7 -translate-x-1/2 text-[11px] font-semibold whitespace-nowrap"
        style={{ left: `${Math.min(85, Math.max(15, atLeast))}%` }}
      >
        asked: at least <span className="figure">{atLeast}</span>
      </span>
    </div>
  );
}

function AtLeast({ value, onAsk }: { value: number; onAsk(atLeast: number): void }) {
  const [text, setText] = useState(String(value));
  const ask = () => {
    const percent = Number(text);
    if (percent >= 1 && percent <= 99 && percent !== value) onAsk(percent);
    else setText(String(value));
  };
  return (
    <input
      aria-label="Percent that are asked to fit"
      inputMode="numeric"
      value={text}
      className="field figure w-12 px-1.5 py-0.5 text-right"
      onChange={(event) => setText(event.target.value.replace(/\D/g, '').slice(0, 2))}
      onBlur={ask}
      onKeyDown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
    />
  );
}
