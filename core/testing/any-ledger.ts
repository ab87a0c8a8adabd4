import fc from 'fast-check';
import type { CategoryTest } from '../tape/nodes.ts';
import { RECEIVERS, TAPES } from './any-record.ts';

/** Whom a company was handed over to, which tapes it joined and what of it changed, each with a day. */
export const ledgerTests: fc.Arbitrary<{ field: string; test: CategoryTest }> = fc
  .tuple(
    fc.constantFrom(
      ['handed-over', RECEIVERS],
      ['joined', TAPES],
      ['changed', ['headcount', 'place', 'name']],
    ) as fc.Arbitrary<[string, string[]]>,
    fc.boolean(),
    fc.boolean(),
    fc.constantFrom(undefined, '30 days', '3 months', '2026-09-01'),
  )
  .map(([[field, keys], one, all, seen]) => {
    const asked = one ? keys.slice(0, 1) : keys;
    return { field, test: { [all ? 'all' : 'any']: asked, ...(seen ? { seen } : {}) } };
  });
