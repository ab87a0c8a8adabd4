import { SCHEMES } from '../codes/tree.ts';
import { parseSpan } from '../dates.ts';
import { saysFirstSeen, stepOf, type Field } from '../fields/field.ts';
import { fieldOf, oneOf, relationsOf, rolesOf, subjectOf } from '../fields/registry.ts';
import { isCountryCode } from '../geo/country-groups.ts';
import { parseWords, type WordsQuery } from './words-query.ts';
import { metroKm } from '../geo/metro.ts';
import { wordDays } from './dates.ts';
import type { Lookup } from './lookup.ts';
import { wordPeers } from './peers-test.ts';
import { plain, wordRange } from './figure-words.ts';
import { wordListClauses } from './typed/list-clauses.ts';
import {
  isBlock,
  isHas,
  liveLines,
  type CategoryTest,
  type CodesTest,
  type DateTest,
  type FieldLine,
  type FlagTest,
  type GrowthTest,
  type HasLine,
  type KeyedTest,
  type Line,
  type ListTest,
  type MoneyTest,
  type NumberTest,
  type PeersTest,
  type PlaceTest,
  type RankTest,
  type RecordTest,
  type TextTest,
} from './nodes.ts';

/** A line in words: what it is on, and what it asks. */
export interface Wording {
  label: string;
  text: string;
}

const MOST_NAMED = 4;

/** A line without its *not*, policy and marks, as people say it. */
export function wordLine(line: Line, subject: string, lookup: Lookup): Wording {
  if (isBlock(line))
    return {
      label: 'Either',
      text: line.either
        .map((branch) => {
          const { label, text } = wordLine(branch, subject, lookup);
          return `${branch.not ? 'not ' : ''}${label.toLowerCase()} ${text}${branch.parked ? ' (parked)' : ''}`;
        })
        .join(' or '),
    };
  if (isHas(line)) return wordHas(line, subject, lookup);
  const field = fieldOf(subject, line.field)!;
  const fresh = line.fresh ? `, no older than ${line.fresh}` : '';
  return { label: field.label, text: wordTest(line, field, lookup) + fresh };
}

/** "Has a deal" "as target: kind growth loan and date in the past 18 months, from 2". */
function wordHas(line: HasLine, subject: string, lookup: Lookup): Wording {
  const related = relationsOf(subject).get(line.has)!;
  const role = rolesOf(subject, related.id).find(({ key }) => key === line.as);
  const inner = liveLines(line.lines).map((one) => {
    const { label, text } = wordLine(one, related.id, lookup);
    return `${one.not ? 'not ' : ''}${label.charAt(0).toLowerCase()}${label.slice(1)} ${text}`;
  });
  const { count } = line;
  const many = count ? ` ${wordRange(count, plain)} ${related.many}` : ` ${oneOf(related.id)}`;
  const { relation } = subjectOf(subject);
  const before = relation
    ? relation.preposition.charAt(0).toUpperCase() + relation.preposition.slice(1)
    : 'Has';
  return {
    label: `${before}${many}`,
    text: [
      role ? `as ${role.label}` : '',
      inner.length
        ? `${relation ? 'that has' : 'with'} ${inner.join(' and ')}`
        : role || relation
          ? ''
          : 'of any kind',
    ]
      .filter(Boolean)
      .join(' '),
  };
}

/** The whole tape, a line each, with marks; what an export prints under "How this list was made". */
export function wordTape(lines: readonly Line[], subject: string, lookup: Lookup): string[] {
  return lines.map((line) => {
    const { label, text } = wordLine(line, subject, lookup);
    const policy = line.unknown ? ` (unknown ${line.unknown === 'keep' ? 'kept' : 'left out'})` : '';
    return `${line.parked ? 'Parked: ' : ''}${line.not ? 'not ' : ''}${label} ${text}${policy}${line.must ? ' (must)' : ''}`;
  });
}

function wordTest(line: FieldLine, field: Field, lookup: Lookup): string {
  switch (field.kind) {
    case 'codes':
      return wordCodes(line.test as CodesTest, lookup);
    case 'place':
      return wordPlace(line.test as PlaceTest, lookup);
    case 'number':
      return (
        wordRange(line.test as NumberTest, line.field === 'founded' ? String : inUnit(field), stepOf(field)) +
        (line.estimates ? ', estimates count' : '')
      );
    case 'money': {
      const test = line.test as MoneyTest;
      const converted =
        test.per === 'month'
          ? ` (${wordRange({ from: times12(test.from), to: times12(test.to) }, (n) => money(n, test.currency))} a year)`
          : '';
      return `${wordRange(test, (n) => money(n, test.currency), stepOf(field))}${test.per === 'month' ? ` a month${converted}` : ''}${line.estimates ? ', estimates count' : ''}`;
    }
    case 'category': {
      const test = line.test as CategoryTest;
      const labels = new Map(lookup.choices(field).map((choice) => [choice.key, choice.label]));
      const named = some(
        (test.all ?? test.any!).map((key) => labels.get(key) ?? key),
        test.all ? 'and' : 'or',
      );
      if (!test.seen) return named;
      return `${named}, ${saysFirstSeen(field) ? 'first seen ' : ''}${parseSpan(test.seen) ? 'in the past' : 'since'} ${test.seen}`;
    }
    case 'flag':
      return (line.test as FlagTest).is ? 'yes' : 'no';
    case 'keyed': {
      const test = line.test as KeyedTest;
      return `${test.key} ${wordRange(test, inUnit(field), stepOf(field))}`;
    }
    case 'growth': {
      const test = line.test as GrowthTest;
      const years = test.over === '1y' ? '1 year' : '3 years';
      return `of ${test.of} over ${years} ${wordRange(test, (n) => `${n > 0 ? '+' : ''}${plain(n)} %`, stepOf(field))}`;
    }
    case 'rank': {
      const test = line.test as RankTest;
      const places =
        test.from === undefined || test.from <= 1
          ? `the ${test.to === undefined ? 'ranked ones' : `largest ${plain(test.to)}`}`
          : `places ${wordRange(test, plain)}`;
      const among = { country: ' of each country', industry: ' of each industry', all: ' of the universe' }[
        test.among
      ];
      return `${places} by ${test.by}${among}${line.estimates ? ', estimates count' : ''}`;
    }
    case 'list': {
      const test = line.test as ListTest;
      const labels = new Map(lookup.choices(field).map((choice) => [choice.key, choice.label]));
      return (
        some(
          test.any.map((key) => labels.get(key) ?? key),
          'or',
        ) + wordListClauses(test)
      );
    }
    case 'record':
      return some(
        (line.test as RecordTest).any.map((key) => lookup.companyName(key) ?? key),
        'or',
      );
    case 'peers':
      return wordPeers(line.test as PeersTest, lookup);
    case 'date': {
      const test = line.test as DateTest;
      const days = wordDays(test, lookup.asOf);
      if (test.past) return `in the past ${test.past} (${days})`;
      return test.year === undefined
        ? days
        : `in ${typeof test.year === 'number' ? test.year : `${test.year} year (${days})`}`;
    }
    default: {
      const test = line.test as TextTest;
      return `${wordQuery(parseWords(test.text))}${test.in && test.in !== 'both' ? ` in the ${test.in}` : ''}`;
    }
  }
}

function wordCodes(test: CodesTest, lookup: Lookup): string {
  const tree = lookup.codes(test.scheme);
  const title = (code: string) => `${code} ${titleInText(tree.titles[tree.nodeOf(code)]!)}`;
  const any = test.any.length <= 2 ? test.any.map(title).join(', ') : some([...test.any], ',');
  const except = test.except ? ` except ${some([...test.except], ',')}` : '';
  return `${any}${except}${test.rank === 'main' ? ', main only' : ''} (${SCHEMES[test.scheme]}${test.kin ? ` and ${test.kin} kin` : ''})`;
}

/** A code's title without the phrases that nearly all titles share: "Other builders' carpentry and joinery". */
export function shortTitle(title: string): string {
  const short = title.replace(/^Manufacture of /i, '').replace(/ n\.e\.c\.$/, '');
  return short.charAt(0).toUpperCase() + short.slice(1);
}

/** A short title within a sentence. Schemes that write Every Word Large keep their way. */
function titleInText(title: string): string {
  const short = shortTitle(title);
  return / [A-Z]/.test(short) ? short : short.charAt(0).toLowerCase() + short.slice(1);
}

function wordPlace(test: PlaceTest, lookup: Lookup): string {
  const named = [
    ...(test.countries ?? []).map((code) =>
      isCountryCode(code) ? lookup.places.country(code)!.name : lookup.countryGroups.get(code)!.label,
    ),
    ...(test.regions ?? []).map((key) => lookup.places.region(key)!.english),
    ...(test.towns ?? []).map((town) => town.slice(0, town.lastIndexOf(', '))),
    ...(test.metro ?? []).map((key) => {
      const town = lookup.places.town(key)!;
      return `metro ${town.name} (${metroKm(town.population)} km around)`;
    }),
  ];
  const parts = named.length ? [`in ${some(named, 'or')}`] : [];
  if (test.postcodes) parts.push(`postcode ${some([...test.postcodes], 'or')}`);
  if (test.within) parts.push(test.within.label ?? `in a drawn area of ${test.within.points.length} corners`);
  if (test.near) {
    const { near } = test;
    parts.push(
      `within ${near.km === undefined ? `${plain(near.miles!)} miles` : `${plain(near.km)} km`} of ${near.label ?? `${near.lat}, ${near.lon}`}`,
    );
  }
  return parts.join(' or ') + (test.site === 'any' ? ', at any site' : '');
}

/** How figures of a field are written: shares with their sign, counts as they are. */
function inUnit({ unit }: Field): (n: number) => string {
  return unit === '%' ? (n) => `${plain(n)} %` : plain;
}

const SYMBOLS: Record<string, string> = { EUR: '€', GBP: '£', USD: '$' };

/** An amount as short as it stays exact: 2000000 EUR → "€2m", 2340 CZK → "2,340 CZK". */
export function money(amount: number, currency: string): string {
  const size = Math.abs(amount);
  const [unit, by] =
    size >= 1e9 && amount % 1e7 === 0
      ? ['bn', 1e9]
      : size >= 1e6 && amount % 1e4 === 0
        ? ['m', 1e6]
        : size >= 1e4 && amount % 100 === 0
          ? ['k', 1e3]
          : ['', 1];
  const figure = `${plain(amount / by)}${unit}`;
  return SYMBOLS[currency] ? `${SYMBOLS[currency]}${figure}` : `${figure} ${currency}`;
}

function some(values: string[], joint: ',' | 'or' | 'and'): string {
  const shownValues =
    values.length > MOST_NAMED + 1
      ? [...values.slice(0, MOST_NAMED), `${values.length - MOST_NAMED} more`]
      : values;
  if (joint === ',' || shownValues.length === 1) return shownValues.join(', ');
  return `${shownValues.slice(0, -1).join(', ')} ${joint} ${shownValues.at(-1)}`;
}

function times12(amount: number | undefined): number | undefined {
  return amount === undefined ? undefined : amount * 12;
}

/** A search in words as it was understood: with every *and* written out, and brackets where *and* and *or* meet. */
function wordQuery(query: WordsQuery, within: 'and' | 'or' | 'not' | null = null): string {
  switch (query.kind) {
    case 'term': {
      const words = `${query.words.join(' ')}${query.prefix ? '*' : ''}`;
      return query.words.length > 1 ? `"${words}"` : words;
    }
    case 'not':
      return `not ${wordQuery(query.part, 'not')}`;
    case 'and':
    case 'or': {
      const words = query.parts.map((part) => wordQuery(part, query.kind)).join(` ${query.kind} `);
      return within === null ? words : `(${words})`;
    }
  }
}
