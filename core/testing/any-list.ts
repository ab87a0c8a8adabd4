import fc from 'fast-check';
import { VERDICTS } from '../tape/nodes.ts';
import { HALLS, OUT_REASONS, TAGS } from './any-record.ts';

const some = (values: readonly string[]) => fc.subarray([...values], { minLength: 1 });

const limit = fc.integer({ min: -8, max: 80 }).map((whole) => whole / 4);

/** What is asked of the files that put members on lists: headings that all have, some have and none has. */
const carriedTest = fc.oneof(
  fc.record({ column: fc.constantFrom('Hall', 'Remark'), any: some(HALLS) }),
  fc.record({ column: fc.constantFrom('Visits', 'Unheard of'), from: limit }),
  fc.record({ column: fc.constant('Visits'), to: limit }),
  fc
    .tuple(limit, limit)
    .map(([one, other]) => ({ column: 'Visits', from: Math.min(one, other), to: Math.max(one, other) })),
  fc.record({ column: fc.constant('Remark'), words: fc.constantFrom('late', 'pays late', 'žádné') }),
);

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
      carried: carriedTest,
      step: fc.constantFrom('origin-1', 'origin-12', 'origin-2', 'again-1', 'again-12', 'taken-1', 'taken-2'),
    },
    { requiredKeys: [] },
  ),
);
