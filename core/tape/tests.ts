import { isScheme, SCHEMES } from '../codes/tree.ts';
import { dayOf, parseSpan, sinceDay } from '../dates.ts';
import { DEPARTMENTS } from '../fields/companies/making.ts';
import { hasDays, isMany, type Field } from '../fields/field.ts';
import { CURRENCIES } from '../money/rates.ts';
import type { Lookup } from './lookup.ts';
import type {
  CategoryTest,
  CodesTest,
  DateTest,
  FlagTest,
  GrowthTest,
  KeyedTest,
  MoneyTest,
  RankTest,
  RecordTest,
  Test,
  TextTest,
} from './nodes.ts';
import { Problem } from './problem.ts';
import { checkListTest } from './list-test.ts';
import { rangeAt } from './range-at.ts';
import { parseWords } from './words-query.ts';
import { checkPeers } from './peers-test.ts';
import { checkPlace } from './place-test.ts';
import { objectAt, oneOfAt, onlyKeys, textAt, texts, wrong } from './shapes.ts';

/** Checks the test of a line on `field`. @throws Problem */
export function checkTest(field: Field, input: unknown, at: string, lookup: Lookup): Test {
  const raw = objectAt(input, at);
  switch (field.kind) {
    case 'codes':
      return codes(raw, at, lookup);
    case 'place':
      return checkPlace(raw, at, lookup);
    case 'number':
      onlyKeys(raw, at, ['from', 'to']);
      return rangeAt(raw, at);
    case 'money':
      return money(raw, at);
    case 'category':
      return category(field, raw, at, lookup);
    case 'flag':
      return flag(raw, at);
    case 'keyed':
      return keyed(field, raw, at);
    case 'growth':
      return growth(raw, at);
    case 'rank':
      return rank(raw, at);
    case 'list':
      return checkListTest(field, raw, at, lookup);
    case 'record':
      return records(raw, at, lookup);
    case 'peers':
      return checkPeers(raw, at, lookup);
    case 'date':
      return date(raw, at);
    case 'text':
      return text(raw, at);
    case 'label':
      throw new Problem('unknown-field', `${field.label} cannot be a line.`, { field: at, value: field.id });
  }
}

function codes(raw: Record<string, unknown>, at: string, lookup: Lookup): CodesTest {
  onlyKeys(raw, at, ['scheme', 'any', 'except', 'rank', 'kin']);
  const { scheme, rank, kin } = raw;
  if (!isScheme(scheme)) throw wrong(`${at}.scheme`, scheme, `one of ${Object.keys(SCHEMES).join(', ')}`);
  if (rank !== undefined && rank !== 'main' && rank !== 'any')
    throw wrong(`${at}.rank`, rank, '"main" or "any"');
  if (kin !== undefined && kin !== 'sure' && kin !== 'possible')
    throw wrong(`${at}.kin`, kin, '"sure" or "possible"');
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
  return {
    scheme,
    any,
    ...(except ? { except } : {}),
    ...(rank ? { rank } : {}),
    ...(kin ? { kin } : {}),
  };
}

function money(raw: Record<string, unknown>, at: string): MoneyTest {
  onlyKeys(raw, at, ['from', 'to', 'currency', 'per']);
  const { currency, per } = raw;
  if (typeof currency !== 'string' || !CURRENCIES.includes(currency))
    throw wrong(`${at}.currency`, currency, `a currency with rates: ${CURRENCIES.join(', ')}`);
  if (per !== undefined && per !== 'year' && per !== 'month')
    throw wrong(`${at}.per`, per, '"year" or "month"');
  return { ...rangeAt(raw, at), currency, ...(per ? { per } : {}) };
}

function category(field: Field, raw: Record<string, unknown>, at: string, lookup: Lookup): CategoryTest {
  const many = isMany(field);
  const dated = hasDays(field);
  onlyKeys(raw, at, [...(many ? ['any', 'all'] : ['any']), ...(dated ? ['seen'] : [])]);
  if (many ? (raw.any === undefined) === (raw.all === undefined) : raw.any === undefined)
    throw wrong(at, raw, many ? 'exactly one of any and all' : 'any');
  const keys = new Set(lookup.choices(field).map((choice) => choice.key));
  const known = (key: string, where: string) => {
    if (!keys.has(key))
      throw new Problem('unknown-value', `${field.label} has no value "${key}" in this universe.`, {
        field: where,
        value: key,
        rule: `a known value of ${field.id}`,
      });
  };
  return {
    ...(raw.any === undefined
      ? { all: texts(raw.all, `${at}.all`, known) }
      : { any: texts(raw.any, `${at}.any`, known) }),
    ...(raw.seen === undefined ? {} : { seen: sinceAt(raw.seen, `${at}.seen`) }),
  };
}

/** A span such as "24 months", or the day from which on. @throws Problem */
function sinceAt(value: unknown, at: string): string {
  if (typeof value !== 'string' || sinceDay(0, value) === null)
    throw wrong(at, value, 'a span such as "24 months", or a day such as 2026-09-30');
  return value;
}

function flag(raw: Record<string, unknown>, at: string): FlagTest {
  onlyKeys(raw, at, ['is']);
  if (typeof raw.is !== 'boolean') throw wrong(`${at}.is`, raw.is, 'true or false');
  return { is: raw.is };
}

function keyed(field: Field, raw: Record<string, unknown>, at: string): KeyedTest {
  onlyKeys(raw, at, ['key', 'from', 'to']);
  return {
    key: oneOfAt(
      raw.key,
      `${at}.key`,
      field.values!.map(({ key }) => key),
    ),
    ...rangeAt(raw, at),
  };
}

/** What growth can be of. */
export const GROWTH_OF = ['headcount', 'revenue', ...DEPARTMENTS] as const;

function growth(raw: Record<string, unknown>, at: string): GrowthTest {
  onlyKeys(raw, at, ['of', 'over', 'from', 'to']);
  return {
    of: oneOfAt(raw.of, `${at}.of`, GROWTH_OF),
    over: oneOfAt(raw.over, `${at}.over`, ['1y', '3y'] as const),
    ...rangeAt(raw, at),
  };
}

function rank(raw: Record<string, unknown>, at: string): RankTest {
  onlyKeys(raw, at, ['by', 'among', 'from', 'to']);
  return {
    by: oneOfAt(raw.by, `${at}.by`, ['revenue', 'headcount'] as const),
    among: oneOfAt(raw.among, `${at}.among`, ['country', 'industry', 'all'] as const),
    ...rangeAt(raw, at),
  };
}

function records(raw: Record<string, unknown>, at: string, lookup: Lookup): RecordTest {
  onlyKeys(raw, at, ['any']);
  return {
    any: texts(raw.any, `${at}.any`, (key, where) => {
      if (lookup.companyName(key) === undefined)
        throw new Problem('unknown-company', `There is no company "${key}" in this universe.`, {
          field: where,
          value: key,
          rule: 'the key of a company',
        });
    }),
  };
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
