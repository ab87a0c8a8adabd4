import { Pass } from '../codes/tree.ts';
import { addBits, dropBits, keepBits, noBits, notBits } from './bits.ts';
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
  const coarse = unknown.slice();
  keepBits(coarse, mainOnly ? column.hasMain : column.coded);
  return { yes, unknown, coarse };
}

/**
 * The same, with the codes of other schemes deciding for records that those of the asked scheme leave
 * unknown. `columns` and `passes` of the other schemes go together.
 */
export function testWithKin(
  own: Verdict,
  columns: readonly CodesColumn[],
  passes: readonly Uint8Array[],
  mainOnly: boolean,
  size: number,
): Verdict {
  const verdicts = columns.map((column, i) => testCodes(column, passes[i]!, mainOnly, size));
  if (verdicts.length === 0) return own;
  const coded = noBits(size);
  for (const column of columns) addBits(coded, mainOnly ? column.hasMain : column.coded);
  const kin = noBits(size);
  const undecided = notBits(coded, size);
  verdicts.forEach((verdict, i) => {
    addBits(kin, verdict.yes);
    // Records that have no code in this scheme are not held back by it.
    const coarse = verdict.unknown.slice();
    keepBits(coarse, mainOnly ? columns[i]!.hasMain : columns[i]!.coded);
    addBits(undecided, coarse);
  });
  keepBits(kin, own.unknown);
  const yes = own.yes.slice();
  addBits(yes, kin);
  const unknown = own.unknown.slice();
  keepBits(unknown, undecided);
  dropBits(unknown, kin);
  const coarse = own.coarse!.slice();
  keepBits(coarse, unknown);
  return { yes, unknown, coarse, kin };
}
