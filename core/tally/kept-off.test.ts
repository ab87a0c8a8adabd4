import { expect, test } from '@jest/globals';
import { noBits, recordsOf, setBit } from './bits.ts';
import { hangingOnSome, withGroups } from './kept-off.ts';

const bits = (size: number, ...records: number[]) => {
  const some = noBits(size);
  for (const record of records) setBit(some, record);
  return some;
};
const listed = (some: ReturnType<typeof noBits> | null) => some && [...recordsOf(some)];

test('a group is kept off whole, and who has none stays alone', () => {
  // Groups 1 and 2; 0 is none.
  const groups = Uint8Array.from([1, 0, 1, 2, 0, 2]);
  expect(listed(withGroups(bits(6, 0, 1), groups))).toEqual([0, 1, 2]);
  expect(listed(withGroups(bits(6, 1), groups))).toEqual([1]);
  expect(listed(withGroups(noBits(6), groups))).toEqual([]);
});

test('what hangs on one of some companies is kept off with them, be it on others too', () => {
  const people = { starts: null, companies: Int32Array.from([0, 2, -1, 2, 1]) };
  expect(listed(hangingOnSome(people, bits(3, 2)))).toEqual([1, 3]);
  const deals = { starts: Uint32Array.from([0, 2, 3]), companies: Int32Array.from([0, 1, 2]) };
  expect(listed(hangingOnSome(deals, bits(3, 1)))).toEqual([0]);
  expect(listed(hangingOnSome(deals, bits(3, 2)))).toEqual([1]);
  expect(listed(hangingOnSome(deals, noBits(3)))).toEqual([]);
});
