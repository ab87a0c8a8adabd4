import { afterAll, expect, test } from '@jest/globals';
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { openArrays, saveArrays } from './stored-arrays.ts';

const dir = mkdtempSync(join(tmpdir(), 'just-tally-arrays-'));
afterAll(() => rmSync(dir, { recursive: true }));
const path = join(dir, 'some.arrays');
const same = Float64Array.of(1.5, -0, Number.NaN);
const whole = {
  stamp: 'one',
  revision: 7,
  none: null,
  endless: [Infinity, -Infinity],
  columns: new Map<string, object>([
    ['bytes', { values: Uint8Array.of(1, 2, 3), of: same }],
    ['empty', { values: new Uint32Array(0), of: same }],
  ]),
};

test('what is saved is opened as it was, in one block, arrays that are one stay one', () => {
  saveArrays(path, 3, whole);
  const opened = openArrays(path, 3) as typeof whole;
  expect(opened).toEqual(whole);
  const [bytes, empty] = [...opened.columns.values()] as { values: Uint8Array; of: Float64Array }[];
  expect(bytes!.of).toBe(empty!.of);
  expect(bytes!.values.buffer).toBe(bytes!.of.buffer);
  expect(bytes!.values.buffer).toBeInstanceOf(SharedArrayBuffer);
  expect(readdirSync(dir)).toEqual(['some.arrays']);
});

test('a file of another version, one that is damaged anywhere, cut or not there is none', () => {
  saveArrays(path, 3, whole);
  expect(openArrays(path, 4)).toBeNull();
  expect(openArrays(join(dir, 'other.arrays'), 3)).toBeNull();
  const bytes = readFileSync(path);
  for (const at of [0, 5, 9, 20, bytes.length - 9]) {
    const damaged = Buffer.from(bytes);
    damaged[at]! ^= 4;
    writeFileSync(path, damaged);
    expect(openArrays(path, 3)).toBeNull();
  }
  writeFileSync(path, bytes.subarray(0, bytes.length - 8));
  expect(openArrays(path, 3)).toBeNull();
  writeFileSync(path, '');
  expect(openArrays(path, 3)).toBeNull();
});
