import { keepPreviousData, useQuery } from '@tanstack/react-query';
import clsx from 'clsx';
import type { SummaryAnswer } from '../../../contract/market.ts';
import { shortCount, shortFigure } from '../../../core/charts/wording.ts';
import { call } from '../../api.ts';
import { useFormat } from '../../app/format.ts';
import { countedPart } from '../queries.ts';
import { useDesk } from '../store.ts';
import type { ShownColumn } from './columns.ts';
import { frozenStyle } from './frozen.ts';

/** The foot of the sheet: of figures the median and the sum, of all columns how many are known. */
export function SheetSummary({
  columns,
  template,
  width,
  widths,
  total,
}: {
  columns: readonly ShownColumn[];
  template: string;
  width: number;
  widths: readonly number[];
  total: number;
}) {
  const tape = countedPart(useDesk((state) => state.tape));
  const frozen = useDesk((state) => state.frozen);
  const format = useFormat();
  const ids = columns.map(({ id }) => id);
  const { data } = useQuery({
    queryKey: ['summary', tape, ids, format.currency],
    queryFn: ({ signal }) =>
      call<SummaryAnswer>('POST', '/summary', { tape, columns: ids, currency: format.currency }, signal),
    placeholderData: keepPreviousData,
    enabled: total > 0,
    retry: false,
  });
  if (total === 0) return null;
  return (
    <div
      role="row"
      aria-label="Summary"
      data-foot
      className="sticky bottom-0 z-10 grid items-center border-t border-edge bg-ground text-[12px]"
      style={{ gridTemplateColumns: template, minWidth: width, height: 36 }}
    >
      <span role="gridcell" className="sticky left-0 bg-ground" />
      {columns.map((column, i) => {
        const own = data?.columns[column.id];
        const share = own && Math.round((100 * own.known) / Math.max(1, total));
        const say = (value: number) => shortFigure(column.field, format, value);
        const saySum = (value: number) =>
          column.field?.kind === 'number' && Math.abs(value) >= 1e6 ? shortCount(value) : say(value);
        return (
          <span
            key={column.id}
            role="gridcell"
            className={clsx(
              'flex h-full flex-col justify-center bg-ground px-2.5 leading-tight whitespace-nowrap',
              column.numeric && 'text-right',
              i < frozen && 'sticky z-[1]',
            )}
            style={frozenStyle(i, frozen, widths)}
            title={
              own?.median != null ? `median of ${format.number(own.exact!)} with a single figure` : undefined
            }
          >
            {own?.median != null && (
              <span className="overflow-hidden">
                <span className="text-soft">median</span>{' '}
                <strong className="figure">{say(own.median)}</strong>
              </span>
            )}
            {own && (
              <span className="overflow-hidden text-soft">
                {own.sum !== undefined && own.exact ? (
                  <span className="figure text-ink" title={format.number(own.sum)}>
                    Σ {saySum(own.sum)}
                  </span>
                ) : (
                  `${share} % known`
                )}
              </span>
            )}
          </span>
        );
      })}
    </div>
  );
}
