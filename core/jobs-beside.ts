/** Kinds of jobs that leave the universe alone for the most part, so that loads run beside them. */
export const JOBS_BESIDE: ReadonlySet<string> = new Set(['export', 'read', 'match', 'check', 'websites']);
