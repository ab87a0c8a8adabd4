import { useEffect, useState, type RefObject } from 'react';

/**
 * Browsers stop at an element about 33 million pixels high, which a million rows would pass. Up to
 * this height a row of the scroll range is a row of the sheet; beyond it the range is a scaled
 * picture of the sheet, and only the rows in view are laid out, from the top of the view.
 */
const TALLEST = 15_000_000;

export interface RowWindow {
  /** Height of the scrolled element in pixels. */
  height: number;
  /** First row to draw and how many. */
  first: number;
  count: number;
  /** Where the first row stands, in pixels from the top. */
  top: number;
  /** First and last row in view. */
  shown: { from: number; to: number };
  scrollTo(row: number): void;
}

const OVERSCAN = 6;

/** The rows of a list of fixed row height that are in view of a scrolling box. */
export function useRowWindow(
  box: RefObject<HTMLElement | null>,
  total: number,
  rowHeight: number,
): RowWindow {
  const [view, setView] = useState({ top: 0, height: 600 });
  useEffect(() => {
    const element = box.current;
    if (!element) return;
    const read = () => setView({ top: element.scrollTop, height: element.clientHeight });
    read();
    element.addEventListener('scroll', read, { passive: true });
    const observer = new ResizeObserver(read);
    observer.observe(element);
    return () => {
      element.removeEventListener('scroll', read);
      observer.disconnect();
    };
  }, [box]);

  const natural = total * rowHeight;
  const height = Math.min(natural, TALLEST);
  const inView = Math.floor(view.height / rowHeight);
  const scale = natural > TALLEST ? (natural - view.height) / (TALLEST - view.height) : 1;
  const exact = (view.top * scale) / rowHeight;
  const firstShown = Math.max(0, Math.min(Math.floor(exact), total - 1));
  const first = Math.max(0, firstShown - OVERSCAN);
  return {
    height,
    first,
    count: Math.max(0, Math.min(total - first, inView + 2 * OVERSCAN + 1)),
    top: scale === 1 ? first * rowHeight : view.top - (exact - first) * rowHeight,
    shown: {
      from: firstShown,
      to: Math.min(total - 1, Math.max(firstShown, Math.floor(exact + inView - 0.01))),
    },
    scrollTo(row) {
      const element = box.current;
      if (!element) return;
      if (row < exact) element.scrollTo({ top: (row * rowHeight) / scale });
      else if (row + 1 > exact + view.height / rowHeight)
        element.scrollTo({ top: ((row + 1) * rowHeight - view.height) / scale });
    },
  };
}
