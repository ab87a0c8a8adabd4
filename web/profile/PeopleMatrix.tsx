import { useQuery } from '@tanstack/react-query';
import type { ChartAnswer } from '../../contract/market.ts';
import type { Chart } from '../../core/charts/chart.ts';
import { addLines, freeId } from '../../core/tape/edit.ts';
import type { Tape } from '../../core/tape/nodes.ts';
import { call } from '../api.ts';
import { useFormat } from '../app/format.ts';
import { countedPart } from '../desk/queries.ts';
import { useDesk } from '../desk/store.ts';
import { Trouble } from '../ui/controls.tsx';

const CHART: Chart = {
  id: 'people',
  shape: 'heat',
  by: { field: 'department' },
  split: { field: 'level' },
  measure: { of: 'count' },
};

/** People of a company by department and level; a number is the way to just those. */
export function PeopleMatrix({ tape }: { tape: Tape }) {
  const format = useFormat();
  const asked = { tape: countedPart(tape), charts: [CHART] };
  const { data, error } = useQuery({
    queryKey: ['charts', asked],
    queryFn: ({ signal }) => call<{ charts: ChartAnswer[] }>('POST', '/charts', asked, signal),
    retry: false,
  });
  const found = data?.charts[0];
  if (error) return <Trouble error={error} />;
  // Nothing to tell apart where all are alike; their names stand below in any case.
  if (!found?.split || found.slots.length < 2) return null;
  const levels = found.split.map((level, at) => ({ ...level, at }));
  const used = levels.filter(({ at }) => found.slots.some(({ parts }) => (parts?.[at]?.count ?? 0) > 0));
  const open = (department: string, level: string) => {
    const { change, set } = useDesk.getState();
    const ofDepartment = addLines(tape, [
      { id: freeId(tape), field: 'department', test: { any: [department] } },
    ]);
    change(addLines(ofDepartment, [{ id: freeId(ofDepartment), field: 'level', test: { any: [level] } }]));
    set({ company: null, openLine: null, view: 'sheet', sort: [{ by: 'level' }] });
  };
  return (
    <table className="mb-3 text-[13px]">
      <caption className="sr-only">People by department and level</caption>
      <thead className="text-[12px] text-soft">
        <tr>
          <td />
          {used.map(({ at, label, key }) => (
            <th key={at} scope="col" className="px-2 text-right font-normal">
              {label ?? key ?? 'unknown'}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {found.slots.map((slot) => (
          <tr key={slot.key ?? slot.kind} className="border-b border-rule">
            <th scope="row" className="py-0.5 pr-3 text-left font-normal">
              {slot.label ?? slot.kind}
            </th>
            {used.map(({ at, key, label }) => {
              const count = slot.parts?.[at]?.count ?? 0;
              return (
                <td key={at} className="figure px-2 text-right">
                  {count === 0 ? (
                    <span className="text-soft">·</span>
                  ) : slot.key === null || key === null ? (
                    count
                  ) : (
                    <button
                      type="button"
                      className="font-semibold underline decoration-rule underline-offset-4 hover:decoration-ink"
                      aria-label={`${count} in ${slot.label}, ${label}: as a tape`}
                      onClick={() => open(slot.key!, key)}
                    >
                      {format.number(count)}
                    </button>
                  )}
                </td>
              );
            })}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
