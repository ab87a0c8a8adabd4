import { emptyTape, type Tape } from './nodes.ts';

/** Companies that a tape names one by one at most; more are put on a list. */
export const MOST_NAMED = 10_000;

/** A tape of certain records, or why there is none. @param keys null where they are more than can be named */
export function tapeNaming(
  subject: string,
  keys: readonly string[] | null,
  name?: string,
): { tape: Tape; why: null } | { tape: null; why: string } {
  if (subject !== 'companies')
    return { tape: null, why: `A tape cannot name ${subject} one by one; put them on a list.` };
  if (keys === null || keys.length > MOST_NAMED)
    return {
      tape: null,
      why: `More than ${MOST_NAMED.toLocaleString('en-GB')} companies are too many to name one by one; put them on a list.`,
    };
  const lines = keys.length ? [{ id: 'l1', field: 'company', test: { any: [...keys] } }] : [];
  return { tape: { ...emptyTape(), ...(name === undefined ? {} : { name }), lines }, why: null };
}
