import { parseSpan, spanStart } from '../../dates.ts';
import { readStep } from '../../lists/steps.ts';
import { saysAnything, saysAsked } from '../carried.ts';
import type { ListTest } from '../nodes.ts';
import { filled, joined, listed, sql, type Sql } from './statement.ts';

const MS_A_DAY = 86_400_000;

/** Members with those taken off, since a step of the roll has both. */
const EVER = `(SELECT list, key, origins, added_at, verdict, reason, assigned, judged_at, 0 AS taken FROM list_member
  UNION ALL SELECT list, key, origins, added_at, verdict, reason, assigned, judged_at, taken FROM list_taken_member)`;

/** A statement of the keys of those members of lists that meet all that a test asks. Keys may come more than once. */
export function listMembers(test: ListTest, asOf: number): Sql {
  return membersWhere(test, asOf, test.carried ? [saysAsked(test.carried)] : []);
}

/**
 * A statement of the keys of those members that would meet a test if their file said the right thing, but of whom no file says
 * anything; null where the test asks nothing of files.
 */
export function unsureMembers(test: ListTest, asOf: number): Sql | null {
  return test.carried ? membersWhere(test, asOf, [filled('NOT @', saysAnything(test.carried))]) : null;
}

function membersWhere(test: ListTest, asOf: number, carried: readonly Sql[]): Sql {
  const since = (span: string) => spanStart(asOf, parseSpan(span)!) * MS_A_DAY;
  const parts = [filled('m.list IN (@)', listed(test.any)), ...carried];
  if (test.verdict) parts.push(filled('m.verdict IN (@)', listed(test.verdict)));
  if (test.reason) parts.push(filled('m.reason IN (@)', listed(test.reason)));
  if (test.assigned) parts.push(filled('m.assigned IN (@)', listed(test.assigned)));
  if (test.tag)
    parts.push(
      filled(
        'EXISTS (SELECT 1 FROM list_tag t WHERE t.list = m.list AND t.key = m.key AND t.tag IN (@))',
        listed(test.tag),
      ),
    );
  if (test.added) parts.push(sql('m.added_at >= ?', since(test.added)));
  if (test.judged) parts.push(sql('m.judged_at >= ?', since(test.judged)));
  if (test.step) parts.push(stepped(test.step));
  return filled(`SELECT m.key FROM ${test.step ? EVER : 'list_member'} m WHERE @`, joined(parts, ' AND '));
}

function stepped(step: string): Sql {
  const { kind, id } = readStep(step);
  if (kind === 'taken') return sql('m.taken = ?', id);
  const named = sql(`' ' || m.origins || ' ' LIKE ?`, `% ${id} %`);
  return kind === 'origin' ? named : filled('@ AND @', named, sql(`m.origins || ' ' NOT LIKE ?`, `${id} %`));
}
