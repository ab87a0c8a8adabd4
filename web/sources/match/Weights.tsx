import clsx from 'clsx';
import type { MatchAnswer } from '../../../contract/matches.ts';
import { useFormat } from '../../app/format.ts';
import { Button } from '../../ui/controls.tsx';

/** How the pairs of a match were weighed: what each thing in common speaks for, as it was learned from the file itself. */
export function Weights({ answer, onBack }: { answer: MatchAnswer; onBack(): void }) {
  const format = useFormat();
  const { weights, limits, learning, match } = answer;
  const most = Math.max(1, ...weights.map(({ bits }) => Math.min(24, Math.abs(bits))));
  const share = (value: number) =>
    value >= 0.001 ? `${(100 * value).toFixed(value < 0.01 ? 2 : 1)} %` : value.toExponential(0);
  return (
    <section className="min-h-0 flex-1 overflow-auto px-5 pt-3 pb-6" aria-label="How it was weighed">
      <header className="flex items-baseline gap-4 pb-2">
        <h1 className="title text-[23px]">How it was weighed</h1>
        <Button look="quiet" className="underline" onClick={onBack}>
          all rows
        </Button>
      </header>
      <p className="max-w-3xl pb-3 text-[13px] text-soft">
        For each thing that two records may have in common: how often it is so of one company, and how often
        by chance. What follows is its evidence in bits: each bit doubles the odds. Learned from{' '}
        <span className="figure">{format.number(learning.pairs)}</span> pairs of{' '}
        <span className="figure">{format.number(learning.rows)}</span> rows, without anybody’s judgement. A
        rare word, domain or phone weighs more than is shown here, since it comes up by chance more seldom. A
        row is sure from <span className="figure">{limits.sure.toFixed(2)}</span> on, so that of a hundred
        sure ones <span className="figure">{Math.round(100 * match.precision)}</span> are right, and never by
        its name alone.
      </p>
      <table className="text-left">
        <thead className="border-b border-edge text-[13px]">
          <tr>
            <th className="py-1 pr-6 font-semibold">What</th>
            <th className="py-1 pr-6 font-semibold">How it stands</th>
            <th className="py-1 pr-6 text-right font-semibold">of one company</th>
            <th className="py-1 pr-6 text-right font-semibold">by chance</th>
            <th className="py-1 pr-6 text-right font-semibold">bits</th>
            <th className="w-56">
              <span className="sr-only">Drawn</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {weights.map(({ feature, level, m, u, bits }, i) => (
            <tr
              key={`${feature} ${level}`}
              className={clsx(
                'border-b border-rule',
                weights[i - 1]?.feature !== feature && 'border-t border-t-edge',
              )}
            >
              <td className="py-1 pr-6">{weights[i - 1]?.feature === feature ? '' : feature}</td>
              <td className="py-1 pr-6">{level}</td>
              <td className="figure py-1 pr-6 text-right">{share(m)}</td>
              <td className="figure py-1 pr-6 text-right">{share(u)}</td>
              <td className={clsx('figure py-1 pr-6 text-right', bits < 0 ? 'text-cut' : 'text-kept')}>
                {bits < 0 ? '−' : '+'}
                {Math.abs(bits).toFixed(1)}
              </td>
              <td className="py-1">
                <div className="relative h-2.5 w-56" aria-hidden="true">
                  <div className="absolute left-1/2 h-2.5 border-l border-edge" />
                  <div
                    className={clsx('absolute h-2.5', bits < 0 ? 'hatched' : 'bg-kept')}
                    style={{
                      width: `${(50 * Math.min(24, Math.abs(bits))) / most}%`,
                      ...(bits < 0 ? { right: '50%' } : { left: '50%' }),
                    }}
                  />
                </div>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
