import type { CSSProperties } from 'react';

/** Width of the column of boxes, which always stays. */
export const PICK_WIDTH = 34;

/** Where a column that stays in view stands from the left; nothing for the others. */
export function frozenStyle(
  at: number,
  frozen: number,
  widths: readonly number[],
): CSSProperties | undefined {
  if (at >= frozen) return undefined;
  return { left: PICK_WIDTH + widths.slice(0, at).reduce((sum, width) => sum + width, 0) };
}
