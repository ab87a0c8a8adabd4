import { join } from 'node:path';
import type { CellProblem } from '../../core/records/column-reader.ts';

/** One cell that a load could not read, with its row in the file (the header being row 1). */
export interface Refusal extends CellProblem {
  row: number;
}

/** Where the refused rows of a load are kept as CSV. */
export function refusalsPath(dir: string, job: string): string {
  return join(dir, 'refusals', `${job}.csv`);
}
