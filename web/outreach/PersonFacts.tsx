import { useNavigate } from 'react-router';
import type { WritingAnswer } from '../../contract/outreach-views.ts';
import { emptyTape } from '../../core/tape/nodes.ts';
import { useFormat } from '../app/format.ts';
import { addressOf } from '../desk/address.ts';
import { useMemberships } from '../lists/use-lists.ts';
import { Certainty } from './Certainty.tsx';
import { writtenWords } from './words.ts';

/** What we know of the one who is written to, and of the company, as far as it matters for a message. */
export function PersonFacts({ data }: { data: WritingAnswer }) {
  const format = useFormat();
  const navigate = useNavigate();
  const { facts, message, known, written, optedOut } = data;
  const { data: lists } = useMemberships('people', message.person);
  const company = facts?.company ?? null;
  const open = (key: string, subject: string) =>
    void navigate(
      addressOf({
        tape: emptyTape(subject),
        sort: [],
        openLine: null,
        company: subject === 'companies' ? key : `${subject}/${key}`,
      }),
    );
  const trigger = company?.trigger?.name;
  return (
    <section aria-label="What we know" className="text-[13px]">
      <h2 className="title text-[21px] leading-tight">
        <button
          type="button"
          className="text-left hover:underline"
          onClick={() => open(message.person, 'people')}
        >
          {message.name}
        </button>
      </h2>
      <p className="text-soft">
        {facts?.title ?? 'post unknown'}
        {facts?.since && `, since ${format.date(facts.since)}`}
      </p>
      {facts?.earlier && <p className="text-soft">before: {facts.earlier.split('; ')[0]}</p>}
      <div className="mt-2 border-t border-edge">
        <Row name="Address">
          <Certainty
            mail={facts?.mail ?? message.mail}
            certainty={facts?.certainty ?? message.certainty}
            address={facts?.address ?? null}
            madeBy={facts?.madeBy}
          />
        </Row>
        <Row name="Written to">
          {optedOut && <strong className="block text-cut">opted out</strong>}
          {written.length === 0 ? (
            <span className="text-soft">never, by nobody of us</span>
          ) : (
            written.slice(0, 3).map((one) => (
              <span key={one.message} className="block">
                {writtenWords(one, format.date)}
              </span>
            ))
          )}
        </Row>
      </div>
      {company ? (
        <>
          <h3 className="title mt-3 text-[16px] leading-tight">
            <button
              type="button"
              className="text-left hover:underline"
              onClick={() => open(company.key, 'companies')}
            >
              {company.name}
            </button>
          </h3>
          <p className="text-soft">
            {[company.town, company.country].filter(Boolean).join(', ')}
            {company.headcount !== null && (
              <>
                {' '}
                · <span className="figure text-ink">{format.number(company.headcount)}</span> people
              </>
            )}
          </p>
          <div className="mt-1.5 border-t border-edge">
            {company.event && (
              <Row name="Lately" marked={trigger === company.event.name}>
                <strong>{company.event.name}</strong>{' '}
                <span className="text-soft">{company.event.date && format.date(company.event.date)}</span>
              </Row>
            )}
            {company.deal && (
              <Row name="Last deal" marked={trigger === company.deal.name}>
                <strong>{company.deal.name}</strong>{' '}
                <span className="text-soft">{company.deal.date && format.date(company.deal.date)}</span>
              </Row>
            )}
            {company.industry && <Row name="Industry">{company.industry}</Row>}
            {company.technologies.length > 0 && (
              <Row name="Technology">{company.technologies.map(({ label }) => label).join('; ')}</Row>
            )}
            {known.length > 0 && (
              <Row name="We know">
                {known
                  .slice(0, 3)
                  .map(({ name, title }) => [name, title].filter(Boolean).join(', '))
                  .join('; ')}
              </Row>
            )}
            {lists !== undefined && lists.length > 0 && (
              <Row name="On lists">{lists.map(({ name }) => name).join('; ')}</Row>
            )}
          </div>
        </>
      ) : (
        <p className="mt-3 text-soft italic">Works at no company of the universe.</p>
      )}
    </section>
  );
}

function Row({
  name,
  marked = false,
  children,
}: {
  name: string;
  marked?: boolean;
  children: React.ReactNode;
}) {
  return (
    <div
      className={`border-b border-rule ${marked ? 'border-l-3 border-l-ink pl-2 -ml-2.5' : ''}`}
      title={marked ? 'What sets the message off' : undefined}
    >
      <div className="grid grid-cols-[76px_1fr] gap-3 py-1">
        <span className="text-soft">{name}</span>
        <span className="min-w-0 break-words">{children}</span>
      </div>
    </div>
  );
}
