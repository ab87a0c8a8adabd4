import { Pass } from '../codes/tree.ts';
import { dropBits, noBits, notBits } from './bits.ts';
import type { CodesColumn } from './columns.ts';
import { addPostings } from './postings.ts';
import type { Verdict } from './verdict.ts';

/**
 * Yes if any recorded code passes, unknown if none passes and one is too coarse to tell, or if no
 * code is recorded in this scheme. `pass` says what each node of the scheme means for the test.
 */
export function testCodes(column: CodesColumn, pass: Uint8Array, mainOnly: boolean, size: number): Verdict {
  const yes = noBits(size);
  const unknown = notBits(mainOnly ? column.hasMain : column.coded, size);
  const postings = mainOnly ? column.mainPostings : column.postings;
  for (let node = 0; node < pass.length; node++) {
    if (pass[node] === Pass.No) continue;
    addPostings(pass[node] === Pass.Yes ? yes : unknown, postings, node);
  }
  dropBits(unknown, yes);
  return { yes, unknown };
}
