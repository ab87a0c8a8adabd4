import { expect, test } from '@jest/globals';
import { groupEntries, type Entry, type Kind } from './jump-entries.ts';

const entry = (kind: Kind, name: string, more: Partial<Entry<string>> = {}): Entry<string> => ({
  id: `${kind} ${name}`,
  kind,
  name,
  act: name,
  ...more,
});
const shown = (entries: readonly Entry<string>[], text: string) =>
  groupEntries(entries, text).map(({ heading, entries: own }) => [heading, own.map(({ id }) => id)]);

test('exact names come first, commands before fields before lists, and what is spelled alike at last', () => {
  const entries = [
    entry('line', 'Industry 17.12 paper and paperboard', { alike: true }),
    entry('company', 'New Tape s.r.o.'),
    entry('tape', 'new tape'),
    entry('command', 'New tape'),
    entry('field', 'Listing'),
  ];
  expect(shown(entries, 'new tape')).toEqual([
    ['Called just that', ['command New tape', 'tape new tape']],
    ['Companies', ['company New Tape s.r.o.']],
    ['Conditions', ['field Listing']],
    ['Spelled alike', ['line Industry 17.12 paper and paperboard']],
  ]);
});

test('other names count as exact, whatever their accents and case', () => {
  const entries = [entry('line', 'Listing listed', { also: ['quoted'] }), entry('list', 'Žižkov')];
  expect(shown(entries, 'QUOTED')[0]).toEqual(['Called just that', ['line Listing listed']]);
  expect(shown(entries, 'zizkov')[0]).toEqual(['Called just that', ['list Žižkov']]);
});

test('tapes and lists that begin with the text stand before companies and lines', () => {
  const entries = [
    entry('line', 'Industry 28.25'),
    entry('company', 'Rivals Ltd'),
    entry('tape', 'Rivals: makers of plant'),
    entry('tape', 'Our rivals'),
  ];
  expect(shown(entries, 'rivals').map(([heading]) => heading)).toEqual([
    'Lists and tapes',
    'Companies',
    'As a line',
    'Saved tapes and parts',
  ]);
});

test('an exact name that is marked alike stays with the alike', () => {
  expect(shown([entry('line', 'x', { alike: true })], 'x')).toEqual([['Spelled alike', ['line x']]]);
});
