import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import type { CompanyWrittenAnswer, WrittenToAnswer } from '../../contract/outreach-views.ts';
import { readCareer } from '../../core/people/career.ts';
import { call } from '../api.ts';
import { useFormat } from '../app/format.ts';
import { addressOf } from '../desk/address.ts';
import { useDesk } from '../desk/store.ts';
import { writtenWords } from '../outreach/words.ts';
import { Trouble } from '../ui/controls.tsx';
import { Fact, Section } from './parts.tsx';

const OUTREACH = (
  <Link to="/outreach" className="underline">
    Outreach
  </Link>
);

/** The posts somebody held before, the latest first. */
export function Career({ earlier }: { earlier: string | null }) {
  const posts = earlier === null ? [] : readCareer(earlier);
  return (
    <Section name="Earlier posts">
      {posts.length === 0 && <p className="py-1 text-soft italic">none recorded</p>}
      <ol>
        {posts.map(({ title, company, from, to }, i) => (
          <li key={i} className="grid grid-cols-[104px_1fr] gap-3 border-b border-rule py-1">
            <span className="figure text-[13px] text-soft">
              {from === null ? 'when unknown' : from === to ? from : `${from}–${to}`}
            </span>
            <span className="min-w-0 break-words">
              {title}
              {company && <span className="block text-[13px] text-soft">{company}</span>}
            </span>
          </li>
        ))}
      </ol>
    </Section>
  );
}

/** What was written to somebody so far, and what came of it. */
export function WrittenTo({ person }: { person: string }) {
  const format = useFormat();
  const { data, error } = useQuery({
    queryKey: ['outreach', 'written', person],
    queryFn: ({ signal }) =>
      call<WrittenToAnswer>('GET', `/people/${encodeURIComponent(person)}/written`, undefined, signal),
    retry: false,
  });
  return (
    <Section name="Written to" note={OUTREACH}>
      <Trouble error={error} />
      {data?.optedOut && (
        <p className="py-1 font-semibold text-cut">Opted out: nobody of us writes to them again.</p>
      )}
      {data && data.written.length === 0 && <p className="py-1 text-soft italic">never, by nobody of us</p>}
      <ul>
        {data?.written.map((one) => (
          <li key={one.message} className="border-b border-rule py-1">
            {writtenWords(one, format.date)}
          </li>
        ))}
      </ul>
      {data?.outcome && <Fact name="Address">{data.outcome}</Fact>}
    </Section>
  );
}

/** What was written to people of a company, and what came of it; nothing where nobody was written to. */
export function WrittenToCompany({ company }: { company: string }) {
  const format = useFormat();
  const { data } = useQuery({
    queryKey: ['outreach', 'written', 'company', company],
    queryFn: ({ signal }) =>
      call<CompanyWrittenAnswer>(
        'GET',
        `/companies/${encodeURIComponent(company)}/written`,
        undefined,
        signal,
      ),
    retry: false,
  });
  if (!data?.written.length) return null;
  return (
    <Section name="Written to" note={OUTREACH}>
      <ul>
        {data.written.map((one) => (
          <li key={one.message} className="border-b border-rule py-1">
            <Link
              to={addressOf({ ...useDesk.getState(), company: `people/${one.person}`, openLine: null })}
              className="font-semibold hover:underline"
            >
              {one.name}
            </Link>{' '}
            {writtenWords(one, format.date)}
          </li>
        ))}
      </ul>
    </Section>
  );
}
