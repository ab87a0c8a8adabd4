import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { CERTIFICATES, GROUPS, RECEIVERS, TAPES } from '../../core/testing/any-record.ts';
import { anyLines } from '../../core/testing/any-tape.ts';
import type { Lookup } from '../../core/tape/lookup.ts';
import { emptyTape, type Line } from '../../core/tape/nodes.ts';
import { complete } from '../../core/tape/typed/complete.ts';
import { parseTyped } from '../../core/tape/typed/parse.ts';
import { spellLines } from '../../core/tape/typed/spell.ts';
import { validateTape } from '../../core/tape/validate.ts';
import { wordTape } from '../../core/tape/wording.ts';
import { ROOT } from '../reference.ts';
import { AS_OF, RandomUniverse } from '../testing/random-universe.ts';
import { buildUniverse } from './opening/build-universe.ts';
import { universeLookup } from './universe-lookup.ts';
import { NO_FACTS } from './workspace-facts.ts';

let random: RandomUniverse;
let lookup: Lookup;
beforeAll(() => {
  random = new RandomUniverse();
  random.db
    .prepare('INSERT INTO source (key, name, as_of, loaded_at, header, mapping) VALUES (?, ?, 0, ?, ?, ?)')
    .run('register-extract', 'Register extract', '', '[]', '{}');
  random.db
    .prepare('INSERT INTO technology (key, label, category, category_label) VALUES (?, ?, ?, ?)')
    .run('planodor-2', 'Planodor 2', 'production-planning', 'production planning');
  random.db
    .prepare('INSERT INTO technology (key, label, category, category_label) VALUES (?, ?, ?, ?)')
    .run('saldibra', 'Saldibra', 'accounting', 'accounting');
  random.db.prepare(`INSERT INTO company (key, name, legal_form) VALUES ('x', 'X', 's.r.o.')`).run();
  random.db
    .prepare(`INSERT INTO company_certificate SELECT id, 'welding works' FROM company WHERE key = 'x'`)
    .run();
  const add = (text: string) => random.db.exec(text);
  for (const name of GROUPS)
    add(`INSERT INTO company (key, name, group_name) VALUES ('${name}', '${name}', '${name}')`);
  for (const key of ['k0', 'k3', 'k7']) add(`INSERT INTO company (key, name) VALUES ('${key}', '${key}')`);
  for (const one of CERTIFICATES)
    add(`INSERT INTO company_certificate SELECT id, '${one}' FROM company WHERE key = 'x'`);
  add(`INSERT INTO brand (source, name, countries_known) VALUES ('register', 'Vend', 1);
    INSERT INTO brand_country SELECT id, column1 FROM brand, (VALUES ('CZ'), ('PL'), ('AT'));
    INSERT INTO company_country SELECT id, column1 FROM company, (VALUES ('CZ'), ('PL'), ('AT')) WHERE key = 'x'`);
  lookup = universeLookup(random.db, random.reference, buildUniverse(random.db, random.reference.trees), {
    ...NO_FACTS,
    asOf: AS_OF,
    receivers: RECEIVERS.map((key) => ({ key, label: key })),
    joinable: TAPES.map((key) => ({ key, label: key })),
    lists: ['our-customers', 'to-call'].map((key) => ({
      key,
      label: key,
      subject: 'companies',
      suppression: null,
    })),
  });
});
afterAll(() => random.close());

const read = (text: string) => {
  let n = 0;
  return parseTyped(text, 'companies', lookup, () => `l${++n}`);
};

test('“or” behind a semicolon joins the line before it, also within a has-line', () => {
  const shape = (lines: readonly Line[]) => spellLines(lines, 'companies', lookup);
  expect(shape(read('status active; headcount 250+; or revenue 50m+ eur; or listing listed'))).toBe(
    'status active; either headcount 250+ | revenue 50m+ eur | listing listed',
  );
  expect(shape(read('has person (purchasing; or director+) from 2'))).toBe(
    shape(read('has person (either purchasing | director+) from 2')),
  );
  expect(() => read('or headcount 250+')).toThrow('a line before it to join with');
});

test('every example of the manual reads, and spells back to what reads the same', () => {
  const manual = readFileSync(join(ROOT, 'docs/typed-lines.md'), 'utf8');
  const examples = manual
    .split('\n')
    .filter((row) => row.startsWith('| ') && row.includes('`'))
    .flatMap((row) => row.match(/`[^`]+`/g)!)
    .map((example) => example.slice(1, -1))
    .filter((example) => /\s/.test(example));
  expect(examples.length).toBeGreaterThan(25);
  for (const example of [...examples, 'either headcount 250+ | revenue 50m+ eur']) {
    const lines = read(example);
    expect(read(spellLines(lines, 'companies', lookup))).toEqual(lines);
  }
});

describe('one line has many spellings', () => {
  test.each([
    ['50-249 staff', 'headcount 50-249', 'headcount 50 to 249', 'employees 50..249'],
    ['nace 25.51', 'nace 2551', 'industry C25.51', 'NACE 25.51'],
    ['near Brno 60 km', 'near brno 60 km', 'near Brünn 60 km', 'place near Brno 60km'],
    ['in Czechia, Poland', 'in CZ, PL', 'place Czechia or Poland', 'in Polska, Czechia'],
    ['revenue 2m-40m eur a year', 'turnover 2m-40m eur per year', 'revenue 2,000,000-40,000,000 EUR / year'],
    [
      'not keep unknown must founded 2010+',
      'must not keep unknown founded 2010+',
      'not founded at least 2010 keep unknowns must',
    ],
    ['checked past 12 months', 'last checked past 12 months', 'checked: in the past 12 months'],
    [
      'largest 500 by revenue in country',
      'largest 500 by revenue among its country',
      'largest up to 500 in country',
    ],
    ['growth of headcount over 1y 10+', 'growth headcount 1 year 10+ %', 'growth of headcount 10+'],
    ['fresh 24 months headcount 20+', 'headcount 20+ fresh 24 months'],
    ['in nordic, metro Brno', 'in Nordic or greater Brno'],
    ['not on list our-customers', 'not list our-customers'],
    ['technology rutavel or dipzaal', 'uses rutavel, dipzaal', 'uses Rutavel or Dipzaal'],
  ])('%s', (first, ...others) => {
    const sets = (text: string) =>
      JSON.stringify(read(text), (_, value: unknown) =>
        Array.isArray(value) && typeof value[0] === 'string' ? [...(value as string[])].sort() : value,
      );
    for (const other of others) expect(JSON.parse(sets(other))).toEqual(JSON.parse(sets(first)));
  });
});

describe('what cannot be read says what was understood and what was expected', () => {
  test.each([
    ['gibberish', 'Nothing understood in “gibberish”. Expected a line such as'],
    [
      'headcount fifty',
      'Understood “headcount”; then came “fifty”. Expected a range such as 20-249, 50+ or up to 9.',
    ],
    ['headcount 20-249 horses', 'Understood “headcount”; then came “horses”.'],
    ['headcount', 'Understood “headcount”; then came nothing.'],
    ['nace 99.99', 'Understood “nace (NACE 2.1)”; then came “99.99”. Expected a code of NACE 2.1'],
    ['nace', 'Understood “nace”; then came nothing. Expected a code of NACE 2.1.'],
    [
      'in Nowhereland',
      'Understood “in”; then came “Nowhereland”. Expected a country or group of countries, a region, a town',
    ],
    ['near Brno', 'Expected a town and a distance, as in “near Brno 60 km”.'],
    ['near Nowhereland 60 km', 'Understood “near”; then came “Nowhereland”.'],
    [
      'revenue 2m-40m doubloons',
      'Understood “revenue 2m-40m”; then came “doubloons”. Expected a currency with rates',
    ],
    ['uses abacus', 'Understood “technology”; then came “abacus”. Expected a known technology'],
    ['checked yesterday', 'Understood “checked”; then came “yesterday”. Expected “past 12 months”'],
    ['words', 'Understood “words”; then came nothing.'],
    ['words oak and', 'After “oak and” came the end; expected a word.'],
    ['headcount 9-2', 'The range is reversed: from 9 is above to 2.'],
    ['either', 'Expected'],
    ['nace 25.51; headcount fifty', 'then came “fifty”'],
  ])('%s', (text, message) => {
    expect(() => read(text)).toThrow(message);
  });
});

test('a tape in words says all that a reader needs', () => {
  const lines = read(
    'must nace 25 except 25.4 main only; not in Czechia, CZ-64, "Brno, CZ-64"; near Brno 40 miles; keep unknown headcount up to 9; revenue 150k+ gbp a month with estimates; uses rutavel and dipzaal; checked this year; words in name: oak; parked founded 1990; either headcount 250+ | not status active',
  );
  expect(wordTape(lines, 'companies', lookup)).toEqual([
    'Industry 25 fabricated metal products, except machinery and equipment except 25.4, main only (NACE 2.1) (must)',
    'not Place in Czechia, South Moravia or Brno',
    'Place within 40 miles of Brno',
    'Headcount up to 9 (unknown kept)',
    'Revenue £150k or more a month (£1.8m or more a year), estimates count',
    'Technology rutavel and dipzaal',
    'Last checked in this year (2026-01-01 to 2026-12-31)',
    'Words oak in the name',
    'Parked: Founded exactly 1990',
    'Either headcount 250 or more or not status active',
  ]);
});

describe('what stands first', () => {
  const found = (text: string, lines: Line[] = []) => complete(text, { ...emptyTape(), lines }, lookup);
  const first = (text: string) => found(text)[0]!;

  test('exact names of values, lists and conditions, and never a code that is only spelled alike', () => {
    expect(first('listed')).toMatchObject({ typed: 'listing listed', exact: true });
    expect(first('quoted')).toMatchObject({ typed: 'listing listed', exact: true });
    expect(first('our-customers')).toMatchObject({ typed: 'on list our-customers', exact: true });
    expect(first('not to-call')).toMatchObject({ typed: 'not on list to-call' });
    expect(first('headcount').typed).toMatch(/^headcount /);
    for (const text of ['new tape', 'Rivals', 'coating shops']) {
      const alike = found(text).map((one) => one.alike === true);
      // Once one is only alike, so are all after it.
      expect(alike).toEqual([...alike].sort((a, b) => Number(a) - Number(b)));
      expect(alike[0]).toBe(false);
    }
  });

  test('all codes of a trade together, then one by one', () => {
    const [together, ...single] = found('joinery').filter(({ typed }) => typed.startsWith('nace'));
    expect(together!.what).toBe('all its codes');
    const codes = together!.typed.replace('nace ', '').split(' ');
    expect(codes.length).toBeGreaterThan(1);
    expect(codes).toEqual(expect.arrayContaining(['16.23', '43.32']));
    for (const { typed } of single) expect(codes).toContain(typed.replace('nace ', ''));
  });

  test('a place says what it is, in any of its languages', () => {
    for (const name of ['Wien', 'Vienna', 'Vienne']) {
      const kinds = found(`in ${name}`).map(({ what }) => what);
      expect(kinds).toEqual(expect.arrayContaining(['town']));
    }
    expect(found('in Wien').map(({ what }) => what)).toEqual(
      expect.arrayContaining(['region', 'town', 'metro area']),
    );
    expect(found('metro Wien')[0]!.meaning).toContain('metro Wien');
    expect(found('in Tschechien')[0]).toMatchObject({ meaning: 'Place in Czechia', what: 'country' });
    expect(found('Allemagne')[0]).toMatchObject({ typed: 'in Germany', exact: true });
  });

  test('further choices of a line that is there, beside a line of their own', () => {
    const tape = read('nace 25.51; in Poland');
    const codes = found('43.32', tape).filter(({ typed }) => typed === 'nace 43.32');
    expect(codes.map(({ also }) => also ?? false)).toEqual([false, true]);
    expect(found('in Czechia', tape).some(({ also }) => also)).toBe(true);
    expect(found('in Poland', tape).some(({ also }) => also)).toBe(false);
    expect(found('listed', tape).some(({ also }) => also)).toBe(false);
  });

  test('a slash before it is forgiven, and words alone among other lines are words', () => {
    expect(spellLines(read('/ staircase; near Brno 30 km'), 'companies', lookup)).toBe(
      'words: staircase; near Brno 30 km',
    );
    expect(spellLines(read('headcount 10+; not garden furniture'), 'companies', lookup)).toBe(
      'headcount 10+; not words: garden furniture',
    );
    expect(() => read('staircase')).toThrow('Nothing understood');
    expect(() => read('heacount 10+; near Brno 30 km')).toThrow('Nothing understood');
  });

  test('amounts without a currency are in that of the workspace', () => {
    const inZloty = { ...lookup, currency: 'PLN' };
    const typed = (text: string) =>
      spellLines(
        parseTyped(text, 'companies', inZloty, () => 'l'),
        'companies',
        inZloty,
      );
    expect(typed('revenue 2m+')).toBe('revenue 2m+ pln');
    expect(typed('revenue 2m+ eur')).toBe('revenue 2m+ eur');
    expect(typed('revenue £2m+')).toBe('revenue 2m+ gbp');
    expect(complete('revenue 2', emptyTape(), inZloty)[0]!.typed).toBe('revenue 2');
  });
});

describe('completions', () => {
  const typed = (text: string) => complete(text, emptyTape(), lookup).map((completion) => completion.typed);
  test('take words by meaning', () => {
    expect(typed('painters')).toContain('nace 43.34');
    expect(typed('joinery')).toEqual(expect.arrayContaining(['nace 16.23', 'nace 43.32', 'words joinery*']));
    expect(typed('brno')).toEqual(expect.arrayContaining(['in "Brno, CZ-64"', 'near Brno 40 km']));
    expect(typed('czech')).toContain('in Czechia');
    expect(typed('rutav')).toContain('technology rutavel');
    expect(typed('25.51')[0]).toBe('headcount 25.51');
    expect(typed('25.51')).toContain('nace 25.51');
  });
  test('go on with what is begun, marks kept', () => {
    expect(typed('headcount 50')).toEqual(['headcount 50', 'headcount 50+', 'headcount up to 50']);
    expect(typed('checked past')).toEqual([
      'checked past 6 months',
      'checked past 12 months',
      'checked past 24 months',
    ]);
    expect(typed('not uses plan')).toEqual(expect.arrayContaining(['not uses planning']));
    expect(typed('near brn 15')).toContain('near Brno 15 km');
    expect(typed('')).toEqual([]);
    expect(typed('not')).toEqual(expect.any(Array));
  });
  test('read as lines, every one', () => {
    for (const text of [
      'j',
      'wo',
      'stat',
      'revenue 2',
      'legal form',
      'source re',
      'in s',
      '5',
      '%',
      '"',
      'words (',
    ])
      for (const one of typed(text)) expect(read(one).length).toBeGreaterThan(0);
  });
});

test('typed lines are a lossless spelling of the tape', () => {
  const nameless = (lines: readonly Line[]) =>
    JSON.parse(JSON.stringify(lines, (key, value: unknown) => (key === 'id' ? undefined : value))) as unknown;
  fc.assert(
    fc.property(anyLines, (raw) => {
      const lines = validateTape(
        { format: 'just-tally.tape', version: 1, subject: 'companies', lines: raw },
        lookup,
      ).lines;
      const typed = spellLines(lines, 'companies', lookup);
      let n = 0;
      expect(nameless(parseTyped(typed, 'companies', lookup, () => `t${++n}`))).toEqual(nameless(lines));
    }),
    { numRuns: 1500, seed: 20260930 },
  );
});
