import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import type { PersonAboutAnswer } from '../../contract/people.ts';
import type { RowsAnswer } from '../../contract/responses.ts';
import { emptyTape } from '../../core/tape/nodes.ts';
import { call } from '../api.ts';
import { useFormat } from '../app/format.ts';
import { Cell } from '../desk/sheet/Cell.tsx';
import { columnOf } from '../desk/sheet/columns.ts';
import { TitleReading } from '../people/TitleReading.tsx';
import { Trouble } from '../ui/controls.tsx';
import { Fact, Section } from './parts.tsx';

/** What of a company matters to whoever writes to somebody there. */
const COMPANY_COLUMNS = ['place', 'industry', 'headcount', 'revenue', 'status', 'technology', 'web'];

/** The company of a person, as far as it matters. */
export function CompanyFacts({ company }: { company: string }) {
  const format = useFormat();
  const tape = emptyTape();
  const { data } = useQuery({
    queryKey: ['rows', 'of a person', company],
    queryFn: ({ signal }) =>
      call<RowsAnswer>(
        'POST',
        '/rows',
        { tape, columns: COMPANY_COLUMNS, keys: [company], offset: 0, limit: 1 },
        signal,
      ),
    retry: false,
  });
  const row = data?.rows[0];
  if (!row) return null;
  return (
    <>
      {COMPANY_COLUMNS.map((id) => {
        const column = columnOf(tape, id)!;
        return (
          <Fact
            key={id}
            name={column.field!.kind === 'money' ? `${column.label}, ${format.symbol}k` : column.heading}
          >
            <Cell column={column} row={row} format={format} />
          </Fact>
        );
      })}
    </>
  );
}

/** What happened to somebody, whom we know there, and how the title is read. */
export function PersonAbout({
  person,
  title,
  department,
  level,
}: {
  person: string;
  title: string | null;
  department: string | null;
  level: string | null;
}) {
  const format = useFormat();
  const { data, error } = useQuery({
    queryKey: ['people', 'about', person],
    queryFn: ({ signal }) =>
      call<PersonAboutAnswer>('GET', `/people/${encodeURIComponent(person)}/about`, undefined, signal),
    retry: false,
  });
  return (
    <>
      <Section name="What happened" note="changes of the record, and events that name them">
        <Trouble error={error} />
        {data?.happenings.length === 0 && <p className="py-1 text-soft italic">nothing recorded</p>}
        <ol>
          {data?.happenings.map(({ on, what, kind }, i) => (
            <li key={i} className="grid grid-cols-[104px_1fr] gap-3 border-b border-rule py-1">
              <span className="figure text-[13px] text-soft">{format.date(on)}</span>
              <span className="min-w-0 break-words">
                {what}
                {kind && <span className="block text-[13px] text-soft">{kind.replaceAll('-', ' ')}</span>}
              </span>
            </li>
          ))}
        </ol>
      </Section>
      <Section name="Whom we know there" note="from the address book">
        {data?.known.length === 0 && <p className="py-1 text-soft italic">nobody</p>}
        <ul>
          {data?.known.map((one, i) => (
            <li key={i} className="border-b border-rule py-1">
              {one.same ? <strong>{one.name}, whom we know ourselves</strong> : one.name}
              {one.title && <span className="text-soft">, {one.title}</span>}
              <span className="block text-[13px] text-soft">{one.book}</span>
            </li>
          ))}
        </ul>
      </Section>
      {title !== null && data && (
        <Section
          name="How the title is read"
          note={
            <Link to="/titles" className="underline">
              all titles
            </Link>
          }
        >
          <div className="py-1.5 text-[13px]">
            <TitleReading title={title} department={department} level={level} own={data.reading} />
            <p className="pt-1 text-soft">
              {data.reading
                ? `Chosen here by ${data.reading.person || 'somebody'} on ${format.date(data.reading.at.slice(0, 10))}, for everybody with this title.`
                : 'As the source says, or the words of the title tell. What is chosen here holds for everybody with this title.'}
            </p>
          </div>
        </Section>
      )}
    </>
  );
}
