import type { ErrorAnswer } from '../../contract/responses.ts';

/** An answer, as far as a test looks into it. */
export interface Answered<T> {
  status: number;
  body: T;
}
/** What is wrong, as the API says it. */
export type Wrong = Pick<ErrorAnswer, 'error'>;

/** A plan of which nothing is told. */
export const UNTOLD = { success: false, failure: false, changes: null, rate: 'never', ways: [] } as const;
