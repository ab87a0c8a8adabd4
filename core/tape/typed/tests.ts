import type { Scheme } from '../../codes/tree.ts';
import { SCHEMES } from '../../codes/tree.ts';
import { dayOf, parseSpan } from '../../dates.ts';
import { saysFirstSeen, type Field } from '../../fields/field.ts';
import { CURRENCIES } from '../../money/rates.ts';
import { fold } from '../../text/fold.ts';
import type { Lookup } from '../lookup.ts';
import type {
  CategoryTest,
  CodesTest,
  DateTest,
  FlagTest,
  GrowthTest,
  KeyedTest,
  ListTest,
  MoneyTest,
  NumberTest,
  RankTest,
  RecordTest,
  Test,
  TextTest,
} from '../nodes.ts';
import { readPeers } from '../peers-test.ts';
import { GROWTH_OF } from '../tests.ts';
import { listClauses } from './list-clauses.ts';
import { readRange } from './figures.ts';
import { problem, splitOutside } from './pieces.ts';
import { readPlace } from './place.ts';

/** The end of a typed category that says within which span its values were first seen, or handed over. */
const SEEN_PAST = /\s+(?:first )?seen (?:(?:in the )?past|since) (\d+ \w+|\d{4}-\d\d-\d\d)$/i;
const DONE_PAST = /,?\s+(?:(?:in the )?past|since) (\d+ \w+|\d{4}-\d\d-\d\d)$/i;

/** Which scheme a typed line means by its opener. */
export const OPENER_SCHEMES: Record<string, Scheme> = {
  nace: 'nace-2.1',
  industry: 'nace-2.1',
  nace2: 'nace-2',
  isic: 'isic-4',
  naics: 'naics-2022',
  sic: 'sic-1987',
};

/** Reads the test of a typed line. @throws Problem saying what was understood and what was expected. */
export function readTest(field: Field, opener: string, text: string, lookup: Lookup): Test {
  switch (field.kind) {
    case 'codes':
      return readCodes(opener, text, lookup);
    case 'place':
      return readPlace(['near', 'metro'].includes(opener.toLowerCase()) ? `${opener} ${text}` : text, lookup);
    case 'number':
      return readNumber(field, text);
    case 'money':
      return readMoney(field, text, lookup.currency);
    case 'category':
      return readCategory(field, text, lookup);
    case 'flag':
      return readYesNo(field, text);
    case 'keyed':
      return readKeyed(field, text);
    case 'growth':
      return readGrowth(text);
    case 'rank':
      return readRank(text);
    case 'list':
      return readList(field, text, lookup);
    case 'record':
      return readRecords(field, text);
    case 'peers':
      return readPeers(text, lookup);
    case 'date':
      return readDate(field, text);
    case 'text':
    case 'label':
      return readText(opener, text);
  }
}

function readCodes(opener: string, text: string, lookup: Lookup): CodesTest {
  const scheme = OPENER_SCHEMES[opener.toLowerCase()]!;
  const tree = lookup.codes(scheme);
  const kin = /\s(?:with\s+)?(sure|possible) kin$/i.exec(` ${text}`);
  const unkinned = kin ? ` ${text}`.slice(0, kin.index).trim() : text;
  const rank = /\s(any rank|main only|main)$/i.exec(` ${unkinned}`);
  const body = rank ? unkinned.slice(0, unkinned.length - rank[1]!.length).trim() : unkinned;
  const [anyText, exceptText] = body.split(/\bexcept\b/i);
  const read = (part: string) =>
    part
      .split(/[\s,]+/)
      .filter(Boolean)
      .map((word) => {
        const node = tree.nodeOfLoose(word);
        if (node < 0)
          throw problem(
            `${opener} (${SCHEMES[scheme]})`,
            word,
            `a code of ${SCHEMES[scheme]} such as ${tree.codes.at(-1)}`,
            text,
          );
        return tree.codes[node]!;
      });
  const any = read(anyText!);
  if (any.length === 0) throw problem(opener, '', `a code of ${SCHEMES[scheme]}`, text);
  return {
    scheme,
    any,
    ...(exceptText === undefined ? {} : { except: read(exceptText) }),
    ...(rank ? { rank: rank[1]!.toLowerCase() === 'any rank' ? ('any' as const) : ('main' as const) } : {}),
    ...(kin ? { kin: kin[1]!.toLowerCase() as 'sure' | 'possible' } : {}),
  };
}

function readNumber(field: Field, text: string): NumberTest {
  const found = readRange(text);
  if (!found || !/^(staff|employees|people)?$/i.test(found.rest))
    throw problem(
      field.openers[0]!,
      found ? found.rest : text,
      'a range such as 20-249, 50+ or up to 9',
      text,
    );
  return found.test;
}

const SIGNS = { '€': 'EUR', '£': 'GBP', $: 'USD' } as const;

/** An amount without a currency is in the `usual` one. */
function readMoney(field: Field, text: string, usual: string): MoneyTest {
  const symbols = text.replace(/€/g, '').replace(/£/g, '').replace(/\$/g, '');
  const found = readRange(symbols);
  if (!found) throw problem(field.openers[0]!, text, 'a range such as 2m-40m eur', text);
  const tail = /^([a-z]{3})?\s*(?:(?:a|per|\/)\s*(year|month))?$/i.exec(found.rest);
  const currency =
    tail?.[1]?.toUpperCase() ?? Object.entries(SIGNS).find(([sign]) => text.includes(sign))?.[1] ?? usual;
  if (!tail || !CURRENCIES.includes(currency))
    throw problem(
      `${field.openers[0]} ${symbols.slice(0, symbols.length - found.rest.length).trim()}`,
      found.rest,
      'a currency with rates such as eur, then “a year” or “a month”',
      text,
    );
  return { ...found.test, currency, ...(tail[2] ? { per: tail[2].toLowerCase() as 'year' | 'month' } : {}) };
}

function readCategory(field: Field, text: string, lookup: Lookup): CategoryTest {
  const seen = (saysFirstSeen(field) ? SEEN_PAST : DONE_PAST).exec(text);
  const unseen = seen ? text.slice(0, seen.index) : text;
  const single = /\sall$/i.test(unseen);
  const body = (single ? unseen.slice(0, -4) : unseen).trim();
  const above = field.ordered ? /^(.+)\+$/.exec(body) : null;
  if (above) {
    const [lowest] = readKeys(field, above[1]!, lookup);
    const keys = field.values!.map(({ key }) => key);
    return { any: keys.slice(0, keys.indexOf(lowest!) + 1) };
  }
  const all = single || /\sand\s/i.test(body.replace(/"[^"]*"/g, ''));
  const keys = readKeys(field, body, lookup);
  return {
    ...(all ? { all: keys } : { any: keys }),
    ...(seen ? { seen: seen[1]! } : {}),
  };
}

/** Values of a field by key or name, joined by commas, or, and. */
function readKeys(field: Field, text: string, lookup: Lookup): string[] {
  const choices = lookup.choices(field);
  const commas = text.replace(/\s+(or|and)\s+(?=(?:[^"]*"[^"]*")*[^"]*$)/gi, ',');
  const names = splitOutside(commas, ',').map((part) => part.trim().replaceAll('"', ''));
  const keys = names.filter(Boolean).map((name) => {
    const folded = fold(name);
    const choice =
      choices.find((one) => one.key === name) ??
      choices.find(
        (one) =>
          fold(one.key) === folded ||
          fold(one.label) === folded ||
          fold(one.label).replaceAll('-', ' ') === folded.replaceAll('-', ' ') ||
          one.also?.some((name) => fold(name) === folded),
      );
    if (!choice)
      throw problem(
        field.openers[0]!,
        name,
        `a known ${field.kind === 'list' ? 'list' : field.label.toLowerCase()}, as in ${
          choices
            .slice(0, 3)
            .map((one) => one.key)
            .join(', ') || 'none loaded yet'
        }`,
        text,
      );
    return choice.key;
  });
  if (keys.length === 0) throw problem(field.openers[0]!, '', `a ${field.label.toLowerCase()}`, text);
  return keys;
}

function readYesNo(field: Field, text: string): FlagTest {
  const word = text.trim().toLowerCase();
  if (word === '' || word === 'yes') return { is: true };
  if (word === 'no') return { is: false };
  throw problem(field.openers[0]!, text, '“yes” or “no”', text);
}

function readKeyed(field: Field, text: string): KeyedTest {
  const keys = field.values!.map(({ key }) => key);
  const [, word, rest] = /^(\S*)\s*(.*)$/.exec(text)!;
  const key = keys.find((one) => one === fold(word!));
  if (!key) throw problem(field.openers[0]!, word!, `one of ${keys.join(', ')}`, text);
  const found = readRange(rest!);
  if (!found || !/^(staff|employees|people)?$/i.test(found.rest))
    throw problem(`${field.openers[0]} ${key}`, rest!, 'a range such as 3+ or 5-20', text);
  return { key, ...found.test };
}

function readGrowth(text: string): GrowthTest {
  const start =
    /^(?:of\s+)?(\S+)\s+(?:over\s+|in\s+)?(1|3)\s*(?:years?|y)\b\s*(.*)$/i.exec(text) ??
    /^(?:of\s+)?([a-z]+)()\s+(.*)$/i.exec(text);
  const of = start && GROWTH_OF.find((one) => one === fold(start[1]!));
  if (!of)
    throw problem(
      'growth',
      text,
      `what grew (${GROWTH_OF.join(', ')}), then “over 1y” or “over 3y” and percents, as in “growth of headcount over 1y 10+”`,
      text,
    );
  const percents = start[3]!.replaceAll('%', '').trim();
  const found = readRange(percents);
  if (found?.rest !== '')
    throw problem(`growth of ${of}`, start[3]!, 'percents such as 10+, up to -5 or -10 .. 20', text);
  return { of, over: start[2] === '3' ? '3y' : '1y', ...found.test };
}

function readRank(text: string): RankTest {
  const parts = /^(.*?)(?:\s+by\s+(\w+))?(?:\s+(?:in|among|within)\s+(?:its\s+|each\s+)?(\w+))?$/i.exec(
    text,
  )!;
  const found = readRange(parts[1]!);
  const by = (['revenue', 'headcount'] as const).find((one) => one === (parts[2] ?? 'revenue').toLowerCase());
  const among = (['country', 'industry', 'all'] as const).find(
    (one) => one === (parts[3] ?? 'all').toLowerCase(),
  );
  if (found?.rest !== '' || !by || !among)
    throw problem(
      'largest',
      text,
      'how many, as in “largest 500 by revenue in country”; by revenue or headcount, in country, industry or all',
      text,
    );
  // "largest 500" is the first 500 and not the one at 500.
  const { from, to } = found.test;
  return {
    by,
    among,
    ...(from === to && /^\d/.test(parts[1]!) && !parts[1]!.includes('-') ? { to: to! } : found.test),
  };
}

function readList(field: Field, text: string, lookup: Lookup): ListTest {
  const { lists, clauses } = listClauses(text);
  return { any: readKeys(field, lists, lookup), ...clauses };
}

function readRecords(field: Field, text: string): RecordTest {
  const any = splitOutside(text, ',')
    .map((part) => part.trim().replaceAll('"', ''))
    .filter(Boolean);
  if (any.length === 0) throw problem(field.openers[0]!, text, 'the key of a company', text);
  return { any };
}

function readDate(field: Field, text: string): DateTest {
  const expected =
    '“past 12 months”, “this year”, “in 2025”, “since 2026-01-01” or “2025-01-01 .. 2025-12-31”';
  const past = /^(?:in the )?(?:past|last)\s+(.+)$/i.exec(text);
  if (past && parseSpan(past[1]!)) return { past: past[1]!.trim() };
  const year = /^(this|last)\s+year$/i.exec(text);
  if (year) return { year: year[1]!.toLowerCase() as 'this' | 'last' };
  const calendar = /^(?:in\s+)?(\d{4})$/.exec(text);
  if (calendar) return { year: Number(calendar[1]) };
  const since = /^(?:since|from|after)\s+(\S+)$/i.exec(text);
  if (since && dayOf(since[1]!) !== null) return { from: since[1]! };
  const until = /^(?:until|up to|before)\s+(\S+)$/i.exec(text);
  if (until && dayOf(until[1]!) !== null) return { to: until[1]! };
  const both = /^(\S+)\s*(?:\.\.|to)\s*(\S+)$/i.exec(text);
  if (both && dayOf(both[1]!) !== null && dayOf(both[2]!) !== null) return { from: both[1]!, to: both[2]! };
  throw problem(field.openers[0]!, text, expected, text);
}

function readText(opener: string, text: string): TextTest {
  const where = /^in (name|description|both)\s*:?\s*/i.exec(text);
  const words = (where ? text.slice(where[0].length) : text.replace(/^:/, '')).trim();
  if (words === '') throw problem(opener, '', 'words, as in “words joinery or "spiral stair"”', text);
  return where
    ? { text: words, in: where[1]!.toLowerCase() as 'name' | 'description' | 'both' }
    : { text: words };
}
