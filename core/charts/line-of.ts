import type { Field } from '../fields/field.ts';
import type { Test } from '../tape/nodes.ts';
import { AND_BEFORE, AXIS_SCHEME, type Buckets } from './buckets.ts';
import { barRanges } from './bars.ts';
import type { Axis } from './chart.ts';

/** The test that keeps the records of one group of an axis; null where no line says that, as of what has no key. */
export function testOfGroup(
  field: Field,
  axis: Axis,
  buckets: Buckets,
  key: string | null,
  currency: string,
): Test | null {
  if (key === null || field.openers.length === 0) return null;
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
      const edges = buckets.edges!;
      const ends = barRanges(field, edges)[edges.indexOf(Number(key))]!;
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
