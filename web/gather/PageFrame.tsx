import { useEffect, useRef, useState } from 'react';
import type { Mark } from './teaching.ts';

export interface Pointed {
  node: number;
  /** The part of its words that was marked; null where all of it is meant. */
  part: string | null;
}

type Said =
  | { from: 'gather-page'; kind: 'ready' }
  | ({ from: 'gather-page'; kind: 'point' } & Pointed)
  | ({ from: 'gather-page'; kind: 'key' } & Pick<KeyboardEvent, 'key' | 'ctrlKey' | 'metaKey' | 'shiftKey'>);

/** A page as it came, in a frame that has an origin of its own: nothing of it runs, and what is pointed at is told by messages. */
export function PageFrame({
  page,
  marks,
  show,
  onPoint,
}: {
  page: number;
  marks: readonly Mark[];
  /** Number of what is brought into view. */
  show: number | null;
  onPoint(pointed: Pointed): void;
}) {
  const frame = useRef<HTMLIFrameElement>(null);
  const [ready, setReady] = useState<number | null>(null);
  const latest = useRef(onPoint);
  useEffect(() => {
    latest.current = onPoint;
  });
  useEffect(() => {
    const take = (event: MessageEvent<Said>) => {
      if (event.source !== frame.current?.contentWindow || event.data?.from !== 'gather-page') return;
      if (event.data.kind === 'ready') setReady(page);
      // Keys that are pressed in the frame mean what they mean around it.
      else if (event.data.kind === 'key')
        document.body.dispatchEvent(new KeyboardEvent('keydown', { ...event.data, bubbles: true }));
      else latest.current({ node: event.data.node, part: event.data.part });
    };
    window.addEventListener('message', take);
    return () => window.removeEventListener('message', take);
  }, [page]);
  useEffect(() => {
    if (ready === page) frame.current?.contentWindow?.postMessage({ to: 'gather-page', marks }, '*');
  }, [ready, page, marks]);
  useEffect(() => {
    if (ready === page && show !== null)
      frame.current?.contentWindow?.postMessage({ to: 'gather-page', show }, '*');
  }, [ready, page, show]);
  return (
    <iframe
      ref={frame}
      key={page}
      title="The page as it came; arrows go from value to value, Enter points at one"
      src={`/api/gather/pages/${page}/view`}
      sandbox="allow-scripts"
      className="min-h-0 w-full flex-1 bg-white"
    />
  );
}
