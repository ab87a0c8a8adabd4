import { Pass } from '../codes/tree.ts';
import { noBits } from './bits.ts';
import type { CodesColumn } from './columns.ts';
import type { Verdict } from './verdict.ts';

/**
 * Yes if any recorded code passes, unknown if none passes and one is too coarse to tell, or if no
 * code is recorded in this scheme. `pass` says what each node of the scheme means for the test.
 */
export function testCodes(column: CodesColumn, pass: Uint8Array, mainOnly: boolean, size: number): Verdict {
  const { offsets, nodes, hasMain } = column;
  const yes = noBits(size);
  const unknown = noBits(size);
  for (let r = 0; r < size; r++) {
    const start = offsets[r]!;
    let end = offsets[r + 1]!;
    if (mainOnly) end = (hasMain[r >> 5]! >>> (r & 31)) & 1 ? start + 1 : start;
    let best: number = start === end ? Pass.Unknown : Pass.No;
    for (let i = start; i < end; i++) {
      const state = pass[nodes[i]!]!;
      if (state === Pass.Yes) {
        best = Pass.Yes;
        break;
      }
      if (state === Pass.Unknown) best = Pass.Unknown;
    }
    if (best === Pass.Yes) yes[r >> 5]! |= 1 << (r & 31);
    else if (best === Pass.Unknown) unknown[r >> 5]! |= 1 << (r & 31);
  }
  return { yes, unknown };
}
