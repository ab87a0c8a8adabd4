import { Pass } from '../codes/tree.ts';
import { hasBit, noBits, notBits, type Bits } from './bits.ts';
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
  for (let node = 0; node < pass.length; node++) {
    if (pass[node] === Pass.No) continue;
    const holders = pass[node] === Pass.Yes ? yes : unknown;
    if (mainOnly) addMainHolders(holders, column, node);
    else addPostings(holders, column.postings, node);
  }
  for (let w = 0; w < unknown.length; w++) unknown[w]! &= ~yes[w]!;
  return { yes, unknown };
}

/** Adds the records whose main code is at a node. */
function addMainHolders(bits: Bits, column: CodesColumn, node: number): void {
  const { starts, records } = column.postings;
  for (let i = starts[node]!; i < starts[node + 1]!; i++) {
    const r = records[i]!;
    if (column.nodes[column.offsets[r]!] === node && hasBit(column.hasMain, r))
      bits[r >> 5]! |= 1 << (r & 31);
  }
}
