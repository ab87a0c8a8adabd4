import type { Field } from '../../fields/field.ts';
import { lineFields, relationsOf, rolesOf } from '../../fields/registry.ts';
import { fold } from '../../text/fold.ts';
import type { Lookup } from '../lookup.ts';
import { GROWTH_OF } from '../tests.ts';
import type { Suggestion } from './suggestion.ts';
import { openerOf, suggestCodes } from './suggest-codes.ts';
import { nearTowns, placesNamed } from './suggest-places.ts';
import { readOpener } from './parse.ts';
import { splitOutside } from './pieces.ts';
import { RIGHT_PERSON, suggestRightPeople } from './right-person.ts';
import { OPENER_SCHEMES } from './tests.ts';

const MOST = 8;

/** Lines that a text without marks may mean, likeliest first. They need not read as lines. */
export function suggestions(body: string, subject: string, lookup: Lookup): Suggestion[] {
  const right = subject === 'companies' ? RIGHT_PERSON.exec(body) : null;
  if (right) {
    const rest = body.slice(right[0].length).trim();
    return plain([...(rest === '' ? [] : [body]), ...suggestRightPeople(rest, lookup)]);
  }
  if (/^has(\s|$)/i.test(body)) return plain(hasSuggestions(body, subject, lookup));
  let opened: ReturnType<typeof readOpener>;
  try {
    opened = readOpener(body, subject);
  } catch {
    return subject === 'companies' ? byMeaning(body, lookup) : bareSuggestions(body, subject, lookup);
  }
  const { field, opener, rest } = opened;
  const start = body.slice(0, body.length - rest.length).trim();
  return afterOpener(field, opener, start, rest, lookup);
}

const plain = (lines: readonly string[]): Suggestion[] => lines.map((typed) => ({ typed }));

/** How a line that is opened may go on. */
function afterOpener(
  field: Field,
  opener: string,
  start: string,
  rest: string,
  lookup: Lookup,
): Suggestion[] {
  switch (field.kind) {
    case 'codes': {
      const scheme = OPENER_SCHEMES[opener.toLowerCase()]!;
      return lookup
        .findCodes(scheme, rest, MOST)
        .map(({ code, alike }) => ({ typed: `${start} ${code}`, ...(alike ? { alike } : {}) }));
    }
    case 'place':
      if (opener === 'near') return plain(nearTowns(rest, lookup, MOST));
      if (opener === 'metro')
        return lookup.places
          .townsBeginning(rest, MOST)
          .map(({ key }) => ({ typed: `metro "${key}"`, what: 'metro area' }));
      return placesNamed(rest, lookup, 'begins').map(({ typed, ...more }) => ({
        typed: `${start} ${typed}`,
        ...more,
      }));
    case 'number':
    case 'money':
      return plain(ranges(field, rest, lookup).map((range) => `${start} ${range}`));
    case 'category':
    case 'list':
      return plain(choicesNamed(field, rest, lookup, 'begins').map((key) => `${start} ${key}`));
    case 'date':
      return plain(
        ['past 6 months', 'past 12 months', 'past 24 months', 'this year', 'last year']
          .filter((span) => span.startsWith(rest.toLowerCase()))
          .map((span) => `${start} ${span}`),
      );
    case 'flag':
      return plain(
        ['yes', 'no'].filter((word) => word.startsWith(rest.toLowerCase())).map((word) => `${start} ${word}`),
      );
    case 'keyed':
      return plain(
        field
          .values!.filter(({ key }) => key.startsWith(fold(rest.split(' ')[0]!)))
          .map(({ key }) => `${start} ${key} ${/\d/.test(rest) ? rest.slice(rest.search(/\d/)) : '1+'}`),
      );
    case 'growth': {
      const of = /^(?:of\s+)?([a-z]*)/i.exec(rest)![1]!;
      return plain(
        GROWTH_OF.filter((one) => one.startsWith(fold(of)))
          .slice(0, 4)
          .flatMap((one) => [`${start} of ${one} over 1y 10+`, `${start} of ${one} over 3y 10+`]),
      );
    }
    case 'rank': {
      const figure = /^\d+/.exec(rest)?.[0] ?? '500';
      return plain(
        ['all', 'country', 'industry'].map((among) => `${start} ${figure} by revenue in ${among}`),
      );
    }
    default:
      return plain([`${start} ${rest}*`]);
  }
}

/** Ranges that a figure may begin, or the usual ones of a field. */
function ranges(field: Field, rest: string, { currency }: Lookup): string[] {
  const figure = rest.match(/^[\d.,]+\s*(k|m|bn)?/i)?.[0].trim();
  const tail = field.kind === 'money' ? ` ${currency.toLowerCase()}` : '';
  const usual =
    field.id === 'founded'
      ? ['2010+', '1990-2009', 'up to 1989']
      : field.kind === 'money'
        ? ['up to 2m', '2m-10m', '10m-50m', '50m+']
        : ['0-9', '10-49', '50-249', '250+'];
  return (figure ? [`${figure}+`, `up to ${figure}`] : usual).map((range) => range + tail);
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
  return [last.trim(), ...suggestions(last.trim(), related.id, lookup).map(({ typed }) => typed)]
    .filter(Boolean)
    .map((one) => `${before}${before.endsWith('(') ? '' : ' '}${one})`);
}

/** Values and lists of a subject that are called just so, or whose name begins so, as lines. */
function namedValues(body: string, subject: string, lookup: Lookup, how: 'exact' | 'begins'): Suggestion[] {
  return lineFields(subject)
    .filter(
      (field) =>
        field.kind === 'list' || (field.kind === 'category' && (how === 'exact' || isShort(field, lookup))),
    )
    .flatMap((field) =>
      choicesNamed(field, body, lookup, how)
        .slice(0, how === 'exact' ? 2 : 3)
        .map((key) => ({ typed: `${field.openers[0]} ${key}` })),
    );
}

/** Whether the values of a field are few, or sorted into groups, so that what begins like one is worth a look. */
function isShort(field: Field, lookup: Lookup): boolean {
  return field.values !== undefined || lookup.choices(field).some(({ group }) => group !== undefined);
}

/** The usual lines of the conditions that a text begins, or names in full. */
function openings(body: string, subject: string, lookup: Lookup, how: 'exact' | 'begins'): Suggestion[] {
  const folded = fold(body);
  return lineFields(subject)
    .flatMap(({ openers, label }) => {
      const named =
        openers.find((opener) => opener === folded) ?? (fold(label) === folded ? openers[0] : undefined);
      const begun = openers.find((opener) => opener.startsWith(folded));
      const opener = how === 'exact' ? named : named === undefined ? begun : undefined;
      return opener === undefined ? [] : [opener];
    })
    .flatMap((opener) => suggestions(`${opener} `, subject, lookup).slice(0, how === 'exact' ? 4 : 2));
}

/** Candidates for a text that opens no line of a subject below companies: values, openers it begins, and words. */
function bareSuggestions(body: string, subject: string, lookup: Lookup): Suggestion[] {
  const fields = lineFields(subject);
  const text = fields.find(({ kind }) => kind === 'text');
  const places = fields.some(({ kind }) => kind === 'place')
    ? placesNamed(body, lookup, 'begins').slice(0, 2)
    : [];
  return [
    ...namedValues(body, subject, lookup, 'exact'),
    ...openings(body, subject, lookup, 'exact'),
    ...namedValues(body, subject, lookup, 'begins'),
    ...openings(body, subject, lookup, 'begins'),
    ...places.map(({ typed, ...more }) => ({ typed: `in ${typed}`, ...more })),
    ...(text ? plain([`${text.openers[0]} ${/\s/.test(body) ? body : `${body}*`}`]) : []),
  ];
}

/** Candidates for a text that opens no line: figures, exact names, trades, what begins so, words, and what is spelled alike. */
function byMeaning(body: string, lookup: Lookup): Suggestion[] {
  if (/^[\d.,]+\s*(k|m|bn)?\s*(-|\.\.|\+|to|$)/i.test(body)) return byFigure(body, lookup);
  const codes = suggestCodes(body, lookup);
  const inPlaces = (how: 'exact' | 'begins') =>
    placesNamed(body, lookup, how).map(({ typed, ...more }) => ({ typed: `in ${typed}`, ...more }));
  const right = fold(body).length >= 3 ? plain(suggestRightPeople(body, lookup)) : [];
  const near = fold(body).length >= 3 ? plain(nearTowns(body, lookup, 1)) : [];
  return [
    ...openings(body, 'companies', lookup, 'exact'),
    ...[
      ...namedValues(body, 'companies', lookup, 'exact'),
      ...codes.exact,
      ...inPlaces('exact').slice(0, 3),
    ].map((one) => ({ ...one, exact: true as const })),
    ...(codes.exact.length ? [] : openings(body, 'companies', lookup, 'begins')),
    ...namedValues(body, 'companies', lookup, 'begins').slice(0, 3),
    ...codes.written.slice(0, 3),
    ...inPlaces('begins').slice(0, 2),
    ...right.slice(0, 2),
    ...near,
    { typed: `words ${/\s/.test(body) ? body : `${body}*`}` },
    ...codes.written.slice(3),
    ...codes.inNotes,
    ...codes.alike,
  ];
}

const CODED = ['nace-2.1', 'naics-2022'] as const;

function byFigure(body: string, lookup: Lookup): Suggestion[] {
  const coded = CODED.filter((scheme) => lookup.codes(scheme).nodeOfLoose(body) >= 0);
  return plain([
    `headcount ${body}`,
    ...coded.map((scheme) => `${openerOf(scheme)} ${body}`),
    `revenue ${body} ${lookup.currency.toLowerCase()}`,
    `founded ${body}`,
  ]);
}

/** Choices of a field named by the last of several values, with those before them kept; exact names first. */
function choicesNamed(field: Field, text: string, lookup: Lookup, how: 'exact' | 'begins'): string[] {
  const last = text.split(/\s+(?:or|and)\s+|,\s*/i).at(-1)!;
  const folded = fold(last.replaceAll('"', '')).trim();
  const before = text.slice(0, text.length - last.length);
  const exact = ({ key, label, also }: ReturnType<Lookup['choices']>[number]) =>
    [key, label, ...(also ?? [])].some((name) => fold(name) === folded);
  const begins = ({ key, label, also }: ReturnType<Lookup['choices']>[number]) =>
    [key, label, ...(also ?? [])].some((name) => fold(name).startsWith(folded)) ||
    (folded !== '' &&
      fold(label)
        .split(/[\s-]/)
        .some((word) => word.startsWith(folded)));
  const choices = lookup.choices(field);
  const found = choices.filter(exact);
  if (how === 'begins') found.push(...choices.filter((choice) => begins(choice) && !exact(choice)));
  return found.slice(0, MOST).map(({ key }) => `${before}${/^[\w-]+$/.test(key) ? key : `"${key}"`}`);
}
