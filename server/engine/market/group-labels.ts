import { AND_BEFORE, AXIS_SCHEME } from '../../../core/charts/buckets.ts';
import type { Axis } from '../../../core/charts/chart.ts';
import { fieldOf } from '../../../core/fields/registry.ts';
import type { Lookup } from '../../../core/tape/lookup.ts';
import { shortTitle } from '../../../core/tape/wording.ts';

/** How the groups of an axis are written. Bars of figures are written by whoever shows them, in the workspace's formats. */
export function groupLabels(lookup: Lookup, subject: string, axis: Axis): (key: string) => string {
  const field = fieldOf(subject, axis.field)!;
  switch (field.kind) {
    case 'codes': {
      const tree = lookup.codes(AXIS_SCHEME);
      return (key) => `${key} ${shortTitle(tree.titles[tree.nodeOf(key)] ?? '')}`;
    }
    case 'place':
      if (axis.level === 'country') return (key) => lookup.places.country(key)?.name ?? key;
      if (axis.level === 'town') return (key) => key.split(', ')[0]!;
      return (key) => lookup.places.region(key)?.english ?? key;
    case 'category': {
      const labels = new Map(lookup.choices(field).map((choice) => [choice.key, choice.label]));
      return (key) => labels.get(key) ?? key;
    }
    case 'date':
      return (key) => (key.startsWith(AND_BEFORE) ? `${key.slice(AND_BEFORE.length)} and before` : key);
    default:
      return (key) => key;
  }
}
