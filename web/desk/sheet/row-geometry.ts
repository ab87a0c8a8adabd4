/**
 * Browsers stop at an element about 33 million pixels high, which a million rows would pass. Up to
 * this height a row of the scroll range is a row of the sheet; beyond it the range is a scaled
 * picture of the sheet, and only the rows in view are laid out, from the top of the view.
 */
export const TALLEST = 15_000_000;

/** Rows drawn beyond those in view, on either side. */
const OVERSCAN = 6;

/** A scrolled box of which a head above the rows and a foot below them always stay in view. */
export interface Box {
  scrollTop: number;
  /** Of the box inside its borders, head and foot included. */
  height: number;
  head: number;
  foot: number;
}

export interface RowGeometry {
  /** Height of the scrolled rows in pixels. */
  height: number;
  /** First row to draw and how many. */
  first: number;
  count: number;
  /** Where the first row drawn stands, in pixels from the top of the rows. */
  top: number;
  /** First and last row of which at least half is in view; none where there are no rows. */
  shown: { from: number; to: number };
  /** Where to scroll so that a row stands whole between head and foot; null where it does. */
  scrollTopFor(row: number): number | null;
}

/** Where the rows of a list stand in a box. Sizes are in pixels; `rowHeight` is above 0. */
export function rowGeometry({ scrollTop, ...box }: Box, total: number, rowHeight: number): RowGeometry {
  const view = Math.max(0, box.height - box.head - box.foot);
  const natural = total * rowHeight;
  const height = Math.min(natural, TALLEST);
  const scale = natural > TALLEST ? (natural - view) / (TALLEST - view) : 1;
  /** Rows above the top of the view, and from there on to its end, as fractions. */
  const above = Math.max(0, Math.min(scrollTop * scale, Math.max(0, natural - view))) / rowHeight;
  const inView = view / rowHeight;
  /** The first row of which half is below the head. */
  const half = Math.max(0, Math.ceil(above - 0.5));
  const first = Math.max(0, Math.min(total, Math.floor(above)) - OVERSCAN);
  const last = Math.min(total - 1, Math.ceil(above + inView) - 1 + OVERSCAN);
  return {
    height,
    first,
    count: Math.max(0, last - first + 1),
    top: scale === 1 ? first * rowHeight : scrollTop - (above - first) * rowHeight,
    shown: {
      from: Math.min(Math.max(0, total - 1), half),
      to: Math.min(total - 1, Math.max(half, Math.floor(above + inView - 0.5))),
    },
    scrollTopFor(row) {
      if (row < above) return (row * rowHeight) / scale;
      if (row + 1 > above + inView) return Math.max(0, (row + 1) * rowHeight - view) / scale;
      return null;
    },
  };
}

/** Widest that a name is made where there is room. */
const WIDEST_NAME = 420;

/**
 * Widths of columns in a box: as chosen, but that names, which stand first and are cut off soonest, take half of the room that
 * is left over.
 */
export function columnWidths(
  columns: readonly { id: string; width: number }[],
  chosen: Readonly<Record<string, number>>,
  room: number,
): number[] {
  const widths = columns.map(({ id, width }) => chosen[id] ?? width);
  const left = room - widths.reduce((sum, px) => sum + px, 0);
  return columns.map(({ id }, i) =>
    id === 'name' && chosen[id] === undefined && left > 0
      ? Math.round(Math.max(widths[i]!, Math.min(WIDEST_NAME, widths[i]! + left / 2)))
      : widths[i]!,
  );
}
