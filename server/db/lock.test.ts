import { afterAll, expect, test } from '@jest/globals';
import { existsSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { isOutOfSpace, isReadOnly, TroubleAtStart, troubleWith } from '../start-trouble.ts';
import { lockFolder } from './lock.ts';

const dir = mkdtempSync(join(tmpdir(), 'just-tally-lock-'));
afterAll(() => rmSync(dir, { recursive: true }));

test('a folder is held by one; the next is told by whom, and has it once it is let go', () => {
  const first = lockFolder(dir);
  expect(() => lockFolder(dir)).toThrow(TroubleAtStart);
  expect(() => lockFolder(dir)).toThrow(
    new RegExp(
      `in use by another Just Tally \\(process ${process.pid}, since \\d{4}-\\d\\d-\\d\\d \\d\\d:\\d\\d UTC\\)`,
    ),
  );
  first.release();
  expect(existsSync(join(dir, 'lock.json'))).toBe(false);
  const second = lockFolder(dir);
  // Who holds it may not be known; that it is held is.
  writeFileSync(join(dir, 'lock.json'), 'torn');
  expect(() => lockFolder(dir)).toThrow(/in use by another Just Tally\. /);
  second.release();
});

test('what keeps it from starting is said in a sentence that says what to do', () => {
  const says = (code: string) => troubleWith('/data', Object.assign(new Error('insides'), { code }));
  for (const [code, words] of [
    ['SQLITE_FULL', /no space left .*Free some/],
    ['EACCES', /read-only for this user\. Change its rights/],
    ['SQLITE_NOTADB', /damaged or none of ours\. Bring the folder back/],
    ['ENOTDIR', /cannot be used as a folder of data/],
  ] as const) {
    expect(says(code)).toMatch(words);
    expect(says(code)).toMatch(/\/data/);
    expect(says(code)).not.toMatch(/insides/);
  }
  expect(says('ODD')).toBe('insides');
  expect([
    isOutOfSpace({ code: 'ENOSPC' }),
    isOutOfSpace(new Error('x')),
    isReadOnly({ code: 'EROFS' }),
  ]).toEqual([...[true, false, true]]);
});
