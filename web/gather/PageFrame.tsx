import { useEffect, useRef, useState } from 'react';
import type { Done } from '../../core/gather/forms.ts';
import type { Mark } from './teaching.ts';

export interface Pointed {
  node: number;
  /** The part of its words that was marked; null where all of it is meant. */
  part: string | null;
}

type Said =
  | { from: 'gather-page'; kind: 'ready' }
  | ({ from: 'gather-page'; kind: 'point' } & Pointed)
  | ({ from: 'gather-page'; kind: 'did' } & Done)
  | ({ from: 'gather-page'; kind: 'key' } & Pick<KeyboardEvent, 'key' | 'ctrlKey' | 'metaKey' | 'shiftKey'>);

/** A page as it came, in a frame that has an origin of its own: nothing of it runs, and what is pointed at is told by messages. */
export function PageFrame({
  page,
  marks,
  show,
  stepping,
  onPoint,
  onDid,
}: {
  page: number;
  marks: readonly Mark[];
  /** Number of what is brought into view. */
  show: number | null;
  /** Whether its boxes are filled to record what is done, rather than anything be pointed at. */
  stepping: boolean;
  onPoint(pointed: Pointed): void;
  onDid(done: Done): void;
}) {
  const frame = useRef<HTMLIFrameElement>(null);
  const [ready, setReady] = useState<number | null>(null);
  const latest = useRef({ onPoint, onDid });
  useEffect(() => {
    latest.current = { onPoint, onDid };
  });
  useEffect(() => {
    const take = (event: MessageEvent<Said>) => {
      if (event.source !== frame.current?.contentWindow || event.data?.from !== 'gather-page') return;
      if (event.data.kind === 'ready') setReady(page);
      else if (event.data.kind === 'did') latest.current.onDid(event.data);
      // Keys that are pressed in the frame mean what they mean around it.
      else if (event.data.kind === 'key')
        document.body.dispatchEvent(new KeyboardEvent('keydown', { ...event.data, bubbles: true }));
      else latest.current.onPoint({ node: event.data.node, part: event.data.part });
    };
    window.addEventListener('message', take);
    return () => window.removeEventListener('message', take);
  }, [page]);
  useEffect(() => {
    if (ready === page)
      frame.current?.contentWindow?.postMessage({ to: 'gather-page', marks, stepping }, '*');
  }, [ready, page, marks, stepping]);
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
