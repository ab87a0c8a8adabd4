import type { Field } from '../fields/field.ts';
import type { Test } from '../tape/nodes.ts';
import { AND_BEFORE, AXIS_SCHEME, type Buckets } from './buckets.ts';
import type { Axis } from './chart.ts';

/** The smallest step of figures that are not whole: where a bar ends, the next has not begun. */
const STEP = 0.01;

/** The test that keeps the records of one group of an axis; null where no line says that. */
export function testOfGroup(
  field: Field,
  axis: Axis,
  buckets: Buckets,
  key: string,
  currency: string,
): Test | null {
  switch (field.kind) {
    case 'codes':
      return { scheme: AXIS_SCHEME, any: [key], rank: 'main' };
    case 'place':
      if (axis.level === 'country') return { countries: [key] };
      return axis.level === 'town' ? { towns: [key] } : { regions: [key] };
    case 'date':
      return dateTest(key);
    case 'category':
      return { any: [key] };
    case 'flag':
      return { is: key === 'yes' };
    case 'number':
    case 'money':
    case 'keyed':
    case 'growth': {
      const ends = barEnds(field, buckets.edges!, Number(key));
      if (field.kind === 'money') return { ...ends, currency };
      if (field.kind === 'keyed') return { key: axis.key!, ...ends };
      if (field.kind === 'growth') {
        const [of, over] = axis.key!.split(' ') as [string, '1y' | '3y'];
        return { of, over, ...ends };
      }
      return ends;
    }
    default:
      return null;
  }
}

/** From where to where a bar goes, both included; the last has no end, and the first no beginning: what is below it is counted there. */
export function barEnds(
  field: Pick<Field, 'kind' | 'id'>,
  edges: readonly number[],
  from: number,
): { from?: number; to?: number } {
  const next = edges[edges.indexOf(from) + 1];
  const step = field.kind === 'number' ? 1 : STEP;
  const first = from === edges[0] && edges.length > 1;
  return {
    ...(first ? {} : { from }),
    ...(next === undefined ? {} : { to: Math.round((next - step) * 100) / 100 }),
  };
}

/** The test of a year or a month, or of all up to one. */
function dateTest(key: string): Test {
  const before = key.startsWith(AND_BEFORE);
  const time = before ? key.slice(AND_BEFORE.length) : key;
  const [year, month] = time.split('-').map(Number) as [number, number | undefined];
  if (month === undefined) return before ? { to: `${year}-12-31` } : { year };
  const last = new Date(Date.UTC(year, month, 0)).getUTCDate();
  const to = `${time}-${String(last).padStart(2, '0')}`;
  return before ? { to } : { from: `${time}-01`, to };
}
