import { ArrowDown, ArrowUp } from 'lucide-react';
import { useState } from 'react';

export interface Order<K extends string> {
  by: K;
  descending: boolean;
}

/** Whatever the case and the accents, and numbers within names by their size. */
const NAMES = new Intl.Collator('en', { numeric: true });

function compareCells(one: string | number | null, other: string | number | null): number {
  if (one === other) return 0;
  if (one === null) return -1;
  if (other === null) return 1;
  if (typeof one === 'string' && typeof other === 'string') return NAMES.compare(one, other);
  return one < other ? -1 : 1;
}

/** The order of a list, and its rows in that order. Null comes before everything. */
export function useOrder<K extends string, T extends Record<K, string | number | null>>(
  rows: readonly T[],
  start: Order<K>,
) {
  const [order, setOrder] = useState(start);
  const sorted = [...rows].sort((a, b) => {
    const [one, other] = [a[order.by], b[order.by]];
    const compared = compareCells(one, other);
    return order.descending ? -compared : compared;
  });
  return { sorted, order, setOrder };
}

/** A heading that sorts its list: numbers and dates the largest first, texts from A. */
export function SortHead<K extends string>({
  by,
  label,
  order,
  onOrder,
  right = false,
  text = by === 'name',
  short = false,
}: {
  by: NoInfer<K>;
  label: string;
  order: Order<K>;
  onOrder(order: Order<NoInfer<K>>): void;
  right?: boolean;
  /** Whether it begins with A; what is counted or dated begins with the most or latest. */
  text?: boolean;
  /** Whether a long label is cut; all of it is told when it is pointed at. */
  short?: boolean;
}) {
  const here = order.by === by;
  return (
    <th
      aria-sort={here ? (order.descending ? 'descending' : 'ascending') : 'none'}
      className={`py-2 pr-5 font-semibold ${right ? 'text-right' : 'text-left'}`}
    >
      <button
        type="button"
        className="inline-flex items-center gap-1 whitespace-nowrap hover:underline"
        onClick={() => onOrder({ by, descending: here ? !order.descending : !text })}
      >
        {short ? (
          <span className="block max-w-28 truncate" title={label}>
            {label}
          </span>
        ) : (
          label
        )}{' '}
        {here && (order.descending ? <ArrowDown size={12} /> : <ArrowUp size={12} />)}
      </button>
    </th>
  );
}
