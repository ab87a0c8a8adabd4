import { useQuery } from '@tanstack/react-query';
import { ExternalLink } from 'lucide-react';
import type { ProfileAnswer } from '../../contract/responses.ts';
import type { CodeCell, MoneyCell, PlaceCell, QuantityCell } from '../../core/cells.ts';
import { RELATED } from '../../core/fields/registry.ts';
import { SCHEMES } from '../../core/codes/tree.ts';
import { addLines, freeId } from '../../core/tape/edit.ts';
import { emptyTape } from '../../core/tape/nodes.ts';
import { call } from '../api.ts';
import { useFormat, type ShownFigure } from '../app/format.ts';
import { Figure, Unknown } from '../desk/sheet/Cell.tsx';
import { useDesk } from '../desk/store.ts';
import { Button, Trouble } from '../ui/controls.tsx';
import { Fact, NotThere, Section } from './parts.tsx';
import { RelatedSection, useRelatedCounts } from './RelatedSection.tsx';
import { SourceTable } from './SourceTable.tsx';
import { Steps } from './Steps.tsx';

/** How far around a company its neighbours are looked for at first. */
const NEAR_KM = 20;

/** The page of one company: what is known, from which source, and what the other sources say. */
export function Profile({ companyKey }: { companyKey: string }) {
  const tape = useDesk((state) => state.tape);
  const { set, change } = useDesk.getState();
  const format = useFormat();
  const { counts, error: uncounted } = useRelatedCounts(companyKey);
  const { data, error } = useQuery({
    queryKey: ['company', companyKey],
    queryFn: ({ signal }) =>
      call<ProfileAnswer>('GET', `/companies/${encodeURIComponent(companyKey)}`, undefined, signal),
    retry: false,
  });
  if (error) return <NotThere error={error} />;
  if (!data) return <p className="p-6 text-soft">Opening …</p>;
  // Lines on companies go on the tape where it counts companies, else on a new one.
  const own = tape.subject === 'companies' ? tape : emptyTape();
  const { cells, why } = data.row;
  const codes = (cells.industry as CodeCell[] | null) ?? [];
  const home = cells.place as PlaceCell | null;
  const headcount = cells.headcount as QuantityCell | null;
  const revenue = cells.revenue as MoneyCell | null;
  const technologies = cells.technology as string[] | null;
  const ofSource = (part: keyof ProfileAnswer['from']) =>
    data.records.find((record) => record.id === data.from[part])?.source;
  const text = (id: string) => cells[id] as string | null;
  const schemes = [...new Set(codes.map((code) => code.scheme))];
  const money = revenue ? format.thousands(revenue) : null;

  return (
    <article className="flex min-h-0 flex-1 flex-col">
      <Steps subject="companies" recordKey={companyKey} />
      <div className="min-h-0 flex-1 overflow-y-auto pb-8">
        <h1 className="title text-[27px] break-words">{text('name')}</h1>
        <p className="mt-1 text-soft">
          {[home?.town, home?.region, home?.country].filter(Boolean).join(', ') || 'place unknown'}
          {cells.founded !== null && (
            <>
              {' '}
              · since <span className="figure">{cells.founded as number}</span>
            </>
          )}
          {text('status') && ` · ${text('status')}`}
          {text('checked') && (
            <strong className="text-ink">
              {' '}
              · checked{text('checked-how') ? ` by ${text('checked-how')}` : ''},{' '}
              {format.date(text('checked')!)}
            </strong>
          )}
        </p>
        <p className="mt-2 max-w-3xl text-base">
          {text('description') ?? <span className="text-soft italic">No description recorded.</span>}
        </p>

        <div className="mt-5 grid grid-cols-2 gap-x-7 gap-y-6 max-[820px]:grid-cols-1">
          <Section
            name="Size"
            note={[ofSource('headcount'), ofSource('revenue')]
              .filter((name, i, all) => name && all.indexOf(name) === i)
              .join(', ')}
          >
            <Fact name="Headcount" from={ofSource('headcount')}>
              {headcount ? <Sized shown={format.headcount(headcount)} /> : <Why reason={why?.headcount} />}
            </Fact>
            <Fact name={`Revenue, ${format.symbol}k`} from={ofSource('revenue')}>
              {money ? <Sized shown={money} /> : <Why reason={revenue ? 'no exchange rate' : why?.revenue} />}
            </Fact>
          </Section>
          <Section name="Reach" note={ofSource('web') ?? ofSource('phone')}>
            <Fact name="Web" from={ofSource('web')}>
              {text('web') ? (
                <a
                  href={`https://${text('web')}`}
                  target="_blank"
                  rel="noopener noreferrer"
                  className="underline decoration-rule underline-offset-4 hover:decoration-ink"
                >
                  {text('web')} <ExternalLink size={12} className="inline" />
                </a>
              ) : (
                <span className="text-soft italic">none known</span>
              )}
            </Fact>
            <Fact name="Phone" from={ofSource('phone')}>
              {text('phone') ? <span className="figure text-[13px]">{text('phone')}</span> : <Unknown />}
            </Fact>
            <Fact name="Mail" from={ofSource('mail')}>
              {text('mail') ?? <Unknown />}
            </Fact>
            <Fact name="Address" from={ofSource('street')}>
              {[text('street'), [text('postcode'), home?.town].filter(Boolean).join(' ')]
                .filter(Boolean)
                .join(', ') || <Unknown />}
            </Fact>
            {home?.lat != null && home.lon != null && (
              <Button
                className="mt-2"
                onClick={() => {
                  const near = {
                    lat: home.lat!,
                    lon: home.lon!,
                    km: NEAR_KM,
                    label: text('name')?.slice(0, 120),
                  };
                  change(addLines(own, [{ id: freeId(own), field: 'place', test: { near } }]));
                  set({ company: null });
                }}
              >
                Companies within {NEAR_KM} km
              </Button>
            )}
          </Section>
          <Section name="Codes" note={`${codes.length} recorded, main first`}>
            {codes.map((code) => (
              <div
                key={`${code.scheme} ${code.code}`}
                className="grid grid-cols-[90px_1fr] gap-2 border-b border-rule py-1"
              >
                <span className="figure text-[13px]">{code.code}</span>
                <span>
                  {code.title}{' '}
                  <span className="text-[12px] text-soft">
                    {code.main ? 'main, ' : ''}
                    {SCHEMES[code.scheme]}
                  </span>
                </span>
              </div>
            ))}
            {codes.length === 0 && <Unknown />}
            {schemes.map((scheme) => (
              <Button
                key={scheme}
                className="mt-2 mr-2"
                onClick={() => {
                  change(
                    addLines(tape, [
                      {
                        id: freeId(own),
                        field: 'industry',
                        test: {
                          scheme,
                          any: codes.filter((code) => code.scheme === scheme).map((code) => code.code),
                        },
                      },
                    ]),
                  );
                  set({ company: null });
                }}
              >
                Companies with these {SCHEMES[scheme]} codes
              </Button>
            ))}
          </Section>
          <div className="space-y-6">
            <Section name="Technology" note={ofSource('technologies')}>
              {technologies === null ? (
                <p className="py-1 text-soft italic">unknown: the site was never surveyed</p>
              ) : technologies.length ? (
                <p className="flex flex-wrap gap-1.5 pt-1">
                  {technologies.map((name) => (
                    <span key={name} className="rounded-md border border-edge bg-paper px-2 py-0.5">
                      {name}
                    </span>
                  ))}
                </p>
              ) : (
                <p className="py-1 text-soft">surveyed; none seen</p>
              )}
            </Section>
            <Section name="Register" note={ofSource('registration')}>
              <Fact name="Legal form" from={ofSource('legalForm')}>
                {text('legal-form') ?? <Unknown />}
              </Fact>
              <Fact name="Number" from={ofSource('registration')}>
                {text('registration') ? (
                  <span className="figure text-[13px]">{text('registration')}</span>
                ) : (
                  <Unknown />
                )}
              </Fact>
              <Fact name="Key here">
                <span className="figure text-[13px]">{data.row.key}</span>
              </Fact>
            </Section>
          </div>
        </div>
        <div className="mt-6 space-y-6">
          <Trouble error={uncounted} />
          {RELATED.map(({ id }) => (
            <RelatedSection
              key={`${id} ${companyKey}`}
              subject={id}
              company={companyKey}
              count={counts?.[id]}
            />
          ))}
        </div>
        <SourceTable profile={data} />
      </div>
    </article>
  );
}

function Sized({ shown }: { shown: ShownFigure }) {
  return (
    <>
      <strong className="text-[16px]">
        <Figure shown={shown} />
      </strong>{' '}
      <span className="text-[12px] text-soft">{shown.note}</span>
    </>
  );
}

function Why({ reason }: { reason: string | undefined }) {
  return <span className="text-soft italic">unknown: {reason ?? 'not collected'}</span>;
}
