import type { Scheme } from '../../codes/tree.ts';
import { lineFields, relationsOf, rolesOf } from '../../fields/registry.ts';
import { fold } from '../../text/fold.ts';
import type { Lookup } from '../lookup.ts';
import { GROWTH_OF } from '../tests.ts';
import { wordLine } from '../wording.ts';
import { parseTyped, readOpener } from './parse.ts';
import { splitOutside } from './pieces.ts';
import { OPENER_SCHEMES } from './tests.ts';

/** A line that the text so far may become. */
export interface Completion {
  /** The whole line as typed. */
  typed: string;
  /** What it means in words. */
  meaning: string;
}

const MOST = 8;

/** Schemes that words are searched in when the line names none. */
const COMMON_SCHEMES: readonly Scheme[] = ['nace-2.1', 'naics-2022'];

/**
 * What the last of the typed lines may become, likeliest first. Words are taken by meaning:
 * "painters" finds the code for painting, "brno" the town, "50" a headcount.
 */
export function complete(text: string, subject: string, lookup: Lookup): Completion[] {
  const trimmed = text.trim();
  if (trimmed === '') return [];
  const marks = /^(?:(?:not|must|parked|keep unknowns?|drop unknowns?|fresh\s+\d+\s+\w+)\s+)*/i.exec(
    trimmed,
  )![0];
  const body = trimmed.slice(marks.length);
  if (body === '') return [];
  const candidates = [body, ...suggestions(body, subject, lookup)].map((one) => marks + one);
  const found = new Map<string, Completion>();
  for (const typed of candidates) {
    if (found.size === MOST) break;
    try {
      const lines = parseTyped(typed, subject, lookup, counter());
      const meaning = lines
        .map((line) => `${line.not ? 'not ' : ''}${Object.values(wordLine(line, subject, lookup)).join(' ')}`)
        .join('; ');
      if (lines.length && ![...found.values()].some((one) => one.meaning === meaning))
        found.set(typed, { typed, meaning });
    } catch {
      // A suggestion that does not read is none.
    }
  }
  return [...found.values()];
}

function counter(): () => string {
  let n = 0;
  return () => `c${++n}`;
}

function suggestions(body: string, subject: string, lookup: Lookup): string[] {
  if (/^has(\s|$)/i.test(body)) return hasSuggestions(body, subject, lookup);
  let opened: ReturnType<typeof readOpener>;
  try {
    opened = readOpener(body, subject);
  } catch {
    return subject === 'companies'
      ? byMeaning(body, subject, lookup)
      : bareSuggestions(body, subject, lookup);
  }
  const { field, opener, rest } = opened;
  const start = body.slice(0, body.length - rest.length).trim();
  switch (field.kind) {
    case 'codes':
      return lookup.findCodes(OPENER_SCHEMES[opener]!, rest, MOST).map((hit) => `${start} ${hit.code}`);
    case 'place':
      return opener === 'near'
        ? nearTowns(rest, lookup, MOST)
        : placesBeginning(rest, lookup).map((place) => `${start} ${place}`);
    case 'number':
    case 'money': {
      const figure = rest.match(/^[\d.,]+\s*(k|m|bn)?/i)?.[0].trim();
      const tail = field.kind === 'money' ? ' eur' : '';
      const ranges =
        field.id === 'founded'
          ? ['2010+', '1990-2009', 'up to 1989']
          : field.kind === 'money'
            ? ['up to 2m', '2m-10m', '10m-50m', '50m+']
            : ['0-9', '10-49', '50-249', '250+'];
      return (figure ? [`${figure}+`, `up to ${figure}`] : ranges).map((range) => `${start} ${range}${tail}`);
    }
    case 'category':
      return choicesBeginning(field.id, rest, lookup, subject).map((key) => `${start} ${key}`);
    case 'date':
      return ['past 6 months', 'past 12 months', 'past 24 months', 'this year', 'last year']
        .filter((span) => span.startsWith(rest.toLowerCase()))
        .map((span) => `${start} ${span}`);
    case 'flag':
      return ['yes', 'no']
        .filter((word) => word.startsWith(rest.toLowerCase()))
        .map((word) => `${start} ${word}`);
    case 'keyed':
      return field
        .values!.filter(({ key }) => key.startsWith(fold(rest.split(' ')[0]!)))
        .map(({ key }) => `${start} ${key} ${/\d/.test(rest) ? rest.slice(rest.search(/\d/)) : '1+'}`);
    case 'growth': {
      const of = /^(?:of\s+)?([a-z]*)/i.exec(rest)![1]!;
      return GROWTH_OF.filter((one) => one.startsWith(fold(of)))
        .slice(0, 4)
        .flatMap((one) => [`${start} of ${one} over 1y 10+`, `${start} of ${one} over 3y 10+`]);
    }
    case 'rank': {
      const figure = /^\d+/.exec(rest)?.[0] ?? '500';
      return ['country', 'industry', 'all'].map((among) => `${start} ${figure} by revenue in ${among}`);
    }
    case 'list':
      return choicesBeginning(field.id, rest, lookup, subject).map((key) => `${start} ${key}`);
    default:
      return [`${start} ${rest}*`];
  }
}

/** How a has-line that is begun may go on: its subject and role, then the last line in its brackets. */
function hasSuggestions(body: string, subject: string, lookup: Lookup): string[] {
  const relations = [...relationsOf(subject).values()];
  const open = body.indexOf('(');
  const word = body
    .slice(3)
    .trim()
    .replace(/^an?\s+/i, '')
    .toLowerCase();
  if (open < 0)
    return relations
      .filter(({ one, many }) => one.startsWith(word.split(' ')[0]!) || many.startsWith(word.split(' ')[0]!))
      .flatMap(({ id, one }) => [
        `has ${one}`,
        ...rolesOf(subject, id)
          .filter(({ key }) => word.includes(' as ') && key.startsWith(word.split(' as ')[1]!.trim()))
          .map(({ key }) => `has ${one} as ${key}`),
      ]);
  const related = relations.find(({ one, many }) =>
    new RegExp(`^has\\s+(?:an?\\s+)?(?:${one}|${many})\\b`, 'i').test(body),
  );
  if (!related) return [];
  const inner = body.slice(open + 1).replace(/\)$/, '');
  const last = splitOutside(inner, ';').at(-1)!;
  const before = body.slice(0, open + 1) + inner.slice(0, inner.length - last.length);
  return [last.trim(), ...suggestions(last.trim(), related.id, lookup)]
    .filter(Boolean)
    .map((one) => `${before}${before.endsWith('(') ? '' : ' '}${one})`);
}

/** Candidates for a text that opens no line of a subject below companies: values, openers it begins, and words. */
function bareSuggestions(body: string, subject: string, lookup: Lookup): string[] {
  const fields = lineFields(subject);
  const values = fields
    .filter(({ kind }) => kind === 'category')
    .flatMap(({ id, openers }) =>
      choicesBeginning(id, body, lookup, subject)
        .slice(0, 3)
        .map((key) => `${openers[0]} ${key}`),
    );
  const openers = fields.flatMap(({ openers: own }) => own.filter((opener) => opener.startsWith(fold(body))));
  const openings = openers.flatMap((opener) => suggestions(`${opener} `, subject, lookup).slice(0, 2));
  const text = fields.find(({ kind }) => kind === 'text');
  const place = fields.some(({ kind }) => kind === 'place')
    ? placesBeginning(body, lookup)
        .slice(0, 2)
        .map((one) => `in ${one}`)
    : [];
  return [
    ...values,
    ...openings,
    ...place,
    ...(text ? [`${text.openers[0]} ${/\s/.test(body) ? body : `${body}*`}`] : []),
  ];
}

/** Candidates for a text that opens no line: openers it begins, figures, codes, places, technologies, words. */
function byMeaning(body: string, subject: string, lookup: Lookup): string[] {
  if (/^[\d.,]+\s*(k|m|bn)?\s*(-|\.\.|\+|to|$)/i.test(body)) {
    const code = COMMON_SCHEMES.filter((scheme) => lookup.codes(scheme).nodeOfLoose(body) >= 0);
    return [
      `headcount ${body}`,
      ...code.map((scheme) => `${openerOf(scheme)} ${body}`),
      `revenue ${body} eur`,
      `founded ${body}`,
    ];
  }
  const openers = lineFields(subject).flatMap((field) =>
    field.openers.filter((opener) => opener.startsWith(fold(body))).slice(0, 1),
  );
  const hits = COMMON_SCHEMES.flatMap((scheme) =>
    lookup
      .findCodes(scheme, body, scheme === 'nace-2.1' ? 4 : 1)
      .map((hit) => `${openerOf(scheme)} ${hit.code}`),
  );
  const places = placesBeginning(body, lookup)
    .slice(0, 2)
    .map((place) => `in ${place}`);
  const near = fold(body).length >= 3 ? nearTowns(body, lookup, 1) : [];
  const technologies = choicesBeginning('technology', body, lookup)
    .slice(0, 2)
    .map((key) => `uses ${key}`);
  const openings = openers.flatMap((opener) => suggestions(`${opener} `, subject, lookup).slice(0, 2));
  const words = `words ${/\s/.test(body) ? body : `${body}*`}`;
  return [...openings, ...technologies, ...hits.slice(0, 3), ...places, ...near, words, ...hits.slice(3)];
}

function openerOf(scheme: Scheme): string {
  return Object.keys(OPENER_SCHEMES).find((opener) => OPENER_SCHEMES[opener] === scheme)!;
}

function placesBeginning(text: string, lookup: Lookup): string[] {
  const last = text.split(',').at(-1)!.trim();
  const before = text.slice(0, text.length - last.length);
  const folded = fold(last);
  if (folded === '') return [];
  const groups = [...lookup.countryGroups.values()]
    .filter(({ key, label }) => key.startsWith(folded) || fold(label).startsWith(folded))
    .map(({ key }) => key);
  const countries = lookup.places.countries
    .filter((country) => fold(country.name).startsWith(folded))
    .map((country) => country.name);
  const regions = lookup.places.regions
    .filter((region) => fold(region.name).startsWith(folded) || fold(region.english).startsWith(folded))
    .map((region) => region.key);
  const towns = lookup.places.townsBeginning(last, 4).map((town) => `"${town.key}"`);
  return [...countries.slice(0, 3), ...groups.slice(0, 2), ...regions.slice(0, 3), ...towns].map(
    (place) => `${before}${place}`,
  );
}

function nearTowns(text: string, lookup: Lookup, limit: number): string[] {
  const [, name, radius] = /^(.*?)(?:\s+(\d[\d.]*\s*(?:km|mi|miles)?))?$/i.exec(text)!;
  const distance = radius ? (/[a-z]$/i.test(radius) ? radius : `${radius} km`) : '40 km';
  return lookup.places
    .townsBeginning(name!, limit)
    .map((town) =>
      lookup.places.townNamed(town.name)?.key === town.key
        ? `near ${town.name} ${distance}`
        : `near ${town.name} ${town.region || town.country} ${distance}`,
    );
}

function choicesBeginning(field: string, text: string, lookup: Lookup, subject = 'companies'): string[] {
  const folded = fold(
    text
      .split(/\s+(?:or|and)\s+|,\s*/i)
      .at(-1)!
      .replaceAll('"', ''),
  );
  const before = text.slice(0, text.length - text.split(/\s+(?:or|and)\s+|,\s*/i).at(-1)!.length);
  return lookup
    .choices({ subject, id: field })
    .filter(
      (choice) =>
        fold(choice.label).startsWith(folded) ||
        fold(choice.key).startsWith(folded) ||
        fold(choice.label)
          .split(/[\s-]/)
          .some((word) => folded !== '' && word.startsWith(folded)),
    )
    .slice(0, MOST)
    .map((choice) => `${before}${/^[\w-]+$/.test(choice.key) ? choice.key : `"${choice.key}"`}`);
}
