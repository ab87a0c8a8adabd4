import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { readCareer } from '../people/career.ts';
import { rightPerson, type Candidate } from '../people/right-person.ts';
import { draftOf, shortName, templateFor, type Template } from './draft.ts';
import type { FactsOfCompany, FactsOfPerson } from './facts.ts';
import { isWorkingTime, localTime, nextWorkingTime, type Hours } from './hours.ts';
import { fitOf, rankProofs, type Proof } from './proofs.ts';
import { countWords, fillTemplate, leftUnfilled, readTemplate, type FieldValues } from './template.ts';
import { happeningOf, triggerText } from './trigger.ts';

const company: FactsOfCompany = {
  ...{
    key: 'cz-1',
    name: 'Zarmysko Stolařství s.r.o.',
    legalForm: 's.r.o.',
    town: 'Boskovice',
    region: null,
  },
  ...{
    country: 'CZ',
    headcount: 46,
    revenue: null,
    industry: 'Manufacture of doors',
    codes: ['16.23', '31.00'],
  },
  technologies: [{ key: 'lakonta', label: 'Lakonta' }],
  event: { name: 'Second spray line', kind: 'new-line', date: '2026-07-03' },
  deal: { name: 'Zarmysko takes a growth loan', kind: 'growth-loan', date: '2026-05-14' },
  trigger: { name: 'Second spray line', kind: 'new-line', date: '2026-07-03' },
};
const monika: FactsOfPerson = {
  ...{
    key: 'person-1',
    name: 'Monika Planik',
    title: 'Works manager',
    department: 'production',
    level: 'head',
  },
  ...{ since: null, earlier: null, phone: null, mail: 'monika.planik@zarmysko.example', certainty: 93 },
  ...{
    address: 'likely',
    madeBy: 'first.last, 7 of 7 known there',
    source: 'Directory',
    checked: null,
    company,
  },
};
const proof = (more: Partial<Proof>): Proof => ({
  ...{
    id: 'p',
    text: 'A fact',
    industries: [],
    technologies: [],
    from: null,
    to: null,
    source: '',
    since: null,
  },
  ...more,
});

describe('templates', () => {
  const values = (more: Partial<FieldValues>): FieldValues => ({
    ...{ 'first name': null, 'last name': null, name: null, title: null, company: null, town: null },
    ...{ industry: null, headcount: null, technology: null, 'last deal': null, trigger: null, proof: null },
    ...{ sender: null },
    ...more,
  });
  test.each([
    ['Dear {name},', { name: 'Monika' }, 'Dear Monika,', []],
    ['Dear {name},', {}, 'Dear {name},', ['name']],
    ['A[ and {town}]. B', { town: 'Brno' }, 'A and Brno. B', []],
    ['A [and {town} ]B', {}, 'A B', []],
    ['[{proof} ][{technology} ]end', { proof: 'Yes.' }, 'Yes. end', []],
    ['for {company}. Next', { company: 'Foo s.r.o.' }, 'for Foo s.r.o. Next', []],
    ['wait … and ... so', {}, 'wait … and ... so', []],
    ['{ NAME }', { name: 'x' }, 'x', []],
  ] as const)('%s %#', (template, known, text, unfilled) => {
    expect(fillTemplate(template, values(known), 'body')).toEqual({ text, unfilled });
  });
  test.each([
    ['{nobody}', 'no field'],
    ['[a [b]]', 'within brackets'],
    ['a]', 'no opening one'],
    ['[a', 'no closing one'],
    ['{name', 'no partner'],
  ])('%s is refused in words', (template, message) => {
    expect(() => readTemplate(template, 'body')).toThrow(message);
  });
  test('what a value says is never read as a template', () => {
    const text = fc.string().filter((one) => one.trim() === one && !/\s{2}|\.\.| [.,;:!?]/.test(one));
    fc.assert(
      fc.property(text, (name) => {
        expect(fillTemplate('<{name}>', values({ name }), 'body').text).toBe(`<${name}>`);
      }),
    );
  });
  test('words are what has a letter or a figure', () => {
    expect(countWords('Solvent – down by 71 % , now!')).toBe(5);
    expect(countWords('')).toBe(0);
    expect(leftUnfilled('a {town} {b} {town}')).toEqual(['town', 'b']);
  });
});

describe('drafts', () => {
  const template: Template = {
    ...{ name: 'T', language: 'en', subject: 'Air for {company}' },
    body: 'Dear {name}, [with {trigger} more air is to be cleaned. ][{proof} ]Shall we?',
  };
  test('name the proof that fits best, and what set them off as one says', () => {
    const proofs = [
      proof({ id: 'boats', text: 'Boats', industries: ['30'] }),
      proof({ id: 'wood', text: 'Wood', industries: ['16'], from: 10, to: 249 }),
      proof({ id: 'any', text: 'Any' }),
    ];
    const draft = (trigger: 'named' | 'hinted' | 'out', wished?: string | null) =>
      draftOf(monika, template, proofs, { trigger, proof: wished, sender: 'Jonas' });
    expect(draft('named')).toMatchObject({
      subject: 'Air for Zarmysko Stolařství',
      body: 'Dear Monika Planik, with your new line (“Second spray line”, July 2026) more air is to be cleaned. Wood. Shall we?',
      ...{ proof: 'wood', unfilled: [], words: 21 },
    });
    expect(draft('hinted').body).toContain('with your new line more air');
    expect(draft('out').body).toBe('Dear Monika Planik, Wood. Shall we?');
    expect(draft('out', 'any')).toMatchObject({ proof: 'any', body: 'Dear Monika Planik, Any. Shall we?' });
    expect(draft('out', null)).toMatchObject({ proof: null, body: 'Dear Monika Planik, Shall we?' });
  });
  test('two that differ in names alone are of one wording', () => {
    const other = {
      ...monika,
      name: 'Petr Hladina',
      company: { ...company, name: 'Tissovec Okna s.r.o.', event: null, deal: null, trigger: null },
    };
    const wish = { trigger: 'out', proof: null, sender: '' } as const;
    const [one, two] = [monika, other].map((facts) => draftOf(facts, template, [], wish).wording);
    expect(one).toBe(two);
  });
  test('take the language of the country, else English, else what there is', () => {
    const of = (language: string) => ({ ...template, language });
    const all = [of('en'), of('de'), { ...of('cs'), name: 'Other' }];
    expect(templateFor(all, 'T', 'AT')!.language).toBe('de');
    expect(templateFor(all, 'T', 'CZ')!.language).toBe('en');
    expect(templateFor(all, 'Other', 'FR')!.language).toBe('cs');
    expect(templateFor(all, 'None', 'FR')).toBeUndefined();
  });
  test('call a company without its legal form', () => {
    expect(shortName('Alder Works, S.R.O.', 's.r.o.')).toBe('Alder Works');
    expect(shortName('GmbH', 'GmbH')).toBe('GmbH');
    expect(shortName('Alder', null)).toBe('Alder');
  });
});

describe('what sets a message off', () => {
  test('is the later of event and deal of late, and never a court case', () => {
    const since = '2025-09-30';
    expect(happeningOf(company, since)!.kind).toBe('new-line');
    const court = { name: 'Sued', kind: 'court', date: '2026-09-01' };
    expect(happeningOf({ ...company, event: court }, since)!.kind).toBe('growth-loan');
    expect(happeningOf({ event: court, deal: null }, since)).toBeNull();
    expect(happeningOf(company, '2026-08-01')).toBeNull();
    expect(triggerText({ ...company, trigger: null }, 'named')).toBeNull();
    expect(triggerText(null, 'named')).toBeNull();
  });
});

describe('proofs', () => {
  const joinery = { codes: ['16.23'], technologies: ['lakonta'], headcount: 46 };
  test.each([
    [{}, true, []],
    [{ industries: ['16'] }, true, ['its industry']],
    [{ industries: ['30'] }, false, []],
    [{ technologies: ['lakonta', 'x'] }, true, ['its technology']],
    [{ technologies: ['x'] }, false, []],
    [{ from: 50 }, false, []],
    [{ to: 46 }, true, ['its size']],
  ] as const)('%j', (more, fits, by) => {
    expect(fitOf(proof(more as Partial<Proof>), joinery)).toEqual({ fits, by });
  });
  test('what is not known of a company speaks for nothing, and against nothing', () => {
    const nobody = { codes: [], technologies: [], headcount: null };
    expect(fitOf(proof({ industries: ['16'], technologies: ['x'], from: 5 }), nobody)).toEqual({
      fits: true,
      by: [],
    });
  });
  test('stand by how much speaks for them, those that do not fit last', () => {
    const all = [
      proof({ id: 'no', industries: ['30'] }),
      proof({ id: 'any' }),
      proof({ id: 'yes', industries: ['16'] }),
    ];
    expect(rankProofs(all, joinery).map(({ id }) => id)).toEqual(['yes', 'any', 'no']);
  });
});

describe('the right person', () => {
  const of = (department: string, level: string, title: string, certainty: number | null): Candidate => ({
    ...{ department, level, title, certainty },
  });
  const people = [
    of('management', 'owner', 'Owner', 99),
    of('production', 'director', 'Technical director', 90),
    of('production', 'head', 'Works manager', null),
    of('production', 'head', 'Head of production', 60),
  ];
  test('holds the first function that anybody holds; among several whom one reaches surest', () => {
    const find = (...functions: Parameters<typeof rightPerson>[1]) => {
      const found = rightPerson(people, functions);
      return found && [found.person.title, found.rank];
    };
    expect(find({ department: 'production', levels: ['head'] })).toEqual(['Head of production', 0]);
    expect(find({ title: ['works'] })).toEqual(['Works manager', 0]);
    expect(find({ department: 'sales' }, { levels: ['owner'] })).toEqual(['Owner', 1]);
    expect(find({ department: 'sales' })).toBeNull();
  });
  test('earlier posts are read as they were written', () => {
    expect(readCareer('Buyer, Kostava Okna, 2014-2019; Clerk, 2012; Odd one')).toEqual([
      { title: 'Buyer', company: 'Kostava Okna', from: 2014, to: 2019 },
      { title: 'Clerk', company: null, from: 2012, to: 2012 },
      { title: 'Odd one', company: null, from: null, to: null },
    ]);
  });
});

describe('working hours', () => {
  const hours: Hours = { from: 8, to: 17, days: [1, 2, 3, 4, 5] };
  test('are by the clock of the country, in winter and in summer', () => {
    expect(localTime('CZ', Date.UTC(2026, 0, 5, 7))).toEqual({ weekday: 1, hour: 8 });
    expect(localTime('CZ', Date.UTC(2026, 6, 6, 7))).toEqual({ weekday: 1, hour: 9 });
    expect(localTime('US', Date.UTC(2026, 0, 5, 7))).toEqual({ weekday: 1, hour: 2 });
    expect(localTime(null, Date.UTC(2026, 0, 4, 7))).toEqual({ weekday: 7, hour: 7 });
  });
  test('begin again on Monday', () => {
    const friday = Date.UTC(2026, 10, 27, 17);
    expect(new Date(nextWorkingTime('CZ', friday, hours)!).toISOString()).toBe('2026-11-30T07:00:00.000Z');
    expect(nextWorkingTime('CZ', friday, { ...hours, days: [] })).toBeNull();
  });
  test('the next is one, and none before it is', () => {
    const country = fc.constantFrom('CZ', 'GB', 'US', 'NZ', null);
    fc.assert(
      fc.property(country, fc.integer({ min: 1.7e12, max: 1.9e12 }), (of, at) => {
        const next = nextWorkingTime(of, at, hours)!;
        expect(isWorkingTime(of, next, hours)).toBe(true);
        if (next > at) expect(isWorkingTime(of, next - 1, hours)).toBe(false);
      }),
      { numRuns: 60 },
    );
  });
});
