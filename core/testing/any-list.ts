import fc from 'fast-check';
import { VERDICTS } from '../tape/nodes.ts';
import { OUT_REASONS, TAGS } from './any-record.ts';

const some = (values: readonly string[]) => fc.subarray([...values], { minLength: 1 });

/** What is asked of members, mostly nothing or a verdict. */
export const listClauses = fc.oneof(
  fc.constant({}),
  fc.subarray([...VERDICTS], { minLength: 1 }).map((verdict) => ({ verdict })),
  fc.record(
    {
      verdict: fc.subarray([...VERDICTS], { minLength: 1 }),
      reason: some(OUT_REASONS),
      tag: some(TAGS),
      assigned: fc.constant(['Hana']),
      added: fc.constantFrom('30 days', '2 months'),
      judged: fc.constantFrom('30 days', '1 year'),
      step: fc.constantFrom('origin-1', 'origin-12', 'origin-2', 'again-1', 'again-12', 'taken-1', 'taken-2'),
    },
    { requiredKeys: [] },
  ),
);
