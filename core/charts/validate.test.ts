import { describe, expect, test } from '@jest/globals';
import { Problem } from '../tape/problem.ts';
import { checkChart, checkCharts } from './validate.ts';
import { MOST_CHARTS } from './chart.ts';

/** Charts from outside: what is right comes back as it was, what is not is named with its rule. */

const bars = { id: 'a', shape: 'bars', by: { field: 'status' }, measure: { of: 'count' } };
const check = (more: object, subject = 'companies') => checkChart({ ...bars, ...more }, 'chart', subject);
const problemOf = (more: object) => {
  try {
    check(more);
  } catch (error) {
    if (error instanceof Problem) return error;
    throw error;
  }
  throw new Error(`${JSON.stringify(more)} was taken.`);
};

test.each([
  bars,
  { ...bars, title: 'By status', most: 5 },
  { ...bars, by: { field: 'place', level: 'region' }, measure: { of: 'sum', field: 'revenue' } },
  { ...bars, by: { field: 'industry', level: 'division' }, measure: { of: 'share' } },
  { ...bars, shape: 'stacked', split: { field: 'ownership' } },
  { ...bars, shape: 'heat', split: { field: 'founded' }, measure: { of: 'median', field: 'headcount' } },
  { ...bars, shape: 'histogram', by: { field: 'headcount' } },
  { ...bars, shape: 'scatter', by: { field: 'headcount' }, measure: { of: 'mean', field: 'revenue' } },
  { ...bars, by: { field: 'channel', key: 'dealers' } },
])('a right one comes back as it was: %#', (chart) => {
  expect(checkChart(chart, 'chart', 'companies')).toEqual(chart);
});

describe('a wrong one is named', () => {
  test.each([
    [{ shape: 'pie' }, 'chart.shape'],
    [{ colour: 'red' }, 'chart.colour'],
    [{ id: '' }, 'chart.id'],
    [{ by: { field: 'smell' } }, 'chart.by.field'],
    [{ by: { field: 'description' } }, 'chart.by.field'],
    [{ by: { field: 'status', level: 'region' } }, 'chart.by.level'],
    [{ by: { field: 'place', level: 'street' } }, 'chart.by.level'],
    [{ by: { field: 'status', key: 'dealers' } }, 'chart.by.key'],
    [{ by: { field: 'channel' } }, 'chart.by.key'],
    [{ by: { field: 'channel', key: 'by post' } }, 'chart.by.key'],
    [{ measure: { of: 'most' } }, 'chart.measure.of'],
    [{ measure: { of: 'count', field: 'revenue' } }, 'chart.measure.field'],
    [{ measure: { of: 'sum', field: 'status' } }, 'chart.measure.field'],
    [{ measure: { of: 'sum' } }, 'chart.measure.field'],
    [{ shape: 'stacked' }, 'chart.split'],
    [{ split: { field: 'ownership' } }, 'chart.split'],
    [{ shape: 'parts', measure: { of: 'mean', field: 'revenue' } }, 'chart.measure.of'],
    [
      { shape: 'stacked', split: { field: 'ownership' }, measure: { of: 'median', field: 'revenue' } },
      'chart.measure.of',
    ],
    [{ shape: 'histogram' }, 'chart.by.field'],
    [{ shape: 'strip' }, 'chart.measure.field'],
    [{ shape: 'scatter', measure: { of: 'mean', field: 'revenue' } }, 'chart.by.field'],
    [{ most: 2001 }, 'chart.most'],
    [{ most: 1.5 }, 'chart.most'],
  ])('%j at %s', (more, at) => {
    expect(problemOf(more).field).toBe(at);
  });

  test('with what is right instead', () => {
    expect(problemOf({ shape: 'stacked' }).message).toMatch(/split by a second field/);
    expect(problemOf({ by: { field: 'smell' } }).message).toBe('There is no field "smell" of companies.');
  });
});

test('of another subject it has the fields of that; of several each has an id of its own', () => {
  const events = { ...bars, by: { field: 'kind' } };
  expect(check(events, 'events')).toEqual(events);
  expect(() => check(events)).toThrow(Problem);
  expect(checkCharts([bars, { ...bars, id: 'b' }], 'charts', 'companies')).toHaveLength(2);
  expect(() => checkCharts([bars, bars], 'charts', 'companies')).toThrow(/charts\[1\]\.id/);
  const many = Array.from({ length: MOST_CHARTS + 1 }, (_, i) => ({ ...bars, id: `c${i}` }));
  expect(() => checkCharts(many, 'charts', 'companies')).toThrow(Problem);
  expect(() => checkCharts('bars', 'charts', 'companies')).toThrow(Problem);
});
