import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { anyRecord } from '../testing/any-record.ts';
import { Coverage, FRESH_DAYS, together } from './coverage.ts';
import { PART_LABELS } from './part-labels.ts';

const AT = (label: string) => PART_LABELS.findIndex((one) => one.label === label);

test('what sources know is counted by source and country, and sums to what all of them know', () => {
  fc.assert(
    fc.property(fc.array(fc.tuple(fc.constantFrom('a', 'b'), anyRecord), { maxLength: 12 }), (records) => {
      const coverage = new Coverage(20_700);
      for (const [source, record] of records) coverage.add(source, 20_000, record);
      const cells = coverage.result();
      const all = together(cells);
      expect(all?.records ?? 0).toBe(records.length);
      if (!all) return;
      const count = (of: (record: (typeof records)[number][1]) => boolean) =>
        records.filter(([, record]) => of(record)).length;
      expect(all.known[AT('Name')]).toBe(records.length);
      expect(all.known[AT('Status')]).toBe(count(({ status }) => status !== null));
      expect(all.known[AT('Codes')]).toBe(count(({ codes }) => codes.length > 0));
      // None seen is known where somebody looked.
      expect(all.known[AT('Technology')]).toBe(count(({ surveyedOn }) => surveyedOn !== null));
      for (const cell of cells) {
        const own = records.filter(
          ([source, { country }]) => source === cell.source && (country ?? '') === cell.country,
        );
        expect(cell.records).toBe(own.length);
        expect(cell.fresh).toEqual(
          FRESH_DAYS.map(
            (days) => own.filter(([, { checkedOn }]) => 20_700 - (checkedOn ?? 20_000) <= days).length,
          ),
        );
      }
    }),
  );
});
test('nothing together is nothing', () => expect(together([])).toBeNull());
