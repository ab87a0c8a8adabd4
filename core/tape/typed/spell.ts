import { parseSpan } from '../../dates.ts';
import { saysFirstSeen } from '../../fields/field.ts';
import { fieldOf, relationsOf } from '../../fields/registry.ts';
import { isCountryCode } from '../../geo/country-groups.ts';
import type { Lookup } from '../lookup.ts';
import {
  isBlock,
  isHas,
  type AreaTest,
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
  type NearTest,
  type NumberTest,
  type PeersTest,
  type PlaceTest,
  type RankTest,
  type RecordTest,
  type TextTest,
} from '../nodes.ts';
import { spellPeers } from '../peers-test.ts';
import { spellFigure, spellRange } from './figures.ts';
import { spellListClauses } from './list-clauses.ts';

/** A line as it would be typed; `parseTyped` reads it back as the same line, but for its id. */
export function spellLine(line: Line, subject: string, lookup: Lookup): string {
  const marks = `${line.parked ? 'parked ' : ''}${line.must ? 'must ' : ''}${line.unknown ? `${line.unknown} unknown ` : ''}${line.not ? 'not ' : ''}`;
  if (isBlock(line))
    return `${marks}either ${line.either.map((branch) => spellLine(branch, subject, lookup)).join(' | ')}`;
  if (isHas(line)) return marks + spellHas(line, subject, lookup);
  return `${marks}${line.fresh ? `fresh ${line.fresh} ` : ''}${spellTest(line, subject, lookup)}`;
}

function spellHas(line: HasLine, subject: string, lookup: Lookup): string {
  const related = relationsOf(subject).get(line.has)!;
  const inner = spellLines(line.lines, related.id, lookup);
  const { count } = line;
  const many = !count
    ? ''
    : count.to === undefined
      ? ` from ${spellFigure(count.from!)}`
      : ` ${spellRange(count)}`;
  return `has ${related.one}${line.as ? ` as ${line.as}` : ''}${inner === '' ? '' : ` (${inner})`}${many}`;
}

/** Several lines, joined as they may be typed at once. */
export function spellLines(lines: readonly Line[], subject: string, lookup: Lookup): string {
  return lines.map((line) => spellLine(line, subject, lookup)).join('; ');
}

const SCHEME_WORDS = {
  'nace-2.1': 'nace',
  'nace-2': 'nace2',
  'isic-4': 'isic',
  'naics-2022': 'naics',
  'sic-1987': 'sic',
} as const;

/** What companies are ranked among, as typed. */
export const AMONG_WORDS = { country: 'country', industry: 'industry', all: 'all' } as const;

function spellTest(line: FieldLine, subject: string, lookup: Lookup): string {
  const field = fieldOf(subject, line.field)!;
  const opener = field.openers[0]!;
  const estimates = line.estimates ? ' with estimates' : '';
  switch (field.kind) {
    case 'codes': {
      const test = line.test as CodesTest;
      return `${SCHEME_WORDS[test.scheme]} ${test.any.join(' ')}${test.except ? ` except ${test.except.join(' ')}` : ''}${test.rank ? (test.rank === 'main' ? ' main only' : ' any rank') : ''}${test.kin ? ` ${test.kin} kin` : ''}`;
    }
    case 'place':
      return spellPlace(line.test as PlaceTest, lookup);
    case 'number':
      return `${opener} ${spellRange(line.test as NumberTest)}${estimates}`;
    case 'money': {
      const test = line.test as MoneyTest;
      return `${opener} ${spellRange(test)} ${test.currency.toLowerCase()}${test.per ? ` a ${test.per}` : ''}${estimates}`;
    }
    case 'category': {
      const test = line.test as CategoryTest;
      return `${opener} ${(test.all ?? test.any!).map(quoted).join(test.all ? ' and ' : ' or ')}${test.all?.length === 1 ? ' all' : ''}${test.seen ? `${saysFirstSeen(field) ? ' seen' : ''} ${parseSpan(test.seen) ? 'past' : 'since'} ${test.seen}` : ''}`;
    }
    case 'flag':
      return `${opener} ${(line.test as FlagTest).is ? 'yes' : 'no'}`;
    case 'keyed': {
      const test = line.test as KeyedTest;
      return `${opener} ${test.key} ${spellRange(test)}`;
    }
    case 'growth': {
      const test = line.test as GrowthTest;
      return `${opener} of ${test.of} over ${test.over} ${spellRange(test)}`;
    }
    case 'rank': {
      const test = line.test as RankTest;
      return `${opener} ${spellRange(test)} by ${test.by} in ${AMONG_WORDS[test.among]}${estimates}`;
    }
    case 'list': {
      const test = line.test as ListTest;
      return `${opener} ${test.any.map(quoted).join(' or ')}${spellListClauses(test)}`;
    }
    case 'record':
      return `${opener} ${(line.test as RecordTest).any.map(quoted).join(', ')}`;
    case 'peers':
      return `${opener} ${spellPeers(line.test as PeersTest)}`;
    case 'date':
      return `${opener} ${spellDate(line.test as DateTest)}`;
    default: {
      const test = line.test as TextTest;
      return `${opener}${test.in ? ` in ${test.in}` : ''}: ${test.text}`;
    }
  }
}

function spellPlace(test: PlaceTest, lookup: Lookup): string {
  const named = [
    ...(test.countries ?? []).map((code) => (isCountryCode(code) ? lookup.places.country(code)!.name : code)),
    ...(test.regions ?? []),
    ...(test.towns ?? []),
    ...(test.metro ?? []).map((town) => `metro ${town}`),
    ...(test.postcodes ?? []).map((postcode) => `postcode ${postcode}`),
    ...(test.within ? [spellArea(test.within)] : []),
  ].map((one) => (/[,;|()]|\sor\s/i.test(one) ? `"${one}"` : one));
  const parts = named.length ? [`in ${named.join(', ')}`] : [];
  if (test.near) parts.push(spellNear(test.near, lookup));
  return `${parts.join(' or ')}${test.site ? (test.site === 'any' ? ' at any site' : ' at head') : ''}`;
}

/** "area 49.1 16.2 49.3 16.9 48.9 16.5 label Brno and around": corners as latitude and longitude in turn. */
function spellArea({ points, label }: AreaTest): string {
  const corners = points.map(([lat, lon]) => `${lat} ${lon}`).join(' ');
  return `area ${corners}${label === undefined ? '' : ` label ${label.replaceAll('"', '')}`}`;
}

function spellNear(near: NearTest, lookup: Lookup): string {
  const radius = near.km === undefined ? `${spellFigure(near.miles!)} miles` : `${spellFigure(near.km)} km`;
  const town = near.label === undefined ? undefined : lookup.places.townNamed(near.label);
  if (town?.name === near.label && town?.lat === near.lat && town.lon === near.lon)
    return `near ${town.name} ${radius}`;
  return `near ${near.lat},${near.lon} ${radius}${near.label === undefined ? '' : ` "${near.label.replaceAll('"', '')}"`}`;
}

function spellDate(test: DateTest): string {
  if (test.past !== undefined) return `past ${test.past}`;
  if (test.year !== undefined) return typeof test.year === 'number' ? `in ${test.year}` : `${test.year} year`;
  if (test.from === undefined) return `until ${test.to!}`;
  return test.to === undefined ? `since ${test.from}` : `${test.from} .. ${test.to}`;
}

function quoted(value: string): string {
  return /^[\w-]+$/.test(value) ? value : `"${value}"`;
}
