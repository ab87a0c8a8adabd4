import { expect, test } from '@jest/globals';
import { codeState, toggleCode } from './code-picks.ts';

const PARENTS: Record<string, string> = {
  '16': 'C',
  '16.2': '16',
  '16.23': '16.2',
  '16.25': '16.2',
  '25': 'C',
};
const parentOf = (code: string) => PARENTS[code] ?? null;
const toggle = (test: Parameters<typeof toggleCode>[0], code: string) =>
  toggleCode(test, 'nace-2.1', code, parentOf, undefined);

test('picking a branch takes in what was picked below it; letting go inside it makes an exception', () => {
  const leaf = toggle(null, '16.23');
  expect(leaf).toEqual({ scheme: 'nace-2.1', any: ['16.23'] });
  const branch = toggle(leaf, '16');
  expect(branch?.any).toEqual(['16']);
  const without = toggle(branch, '16.25');
  expect(without).toEqual({ scheme: 'nace-2.1', any: ['16'], except: ['16.25'] });
  expect(codeState(without, '16', parentOf, new Set(['C']))).toBe('some');
  expect(codeState(without, '16.25', parentOf, new Set())).toBe('no');
  expect(codeState(without, '16.23', parentOf, new Set())).toBe('yes');
  expect(codeState(without, 'C', parentOf, new Set(['C']))).toBe('some');
  expect(toggle(without, '16.25')).toEqual({ scheme: 'nace-2.1', any: ['16'] });
});

test('letting go of the last code leaves nothing', () => {
  expect(toggle(toggle(null, '25'), '25')).toBeNull();
});
