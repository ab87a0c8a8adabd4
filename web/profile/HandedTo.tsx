import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import type { HandedAnswer } from '../../contract/export-views.ts';
import { call } from '../api.ts';
import { useFormat } from '../app/format.ts';
import { Section } from './parts.tsx';

/** Whom a record was handed over to by exports; nothing where it never was. */
export function HandedTo({ subject, recordKey }: { subject: string; recordKey: string }) {
  const format = useFormat();
  const { data } = useQuery({
    queryKey: ['handed', subject, recordKey],
    queryFn: ({ signal }) =>
      call<HandedAnswer>('GET', `/handed/${subject}/${encodeURIComponent(recordKey)}`, undefined, signal),
  });
  if (!data?.handed.length) return null;
  return (
    <Section name="Handed over to" note="by exports, the day of the last">
      {data.handed.map(({ receiver, name, day }) => (
        <p key={receiver} className="flex justify-between gap-3 border-b border-rule py-1">
          <Link to={`/exports?find=${encodeURIComponent(name)}`} className="hover:underline">
            {name}
          </Link>
          <span className="text-soft">{format.date(day)}</span>
        </p>
      ))}
    </Section>
  );
}
