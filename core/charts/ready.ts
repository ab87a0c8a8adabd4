import { axisOf, groups } from './axes.ts';
import { SUBJECTS } from '../fields/registry.ts';
import type { Chart } from './chart.ts';

const COUNT = { of: 'count' } as const;

/** The charts of the ready page of companies; the concentration and what is known stand beside them. */
const COMPANIES: readonly Chart[] = [
  {
    id: 'where',
    title: 'Where they are',
    shape: 'bars',
    by: { field: 'place', level: 'region' },
    measure: COUNT,
  },
  { id: 'size', title: 'How large they are', shape: 'histogram', by: { field: 'headcount' }, measure: COUNT },
  {
    id: 'what',
    title: 'What they do',
    shape: 'bars',
    by: { field: 'industry', level: 'group' },
    measure: COUNT,
  },
  {
    id: 'growth',
    title: 'Growing and how large',
    shape: 'scatter',
    by: { field: 'headcount' },
    measure: { of: 'median', field: 'growth', key: 'headcount 1y' },
  },
  {
    id: 'use',
    title: 'What they use',
    shape: 'bars',
    by: { field: 'technology', level: 'category' },
    measure: { of: 'share' },
  },
  { id: 'age', title: 'How old they are', shape: 'histogram', by: { field: 'age' }, measure: COUNT },
];

/** Charts that a ready page of another subject has at most. */
const MOST_READY = 8;

/** The charts that a subject's Breakdown opens with: those of companies, or one of each of its first fields that have groups. */
export function readyCharts(subject: string): readonly Chart[] {
  if (subject === 'companies') return COMPANIES;
  return (SUBJECTS.get(subject)?.fields ?? [])
    .filter((field) => groups(field) && field.kind !== 'flag' && field.id !== 'source')
    .slice(0, MOST_READY)
    .map((field) => ({
      id: field.id,
      title: field.label,
      shape: field.kind === 'number' || field.kind === 'money' ? 'histogram' : 'bars',
      by: axisOf(field),
      measure: COUNT,
    }));
}
