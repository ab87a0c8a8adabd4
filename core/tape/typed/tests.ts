import type { Scheme } from '../../codes/tree.ts';
import { SCHEMES } from '../../codes/tree.ts';
import { dayOf, parseSpan } from '../../dates.ts';
import type { Field } from '../../fields/field.ts';
import { CURRENCIES } from '../../money/rates.ts';
import { fold } from '../../text/fold.ts';
import type { Lookup } from '../lookup.ts';
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
} from '../nodes.ts';
import { readFigure, readRange } from './figures.ts';
import { problem, splitOutside } from './pieces.ts';

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
      return readPlace(opener.toLowerCase() === 'near' ? `near ${text}` : text, lookup);
    case 'number':
      return readNumber(field, text);
    case 'money':
      return readMoney(field, text);
    case 'category':
      return readCategory(field, text, lookup);
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
  const rank = /\s(any rank|main only|main)$/i.exec(` ${text}`);
  const body = rank ? text.slice(0, text.length - rank[1]!.length).trim() : text;
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
  };
}

function readPlace(text: string, lookup: Lookup): PlaceTest {
  const head = /\sat head$/i.test(text);
  const body = head ? text.replace(/\sat head$/i, '') : text;
  const [named, nearText] = /^near\s/i.test(body) ? ['', body] : splitOr(body);
  const countries: string[] = [];
  const regions: string[] = [];
  const towns: string[] = [];
  for (const part of splitOutside(named, ',')
    .flatMap((one) => one.split(/\s+or\s+/i))
    .map((one) => one.trim())
    .filter(Boolean)) {
    const name = part.replaceAll('"', '').trim();
    const key = /^(.+), ([A-Z]{2}(?:-[\w-]+)?)$/.exec(name);
    const country = lookup.places.countryNamed(name);
    const region = country ? undefined : lookup.places.regionNamed(name);
    const town = country || region ? undefined : lookup.places.townNamed(name);
    if (key) towns.push(name);
    else if (country) countries.push(country.code);
    else if (region) regions.push(region.key);
    else if (town) towns.push(town.key);
    else throw problem('in', name, 'a country, a region or a town', text);
  }
  const test: PlaceTest = {
    ...(countries.length ? { countries } : {}),
    ...(regions.length ? { regions } : {}),
    ...(towns.length ? { towns } : {}),
    ...(nearText ? { near: readNear(nearText, lookup) } : {}),
    ...(head ? { site: 'head' as const } : {}),
  };
  if (Object.keys(test).length === 0) throw problem('in', text, 'a country, a region or a town', text);
  return test;
}

/** Parts before and from " or near ". */
function splitOr(text: string): [string, string | null] {
  const at = text.search(/\s+or\s+near\s/i);
  return at < 0 ? [text, null] : [text.slice(0, at), text.slice(at).replace(/^\s+or\s+/i, '')];
}

function readNear(text: string, lookup: Lookup): NearTest {
  const found = /^near\s+(.+?)\s+([\d.,]+k?)\s*(km|mi|miles?)(?:\s+"([^"]*)")?$/i.exec(text);
  if (!found)
    throw problem(
      'near',
      text.replace(/^near\s*/i, ''),
      'a town and a distance, as in “near Brno 60 km”',
      text,
    );
  const [, where, figure, unit, label] = found;
  const distance = readFigure(figure!);
  if (distance === null) throw problem(`near ${where}`, figure!, 'a distance such as 60 km', text);
  const radius = unit!.toLowerCase() === 'km' ? { km: distance } : { miles: distance };
  const point = /^(-?\d+(?:\.\d+)?(?:e-?\d+)?)\s*,\s*(-?\d+(?:\.\d+)?(?:e-?\d+)?)$/i.exec(where!);
  if (point)
    return {
      lat: Number(point[1]),
      lon: Number(point[2]),
      ...radius,
      ...(label === undefined ? {} : { label }),
    };
  const name = where!.replaceAll('"', '').trim();
  const within = /^(.+?),?\s+([A-Z]{2}(?:-[\w-]+)?)$/.exec(name);
  const town =
    lookup.places.townNamed(name) ??
    (within
      ? lookup.places.townNamed(
          within[1]!,
          within[2]!.length === 2 ? { country: within[2]! } : { region: within[2]! },
        )
      : undefined);
  if (!town) throw problem('near', name, 'a known town or a point such as 49.2,16.6', text);
  return { lat: town.lat, lon: town.lon, ...radius, label: town.name };
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

function readMoney(field: Field, text: string): MoneyTest {
  const symbols = text.replace(/€/g, '').replace(/£/g, '').replace(/\$/g, '');
  const found = readRange(symbols);
  if (!found) throw problem(field.openers[0]!, text, 'a range such as 2m-40m eur', text);
  const tail = /^([a-z]{3})?\s*(?:(?:a|per|\/)\s*(year|month))?$/i.exec(found.rest);
  const currency =
    tail?.[1]?.toUpperCase() ?? (text.includes('£') ? 'GBP' : text.includes('$') ? 'USD' : 'EUR');
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
  const choices = lookup.choices(field.id);
  const single = /\sall$/i.test(text);
  const body = (single ? text.slice(0, -4) : text).trim();
  const all = single || /\sand\s/i.test(body.replace(/"[^"]*"/g, ''));
  const commas = body.replace(/\s+(or|and)\s+(?=(?:[^"]*"[^"]*")*[^"]*$)/gi, ',');
  const names = splitOutside(commas, ',').map((part) => part.trim().replaceAll('"', ''));
  const keys = names.filter(Boolean).map((name) => {
    const folded = fold(name);
    const choice =
      choices.find((one) => one.key === name) ??
      choices.find(
        (one) =>
          fold(one.key) === folded ||
          fold(one.label) === folded ||
          fold(one.label).replaceAll('-', ' ') === folded.replaceAll('-', ' '),
      );
    if (!choice)
      throw problem(
        field.openers[0]!,
        name,
        `a known ${field.label.toLowerCase()}, as in ${
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
  return all ? { all: keys } : { any: keys };
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
