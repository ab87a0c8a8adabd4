/** A canvas that says what was drawn on it, since jsdom has none. For tests only. */

/** What was drawn, in its order: "arc 10 20 4.5", "text Brno". */
export interface Drawn {
  drawn: string[];
  /** Whether a point lies within the shape that was asked about last. */
  within: boolean;
}

/** Gives all canvases a size and something to draw on. */
export function drawnCanvas(width = 800, height = 500): Drawn {
  const drawn: Drawn = { drawn: [], within: false };
  const size = { clientWidth: width, clientHeight: height };
  for (const [side, value] of Object.entries(size))
    Object.defineProperty(HTMLElement.prototype, side, { configurable: true, get: () => value });
  const note =
    (what: string) =>
    (...values: unknown[]) =>
      drawn.drawn.push(
        [what, ...values.map((one) => (typeof one === 'number' ? Math.round(one) : one))].join(' '),
      );
  const context = new Proxy<Record<string, unknown>>(
    {
      arc: note('arc'),
      fillText: (text: string) => drawn.drawn.push(`text ${text}`),
      measureText: (text: string) => ({ width: text.length * 6 }),
      isPointInPath: () => drawn.within,
    },
    { get: (own, name: string) => own[name] ?? (() => undefined), set: () => true },
  );
  HTMLCanvasElement.prototype.getContext = (() => context) as unknown as HTMLCanvasElement['getContext'];
  HTMLCanvasElement.prototype.setPointerCapture = () => undefined;
  // Presses have a place on it.
  window.PointerEvent = window.MouseEvent as unknown as typeof PointerEvent;
  globalThis.Path2D ??= class {} as typeof Path2D;
  return drawn;
}

/** The next frame, in which a canvas is drawn that was asked to. */
export const frame = () => new Promise((resolve) => requestAnimationFrame(resolve));
