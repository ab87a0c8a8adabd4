import { TriangleAlert } from 'lucide-react';
import type { PlanView } from '../../contract/runs.ts';
import { useFormat } from '../app/format.ts';
import { SortHead, useOrder } from '../ui/SortHead.tsx';
import { dayHere, KIND_WORDS, timeWords, tookWords } from './words.ts';

type By = 'name' | 'kind' | 'when' | 'last' | 'took' | 'changed' | 'next';

const sortable = (plan: PlanView) => ({
  ...plan,
  last: plan.last?.startedAt ?? null,
  took: plan.last?.took ?? null,
  changed: plan.last === null ? null : (plan.last.joined ?? 0) + (plan.last.left ?? 0),
  next: plan.next[0] ?? null,
  plan,
});

/** What runs, with when it ran last and what changed. */
export function PlanTable({
  plans,
  current,
  onCurrent,
  onOpen,
}: {
  plans: readonly PlanView[];
  current: string | null;
  onCurrent(key: string): void;
  onOpen(plan: PlanView): void;
}) {
  const format = useFormat();
  const { sorted, order, setOrder } = useOrder<By, ReturnType<typeof sortable>>(plans.map(sortable), {
    by: 'last',
    descending: true,
  });
  return (
    <table className="w-full" aria-label="What runs">
      <thead className="border-b border-edge text-[13px]">
        <tr className="[&>th:first-child]:pl-3">
          <SortHead by="name" label="What runs" order={order} onOrder={setOrder} />
          <SortHead by="kind" label="Kind" order={order} onOrder={setOrder} />
          <SortHead by="when" label="When" order={order} onOrder={setOrder} />
          <SortHead by="last" label="Last" order={order} onOrder={setOrder} />
          <SortHead by="took" label="Took" order={order} onOrder={setOrder} right />
          <SortHead by="changed" label="Changed" order={order} onOrder={setOrder} right />
          <SortHead by="next" label="Next" order={order} onOrder={setOrder} right />
        </tr>
      </thead>
      <tbody>
        {sorted.map(({ plan }) => (
          <tr
            key={plan.key}
            data-plan={plan.key}
            className={
              plan.key === current
                ? 'border-b border-rule bg-picked shadow-[inset_3px_0_var(--ink)]'
                : 'border-b border-rule hover:bg-paper'
            }
            onClick={() => onCurrent(plan.key)}
            onDoubleClick={() => onOpen(plan)}
          >
            <td className="max-w-0 w-[30%] py-1.5 pr-4 pl-3">
              <button
                type="button"
                className="block max-w-full truncate text-left font-semibold"
                aria-pressed={plan.key === current}
                title={plan.what}
                onClick={() => onCurrent(plan.key)}
              >
                {plan.name}
              </button>
            </td>
            <td className="py-1.5 pr-4 text-soft">{KIND_WORDS[plan.kind]}</td>
            <td className="max-w-0 w-[24%] truncate py-1.5 pr-4" title={plan.when}>
              {plan.when}
            </td>
            <td className="figure py-1.5 pr-4 whitespace-nowrap">
              {plan.last?.startedAt ? (
                <>
                  {format.date(dayHere(plan.last.startedAt))} {timeWords(plan.last.startedAt)}
                </>
              ) : (
                '–'
              )}
            </td>
            <td className="figure py-1.5 pr-5 text-right whitespace-nowrap text-soft">
              {tookWords(plan.last?.took ?? null)}
            </td>
            <td className="py-1.5 pr-5 text-right whitespace-nowrap">
              <Changed plan={plan} />
            </td>
            <td className="figure py-1.5 pr-2 text-right whitespace-nowrap">
              {plan.next[0]
                ? format.date(dayHere(plan.next[0]))
                : plan.schedule.how === 'after'
                  ? 'with it'
                  : '–'}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Changed({ plan: { last, trouble } }: { plan: PlanView }) {
  const format = useFormat();
  if (last?.state === 'running') return <span className="text-soft">running …</span>;
  if (last?.state === 'waits') return <span className="text-soft">in line</span>;
  if (last?.state === 'failed' || trouble !== null)
    return (
      <span
        className="inline-flex items-center gap-1 text-unsure"
        title={trouble ?? last?.message ?? undefined}
      >
        <TriangleAlert size={13} aria-hidden="true" /> {last?.state === 'failed' ? 'failed' : 'cannot run'}
      </span>
    );
  if (!last) return <span className="text-soft">–</span>;
  if (last.state === 'cancelled') return <span className="text-soft">left</span>;
  if (last.comparedTo === null)
    return (
      <span className="figure" title={last.message ?? undefined}>
        {last.count === null ? last.message : format.number(last.count)}
      </span>
    );
  return (
    <span className="figure">
      {last.joined! > 0 && <span className="text-kept">+{format.number(last.joined!)}</span>}{' '}
      {last.left! > 0 && <span className="text-cut">−{format.number(last.left!)}</span>}
      {last.joined === 0 && last.left === 0 && <span className="text-soft">±0</span>}
    </span>
  );
}
