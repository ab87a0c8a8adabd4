/** What comes of calling a member of a list. It is a tag of the member, so that lines, columns and exports have it. */
export const CALL_OUTCOMES = [
  'reached',
  'no answer',
  'call back',
  'wrong number',
  'not interested',
  'meeting agreed',
] as const;
export type CallOutcome = (typeof CALL_OUTCOMES)[number];

/** The outcome among the tags of a member; null where it was not called. Of several the first counts. */
export function outcomeOf(tags: readonly string[]): CallOutcome | null {
  return CALL_OUTCOMES.find((outcome) => tags.includes(outcome)) ?? null;
}

/** What is to be done to the tags of a member, whichever it has, so that it has one outcome alone, or none. */
export function tagsFor(outcome: CallOutcome | null): { tag?: string[]; untag: string[] } {
  return {
    ...(outcome === null ? {} : { tag: [outcome] }),
    untag: CALL_OUTCOMES.filter((one) => one !== outcome),
  };
}
