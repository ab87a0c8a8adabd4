import { useMutation, useQueryClient } from '@tanstack/react-query';
import type { DeliveryView, ProgramsAnswer } from '../../contract/program-views.ts';
import { call } from '../api.ts';
import { useFormat } from '../app/format.ts';
import { Button, Trouble } from '../ui/controls.tsx';
import { SortHead, useOrder } from '../ui/SortHead.tsx';

type By = 'triedAt' | 'to' | 'exportName' | 'state' | 'rows';

const STATES: Readonly<Record<DeliveryView['state'], readonly [label: string, look: string]>> = {
  waiting: ['waiting', 'text-unsure'],
  delivered: ['delivered', 'text-kept'],
  'given-up': ['given up', 'text-cut'],
};

/** Every request to a webhook and every copy in a folder of late, each of which to a webhook can be sent again. */
export function Deliveries({ answer }: { answer: ProgramsAnswer }) {
  const client = useQueryClient();
  const format = useFormat();
  const { deliveries, standIn } = answer;
  const { sorted, order, setOrder } = useOrder<By, DeliveryView>(deliveries, {
    by: 'triedAt',
    descending: true,
  });
  const again = useMutation({
    mutationFn: (id: string) => call('POST', `/deliveries/${id}/again`, { which: 'one' }),
    onSuccess: () => client.invalidateQueries({ queryKey: ['programs'] }),
  });
  if (deliveries.length === 0)
    return (
      <p className="mt-8 text-soft">
        Nothing was delivered yet. Where something is exported, a folder or webhook can be chosen beside the
        file.
      </p>
    );
  return (
    <section aria-labelledby="deliveries" className="mt-8">
      <h2 id="deliveries" className="title text-[18px]">
        What was delivered
      </h2>
      {standIn.requests > 0 && (
        <p className="text-[13px] text-soft">
          The stand-in has had <span className="figure">{format.number(standIn.requests)}</span> requests
          since the program was started, refused{' '}
          <span className="figure">{format.number(standIn.refused)}</span>, and took{' '}
          <span className="figure">{format.number(standIn.rows)}</span> rows.
        </p>
      )}
      <Trouble error={again.error} />
      <table className="mt-2 w-full text-[13px]" aria-label="What was delivered">
        <thead className="border-b border-edge">
          <tr>
            <SortHead by="triedAt" label="When" order={order} onOrder={setOrder} />
            <SortHead by="to" label="To" order={order} onOrder={setOrder} />
            <SortHead by="exportName" label="Export" order={order} onOrder={setOrder} />
            <SortHead by="rows" label="Rows" order={order} onOrder={setOrder} right />
            <SortHead by="state" label="State" order={order} onOrder={setOrder} />
            <th className="py-2 text-left font-semibold">Answer</th>
            <th>
              <span className="sr-only">Again</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {sorted.map((one) => {
            const [label, look] = STATES[one.state];
            return (
              <tr key={one.id} className="border-b border-rule">
                <td className="figure py-1.5 pr-5 whitespace-nowrap">
                  {one.triedAt ? new Date(one.triedAt).toTimeString().slice(0, 8) : '–'}
                </td>
                <td className="pr-5">{one.to}</td>
                <td className="max-w-60 truncate pr-5">
                  {one.exportName}
                  {one.of > 1 && <span className="figure text-soft"> {`${one.nth}/${one.of}`}</span>}
                </td>
                <td className="figure pr-5 text-right">{format.number(one.rows)}</td>
                <td className={`pr-5 whitespace-nowrap ${look}`}>
                  {label}
                  {one.attempts > 1 && ` after ${one.attempts} attempts`}
                  {one.dueAt &&
                    one.attempts > 0 &&
                    `, next at ${new Date(one.dueAt).toTimeString().slice(0, 8)}`}
                </td>
                <td className="max-w-60 truncate" title={one.answer ?? undefined}>
                  {one.answer}
                </td>
                <td className="text-right">
                  {one.kind === 'hook' && one.state !== 'waiting' && (
                    <Button look="quiet" onClick={() => again.mutate(one.id)}>
                      Send again
                    </Button>
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </section>
  );
}
