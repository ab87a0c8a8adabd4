import { expect, test } from '@jest/globals';
import { MOST_NAMED, tapeNaming } from './naming.ts';
import { isLive } from './nodes.ts';

test('names companies one by one, in a tape of a name', () => {
  const { tape } = tapeNaming('companies', ['CZ-1', 'DE-2'], 'Targets: joined');
  expect(tape).toMatchObject({ name: 'Targets: joined', subject: 'companies' });
  expect(tape!.lines).toEqual([{ id: 'l1', field: 'company', test: { any: ['CZ-1', 'DE-2'] } }]);
  expect(tape!.lines.every(isLive)).toBe(true);
});

test('says what to do where it cannot', () => {
  expect(tapeNaming('people', ['person-1']).why).toBe(
    'A tape cannot name people one by one; put them on a list.',
  );
  const many = Array.from({ length: MOST_NAMED + 1 }, (_, i) => `CZ-${i}`);
  for (const keys of [null, many]) {
    expect(tapeNaming('companies', keys).tape).toBeNull();
    expect(tapeNaming('companies', keys).why).toContain('More than 10,000 companies');
  }
  expect(tapeNaming('companies', many.slice(1)).why).toBeNull();
});

test('of nobody keeps no line that would keep all', () => {
  expect(tapeNaming('companies', []).tape!.lines).toEqual([]);
});
