import { fieldOf } from '../fields/registry.ts';
import { Problem } from '../tape/problem.ts';
import { listAt, objectAt, onlyKeys, oneOfAt, textAt, wholeAt, wrong } from '../tape/shapes.ts';
import { groups, keysOf, levelsOf, measures } from './axes.ts';
import { MEASURES, MOST_CHARTS, SHAPES, type Axis, type Chart, type Measure, type Shape } from './chart.ts';

const MOST_SHOWN = 2000;

/** Checks the charts of a tape from outside. @throws Problem naming the key, the value and the rule */
export function checkCharts(input: unknown, at: string, subject: string): Chart[] {
  const ids = new Set<string>();
  return listAt(input, at, MOST_CHARTS).map((chart, i) => {
    const checked = checkChart(chart, `${at}[${i}]`, subject);
    if (ids.has(checked.id)) throw wrong(`${at}[${i}].id`, checked.id, 'an id that no other chart has');
    ids.add(checked.id);
    return checked;
  });
}

/** Checks one chart. @throws Problem */
export function checkChart(input: unknown, at: string, subject: string): Chart {
  const raw = objectAt(input, at);
  onlyKeys(raw, at, ['id', 'title', 'shape', 'by', 'split', 'measure', 'most']);
  const shape = oneOfAt(raw.shape, `${at}.shape`, Object.keys(SHAPES) as Shape[]);
  const by = checkAxis(raw.by, `${at}.by`, subject);
  const measure = checkMeasure(raw.measure, `${at}.measure`, subject);
  const split = raw.split === undefined ? undefined : checkAxis(raw.split, `${at}.split`, subject);
  const most = raw.most === undefined ? undefined : wholeAt(raw.most, `${at}.most`);
  if (most !== undefined && most > MOST_SHOWN) throw wrong(`${at}.most`, most, `at most ${MOST_SHOWN}`);
  if ((shape === 'stacked' || shape === 'heat') && !split)
    throw wrong(`${at}.split`, raw.split, `an axis: ${SHAPES[shape]} are split by a second field`);
  if (split && !['stacked', 'heat', 'table'].includes(shape))
    throw wrong(`${at}.split`, raw.split, `none: ${SHAPES[shape]} have no second field`);
  if (shape === 'parts' && (measure.of === 'mean' || measure.of === 'median'))
    throw wrong(`${at}.measure.of`, measure.of, 'a count, share or sum: means do not add up to a whole');
  if (shape === 'stacked' && (measure.of === 'mean' || measure.of === 'median'))
    throw wrong(`${at}.measure.of`, measure.of, 'a count, share or sum: means cannot be stacked');
  if (shape === 'histogram' && !measures(fieldOf(subject, by.field)!))
    throw wrong(`${at}.by.field`, by.field, 'a field that has figures');
  if ((shape === 'scatter' || shape === 'strip') && measure.field === undefined)
    throw wrong(`${at}.measure.field`, raw.measure, 'a field that has figures');
  if (shape === 'scatter' && !measures(fieldOf(subject, by.field)!))
    throw wrong(`${at}.by.field`, by.field, 'a field that has figures');
  return {
    id: textAt(raw.id, `${at}.id`, 60),
    ...(raw.title === undefined ? {} : { title: textAt(raw.title, `${at}.title`, 120) }),
    shape,
    by,
    ...(split ? { split } : {}),
    measure,
    ...(most === undefined ? {} : { most }),
  };
}

function checkAxis(input: unknown, at: string, subject: string): Axis {
  const raw = objectAt(input, at);
  onlyKeys(raw, at, ['field', 'level', 'key']);
  const field = fieldAt(raw.field, `${at}.field`, subject);
  if (!groups(field)) throw wrong(`${at}.field`, raw.field, 'a field whose values can be groups');
  const levels = levelsOf(field);
  if (raw.level !== undefined && !levels.length)
    throw wrong(`${at}.level`, raw.level, `none: ${field.label} has no levels`);
  const level = raw.level === undefined ? undefined : oneOfAt(raw.level, `${at}.level`, levels);
  return { field: field.id, ...(level === undefined ? {} : { level }), ...keyAt(raw.key, at, field) };
}

function checkMeasure(input: unknown, at: string, subject: string): Measure {
  const raw = objectAt(input, at);
  onlyKeys(raw, at, ['of', 'field', 'key']);
  const of = oneOfAt(raw.of, `${at}.of`, MEASURES);
  if (of === 'count' || of === 'share') {
    if (raw.field !== undefined && raw.field !== null)
      throw wrong(`${at}.field`, raw.field, 'none: a count is of no field');
    return { of };
  }
  const field = fieldAt(raw.field, `${at}.field`, subject);
  if (!measures(field)) throw wrong(`${at}.field`, raw.field, 'a field that has figures');
  return { of, field: field.id, ...keyAt(raw.key, at, field) };
}

function keyAt(value: unknown, at: string, field: Parameters<typeof keysOf>[0]): { key?: string } {
  const keys = keysOf(field).map(({ key }) => key);
  if (!keys.length) {
    if (value !== undefined) throw wrong(`${at}.key`, value, `none: ${field.label} has no keys`);
    return {};
  }
  return { key: oneOfAt(value, `${at}.key`, keys) };
}

function fieldAt(value: unknown, at: string, subject: string) {
  const id = textAt(value, at, 60);
  const field = fieldOf(subject, id);
  if (!field)
    throw new Problem('unknown-field', `There is no field "${id}" of ${subject}.`, {
      field: at,
      value: id,
      rule: `a field of ${subject}`,
    });
  return field;
}
