import { useEffect, useState, type RefObject } from 'react';
import { rowGeometry, type Box, type RowGeometry } from './row-geometry.ts';

export interface RowWindow extends RowGeometry {
  /** Width of the box inside its borders. */
  width: number;
  scrollTo(row: number): void;
}

/** The rows of a list of fixed row height that are in view of a scrolling box; head and foot are marked in it by `data-head` and `data-foot`. */
export function useRowWindow(
  box: RefObject<HTMLElement | null>,
  total: number,
  rowHeight: number,
): RowWindow {
  const [view, setView] = useState<Box & { width: number }>({
    scrollTop: 0,
    height: 600,
    head: 0,
    foot: 0,
    width: 0,
  });
  useEffect(() => {
    const element = box.current;
    if (!element) return;
    const read = () => setView(boxOf(element));
    read();
    element.addEventListener('scroll', read, { passive: true });
    const observer = new ResizeObserver(read);
    observer.observe(element);
    return () => {
      element.removeEventListener('scroll', read);
      observer.disconnect();
    };
    // The foot comes and goes with the rows.
  }, [box, total > 0]); // eslint-disable-line react-hooks/exhaustive-deps
  return {
    ...rowGeometry(view, total, rowHeight),
    width: view.width,
    scrollTo(row) {
      const element = box.current;
      // As it stands now: keys come faster than the view is read.
      const top = element && rowGeometry(boxOf(element), total, rowHeight).scrollTopFor(row);
      if (top !== null) element?.scrollTo({ top });
    },
  };
}

function boxOf(element: HTMLElement): Box & { width: number } {
  const heightOf = (part: string) => element.querySelector<HTMLElement>(part)?.offsetHeight ?? 0;
  return {
    scrollTop: element.scrollTop,
    height: element.clientHeight,
    width: element.clientWidth,
    head: heightOf('[data-head]'),
    foot: heightOf('[data-foot]'),
  };
}
