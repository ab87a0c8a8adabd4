import { ExternalLink } from 'lucide-react';
import type { RefObject } from 'react';
import type { Row } from '../../core/cells.ts';
import { useFormat } from '../app/format.ts';

/** The website of a company as a link, with how it answered when it was last tried, and on which day. */
export function WebAddress({
  cells,
  link,
}: {
  cells: Row['cells'];
  link: RefObject<HTMLAnchorElement | null>;
}) {
  const format = useFormat();
  const text = (id: string) => (cells[id] ?? null) as string | null;
  const [web, state, movedTo, on] = [
    text('web'),
    text('site-state'),
    text('site-moved-to'),
    text('site-checked'),
  ];
  if (!web) return <span className="text-soft italic">none known</span>;
  const day = on === null ? '' : ` on ${format.date(on)}`;
  return (
    <>
      <Outside to={web} link={link} dead={state === 'dead'} />
      {state === 'works' && <span className="block text-[12px] text-soft">answered{day}</span>}
      {state === 'dead' && <strong className="block text-[12px] text-cut">did not answer{day}</strong>}
      {state === 'parked' && (
        <strong className="block text-[12px] text-cut">only waits for a buyer, as seen{day}</strong>
      )}
      {state === 'moved' && (
        <span className="block text-[12px] text-unsure">
          leads to {movedTo ? <Outside to={movedTo} /> : 'another address'}
          {day && `, as seen${day}`}
        </span>
      )}
    </>
  );
}

function Outside({
  to,
  link,
  dead = false,
}: {
  to: string;
  link?: RefObject<HTMLAnchorElement | null>;
  dead?: boolean;
}) {
  return (
    <a
      ref={link}
      href={`https://${to}`}
      target="_blank"
      rel="noopener noreferrer"
      className={`underline underline-offset-4 hover:decoration-ink ${dead ? 'decoration-cut decoration-dashed' : 'decoration-rule'}`}
    >
      {to} <ExternalLink size={12} className="inline" />
    </a>
  );
}
