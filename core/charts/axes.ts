import type { Field } from '../fields/field.ts';
import { SUBJECTS } from '../fields/registry.ts';
import type { Axis } from './chart.ts';

/** Levels that an axis of some kinds of field can have, the usual one first. */
export const LEVELS: Readonly<Record<string, readonly string[]>> = {
  place: ['region', 'country', 'town'],
  codes: ['group', 'division', 'section', 'class'],
  date: ['year', 'month'],
};

/** Levels of a field's axis; none where it has but one form. Technologies stand by product or by category. */
export function levelsOf(field: Pick<Field, 'kind' | 'id'>): readonly string[] {
  if (field.id === 'technology') return ['product', 'category'];
  return LEVELS[field.kind] ?? [];
}

/** Whether the values of a field can be groups. */
export function groups(field: Field): boolean {
  return (
    !['text', 'label', 'list', 'record', 'rank', 'peers'].includes(field.kind) &&
    field.store.at !== 'contacts'
  );
}

/** Whether a field has figures that can be added up and halved. */
export function measures(field: Field): boolean {
  return ['number', 'money', 'keyed', 'growth'].includes(field.kind);
}

/** Keys of the figures of keyed fields and growth; none for others. */
export function keysOf(field: Field): readonly { key: string; label: string }[] {
  if (field.kind === 'keyed') return field.values ?? [];
  if (field.kind !== 'growth') return [];
  return ['headcount', 'revenue'].flatMap((of) => [
    { key: `${of} 1y`, label: `of ${of} over 1 year` },
    { key: `${of} 3y`, label: `of ${of} over 3 years` },
  ]);
}

/** The fields of a subject whose values can be groups. */
export function axisFields(subject: string): Field[] {
  return (SUBJECTS.get(subject)?.fields ?? []).filter(groups);
}

/** The fields of a subject that have figures. */
export function measureFields(subject: string): Field[] {
  return (SUBJECTS.get(subject)?.fields ?? []).filter(measures);
}

/** The usual axis of a field. */
export function axisOf(field: Field): Axis {
  const [level] = levelsOf(field);
  const key = keysOf(field)[0]?.key;
  return {
    field: field.id,
    ...(level === undefined ? {} : { level }),
    ...(key === undefined ? {} : { key }),
  };
}
