import { isScheme, SCHEMES } from '../codes/tree.ts';
import { dayOf, parseSpan } from '../dates.ts';
import type { Field } from '../fields/field.ts';
import { CURRENCIES } from '../money/rates.ts';
import type { Lookup } from './lookup.ts';
import type {
  CategoryTest,
  CodesTest,
  DateTest,
  MoneyTest,
  NearTest,
  NumberTest,
  PlaceTest,
  Test,
  TextTest,
} from './nodes.ts';
import { Problem, shown } from './problem.ts';
import { parseWords } from './words-query.ts';
import { listAt, objectAt, onlyKeys, textAt } from './shapes.ts';

const MOST_VALUES = 10_000;

/** Checks the test of a line on `field`. @throws Problem */
export function checkTest(field: Field, input: unknown, at: string, lookup: Lookup): Test {
  const raw = objectAt(input, at);
  switch (field.kind) {
    case 'codes':
      return codes(raw, at, lookup);
    case 'place':
      return place(raw, at, lookup);
    case 'number':
      onlyKeys(raw, at, ['from', 'to']);
      return range(raw, at);
    case 'money':
      return money(raw, at);
    case 'category':
      return category(field, raw, at, lookup);
    case 'date':
      return date(raw, at);
    case 'text':
      return text(raw, at);
    case 'label':
      throw new Problem('unknown-field', `${field.label} cannot be a line.`, { field: at, value: field.id });
  }
}

function codes(raw: Record<string, unknown>, at: string, lookup: Lookup): CodesTest {
  onlyKeys(raw, at, ['scheme', 'any', 'except', 'rank']);
  const { scheme, rank } = raw;
  if (!isScheme(scheme)) throw wrong(`${at}.scheme`, scheme, `one of ${Object.keys(SCHEMES).join(', ')}`);
  if (rank !== undefined && rank !== 'main' && rank !== 'any')
    throw wrong(`${at}.rank`, rank, '"main" or "any"');
  const tree = lookup.codes(scheme);
  const known = (code: string, where: string) => {
    if (tree.nodeOf(code) < 0)
      throw new Problem('unknown-code', `${SCHEMES[scheme]} has no code "${code}".`, {
        field: where,
        value: code,
        rule: `a code of ${SCHEMES[scheme]}`,
      });
  };
  const any = texts(raw.any, `${at}.any`, known);
  const except = raw.except === undefined ? undefined : texts(raw.except, `${at}.except`, known);
  return { scheme, any, ...(except ? { except } : {}), ...(rank ? { rank } : {}) };
}

function place(raw: Record<string, unknown>, at: string, lookup: Lookup): PlaceTest {
  onlyKeys(raw, at, ['countries', 'regions', 'towns', 'near', 'site']);
  const { places } = lookup;
  if (raw.site !== undefined && raw.site !== 'head') throw wrong(`${at}.site`, raw.site, '"head"');
  const test: PlaceTest = {
    ...optional('countries', raw, at, (code, where) => {
      if (!places.country(code))
        throw new Problem('unknown-country', `There is no country "${code}".`, {
          field: where,
          value: code,
          rule: 'ISO code of two letters',
        });
    }),
    ...optional('regions', raw, at, (key, where) => {
      if (!places.region(key))
        throw new Problem('unknown-region', `There is no region "${key}".`, {
          field: where,
          value: key,
          rule: 'a region key such as CZ-64',
        });
    }),
    ...optional('towns', raw, at, (town, where) => {
      if (!/^.+, [A-Z]{2}(-[\w-]+)?$/.test(town))
        throw wrong(where, town, 'name, comma, region key or country code, as in "Brno, CZ-64"');
    }),
    ...(raw.near === undefined ? {} : { near: near(objectAt(raw.near, `${at}.near`), `${at}.near`) }),
    ...(raw.site === undefined ? {} : { site: 'head' as const }),
  };
  if (!test.countries && !test.regions && !test.towns && !test.near)
    throw wrong(at, raw, 'at least one of countries, regions, towns, near');
  return test;
}

function near(raw: Record<string, unknown>, at: string): NearTest {
  onlyKeys(raw, at, ['lat', 'lon', 'km', 'miles', 'label']);
  const between = (key: string, from: number, to: number) => {
    const value = raw[key];
    if (typeof value !== 'number' || !(value >= from && value <= to))
      throw wrong(`${at}.${key}`, value, `a number from ${from} to ${to}`);
    return value;
  };
  if ((raw.km === undefined) === (raw.miles === undefined))
    throw wrong(at, raw, 'exactly one of km and miles');
  return {
    lat: between('lat', -90, 90),
    lon: between('lon', -180, 180),
    ...(raw.km === undefined ? { miles: between('miles', 0, 12_500) } : { km: between('km', 0, 20_020) }),
    ...(raw.label === undefined ? {} : { label: textAt(raw.label, `${at}.label`, 120) }),
  };
}

function range(raw: Record<string, unknown>, at: string): NumberTest {
  const end = (key: 'from' | 'to') => {
    const value = raw[key];
    if (value !== undefined && (typeof value !== 'number' || !Number.isFinite(value)))
      throw wrong(`${at}.${key}`, value, 'a number');
    return value;
  };
  const from = end('from');
  const to = end('to');
  if (from === undefined && to === undefined) throw wrong(at, raw, 'at least one of from and to');
  if (from !== undefined && to !== undefined && from > to)
    throw new Problem('reversed-range', `The range is reversed: from ${from} is above to ${to}.`, {
      field: at,
      value: { from, to },
      rule: 'from must not be above to',
    });
  return { ...(from === undefined ? {} : { from }), ...(to === undefined ? {} : { to }) };
}

function money(raw: Record<string, unknown>, at: string): MoneyTest {
  onlyKeys(raw, at, ['from', 'to', 'currency', 'per']);
  const { currency, per } = raw;
  if (typeof currency !== 'string' || !CURRENCIES.includes(currency))
    throw wrong(`${at}.currency`, currency, `a currency with rates: ${CURRENCIES.join(', ')}`);
  if (per !== undefined && per !== 'year' && per !== 'month')
    throw wrong(`${at}.per`, per, '"year" or "month"');
  return { ...range(raw, at), currency, ...(per ? { per } : {}) };
}

function category(field: Field, raw: Record<string, unknown>, at: string, lookup: Lookup): CategoryTest {
  const many = field.store.at === 'many';
  onlyKeys(raw, at, many ? ['any', 'all'] : ['any']);
  if (many ? (raw.any === undefined) === (raw.all === undefined) : raw.any === undefined)
    throw wrong(at, raw, many ? 'exactly one of any and all' : 'any');
  const keys = new Set(lookup.choices(field.id).map((choice) => choice.key));
  const known = (key: string, where: string) => {
    if (!keys.has(key))
      throw new Problem('unknown-value', `${field.label} has no value "${key}" in this universe.`, {
        field: where,
        value: key,
        rule: `a known value of ${field.id}`,
      });
  };
  return raw.any === undefined
    ? { all: texts(raw.all, `${at}.all`, known) }
    : { any: texts(raw.any, `${at}.any`, known) };
}

function date(raw: Record<string, unknown>, at: string): DateTest {
  onlyKeys(raw, at, ['from', 'to', 'past', 'year']);
  const ways = [
    raw.from !== undefined || raw.to !== undefined,
    raw.past !== undefined,
    raw.year !== undefined,
  ];
  if (ways.filter(Boolean).length !== 1) throw wrong(at, raw, 'from and to, or past, or year');
  if (raw.past !== undefined) {
    if (typeof raw.past !== 'string' || !parseSpan(raw.past))
      throw wrong(`${at}.past`, raw.past, 'a span such as "12 months"');
    return { past: raw.past };
  }
  if (raw.year !== undefined) {
    const { year } = raw;
    if (
      year !== 'this' &&
      year !== 'last' &&
      !(typeof year === 'number' && Number.isInteger(year) && year >= 1900 && year <= 2200)
    )
      throw wrong(`${at}.year`, year, 'a year, "this" or "last"');
    return { year };
  }
  const day = (key: 'from' | 'to') => {
    const value = raw[key];
    if (value === undefined) return undefined;
    if (typeof value !== 'string' || dayOf(value) === null)
      throw wrong(`${at}.${key}`, value, 'a date such as 2026-09-30');
    return value;
  };
  const from = day('from');
  const to = day('to');
  if (from && to && from > to)
    throw new Problem('reversed-range', `The dates are reversed: ${from} is after ${to}.`, {
      field: at,
      value: { from, to },
      rule: 'from must not be after to',
    });
  return { ...(from ? { from } : {}), ...(to ? { to } : {}) };
}

function text(raw: Record<string, unknown>, at: string): TextTest {
  onlyKeys(raw, at, ['text', 'in']);
  const words = textAt(raw.text, `${at}.text`, 1000);
  if (raw.in !== undefined && raw.in !== 'name' && raw.in !== 'description' && raw.in !== 'both')
    throw wrong(`${at}.in`, raw.in, '"name", "description" or "both"');
  parseWords(words, `${at}.text`);
  return { text: words, ...(raw.in ? { in: raw.in } : {}) };
}

function optional<K extends string>(
  key: K,
  raw: Record<string, unknown>,
  at: string,
  known: (value: string, where: string) => void,
) {
  return raw[key] === undefined
    ? {}
    : ({ [key]: texts(raw[key], `${at}.${key}`, known) } as Record<K, string[]>);
}

function texts(value: unknown, at: string, known: (value: string, where: string) => void): string[] {
  const list = listAt(value, at, MOST_VALUES);
  if (list.length === 0) throw wrong(at, value, 'at least one value');
  return list.map((entry, i) => {
    const one = textAt(entry, `${at}[${i}]`, 200);
    known(one, `${at}[${i}]`);
    return one;
  });
}

function wrong(field: string, value: unknown, rule: string): Problem {
  return new Problem('wrong-value', `${field} is ${shown(value)}; expected: ${rule}.`, {
    field,
    value,
    rule,
  });
}
