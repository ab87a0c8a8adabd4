import type { NumberTest, Test } from '../../../../core/tape/nodes.ts';
import { rangeSteps } from '../../../../core/tape/steps.ts';
import { useFormat } from '../../../app/format.ts';
import { useAlternatives, useInBlock, useTally } from '../../queries.ts';

/** What the tape would leave with either limit one step wider or narrower; a click takes the step. */
export function StepCounts<T extends NumberTest>({
  field,
  at,
  test,
  whole,
  show,
  onTest,
}: {
  field: string;
  at: string;
  test: T;
  whole: boolean;
  show(value: number): string;
  onTest(test: NoInfer<T>): void;
}) {
  const format = useFormat();
  const { data: tally } = useTally();
  const steps = rangeSteps(test, whole).map((step) => ({ ...step, test: { ...test, ...step.test } }));
  const { data } = useAlternatives(
    field,
    at,
    steps.map((step) => step.test as Test),
  );
  // Beside the tally only a whole line can be compared.
  const inBlock = useInBlock(at);
  if (inBlock || !data || data.counts.length !== steps.length || !tally) return null;
  return (
    <section aria-label="One step wider or narrower" className="border-t border-rule pt-3">
      <h2 className="title text-[15px]">One step wider or narrower</h2>
      <ul className="mt-1 grid max-w-xl grid-cols-2 gap-x-8">
        {steps.map((step, i) => {
          const change = data.counts[i]! - tally.tally;
          return (
            <li key={`${step.end} ${step.way}`} className="border-b border-rule">
              <button
                type="button"
                className="flex w-full items-baseline gap-2 py-1 text-left hover:bg-picked"
                onClick={() => onTest(step.test)}
              >
                <span className="flex-1">
                  {step.end} <span className="figure">{show(step.test[step.end]!)}</span>
                </span>
                <span className="figure font-semibold">{format.number(data.counts[i]!)}</span>
                <span className="figure w-20 text-right text-[13px] text-soft">
                  {change === 0 ? 'the same' : `${change > 0 ? '+' : '−'}${format.number(Math.abs(change))}`}
                </span>
              </button>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
