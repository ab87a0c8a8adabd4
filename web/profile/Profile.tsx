import { useQuery } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import type { ProfileAnswer } from '../../contract/responses.ts';
import type { CodeCell, MoneyCell, PlaceCell, QuantityCell } from '../../core/cells.ts';
import { BY_HAND } from '../../core/records/own-values.ts';
import { RELATED } from '../../core/fields/registry.ts';
import { SCHEMES } from '../../core/codes/tree.ts';
import { addLines, freeId } from '../../core/tape/edit.ts';
import { emptyTape } from '../../core/tape/nodes.ts';
import { isOfAnyTape, SCORE_COLUMN, WHY_COLUMN } from '../../core/tape/own-columns.ts';
import { call } from '../api.ts';
import { useFormat, type ShownFigure } from '../app/format.ts';
import { useKey } from '../app/keys.ts';
import { Figure, Unknown } from '../desk/sheet/Cell.tsx';
import { useDesk } from '../desk/store.ts';
import { WatchButton } from '../runs/WatchButton.tsx';
import { VerdictBar } from '../lists/review/VerdictBar.tsx';
import { Button, Segments, Trouble } from '../ui/controls.tsx';
import { PrintButton } from '../ui/PrintButton.tsx';
import { GroupSection } from './GroupSection.tsx';
import { MarketSection } from './MarketSection.tsx';
import { NoteBox } from './NoteBox.tsx';
import { BY_HAND_WORDS, Fact, NotThere, Section } from './parts.tsx';
import { Joined } from './Joined.tsx';
import { HandedTo } from './HandedTo.tsx';
import { WrittenToCompany } from './PersonSections.tsx';
import { OnLists } from './OnLists.tsx';
import { PlaceSpot } from './PlaceSpot.tsx';
import { RelatedSection, useRelatedCounts } from './RelatedSection.tsx';
import { Departments, SizeHistory, Technologies } from './SizeHistory.tsx';
import { SourceTable } from './SourceTable.tsx';
import { Standing } from './Standing.tsx';
import { Steps } from './Steps.tsx';
import { Corrected } from './Corrected.tsx';
import { CorrectDialog } from './CorrectDialog.tsx';
import { TryWebsite } from './TryWebsite.tsx';
import { WebAddress } from './WebAddress.tsx';

/** How far around a company its neighbours are looked for at first. */
const NEAR_KM = 20;

/** The page of one company: what is known, from which source, and what the other sources say. */
export function Profile({ companyKey }: { companyKey: string }) {
  const tape = useDesk((state) => state.tape);
  const { set, change } = useDesk.getState();
  const format = useFormat();
  const [noting, setNoting] = useState(false);
  const [correcting, setCorrecting] = useState(false);
  const [where, setWhere] = useState<'here' | 'new'>(() =>
    localStorage.getItem('acts of a company') === 'new' ? 'new' : 'here',
  );
  const web = useRef<HTMLAnchorElement>(null);
  useKey('w', () => web.current?.click());
  const { counts, error: uncounted } = useRelatedCounts(companyKey);
  const { data, error } = useQuery({
    queryKey: ['company', companyKey],
    queryFn: ({ signal }) =>
      call<ProfileAnswer>('GET', `/companies/${encodeURIComponent(companyKey)}`, undefined, signal),
    retry: false,
  });
  if (error) return <NotThere error={error} />;
  if (!data) return <p className="p-6 text-soft">Opening …</p>;
  const own = where === 'here' && tape.subject === 'companies' ? tape : emptyTape();
  const { cells, why } = data.row;
  const codes = (cells.industry as CodeCell[] | null) ?? [];
  const home = cells.place as PlaceCell | null;
  const headcount = cells.headcount as QuantityCell | null;
  const ofSource = (part: keyof ProfileAnswer['from']) =>
    data.from[part] === BY_HAND
      ? BY_HAND_WORDS
      : data.records.find((record) => record.id === data.from[part])?.source;
  const text = (id: string) => cells[id] as string | null;
  const schemes = [...new Set(codes.map((code) => code.scheme))];
  const goTo = (lines: Parameters<typeof addLines>[1]) => {
    change(addLines(own, lines));
    set({ company: null, view: 'sheet' });
  };
  const name = text('name') ?? companyKey;

  return (
    <article className="flex min-h-0 flex-1 flex-col">
      <div className="flex items-start justify-between gap-3">
        <Steps subject="companies" recordKey={companyKey} />
        <span className="flex shrink-0 gap-2 text-[13px]">
          <WatchButton of={{ subject: 'companies', key: companyKey, name }} />
          <Button onClick={() => setNoting(true)}>Note</Button>
          <Button onClick={() => setCorrecting(true)}>Correct</Button>
          <PrintButton kind="profile" body={{ key: companyKey }} name={name} />
        </span>
      </div>
      {correcting && <CorrectDialog profile={data} name={name} onClose={() => setCorrecting(false)} />}
      <VerdictBar subject="companies" recordKey={companyKey} name={name} />
      <div className="min-h-0 flex-1 overflow-y-auto pb-8">
        <h1 className="title text-[27px] break-words">{text('name')}</h1>
        <p className="mt-1 text-soft">
          {[home?.town, home?.region, home?.countryName].filter(Boolean).join(', ') || 'place unknown'}
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
        <NoteBox subject="companies" recordKey={companyKey} open={noting} onOpen={setNoting} />
        <div className="mt-3 flex flex-wrap items-center gap-2 text-[13px]">
          <Segments
            label="Where lines go"
            value={tape.subject === 'companies' ? where : 'new'}
            onChange={(to) => {
              localStorage.setItem('acts of a company', to);
              setWhere(to);
            }}
            options={[
              {
                key: 'here',
                label: 'on this tape',
                off:
                  tape.subject === 'companies' ? undefined : 'The tape counts other records than companies',
              },
              { key: 'new', label: 'on a new tape' },
            ]}
          />
          <Button
            onClick={() => {
              const id = freeId(emptyTape());
              const peers = {
                ...emptyTape(),
                name: `Peers of ${name}`.slice(0, 200),
                lines: [{ id, field: 'peers', test: { like: [companyKey], from: 0.5 } }],
              };
              const plain = useDesk.getState().columns.companies!.filter(isOfAnyTape);
              change(peers, undefined, {
                sort: [{ by: SCORE_COLUMN + id, descending: true }],
                columns: [...plain.slice(0, 1), SCORE_COLUMN + id, WHY_COLUMN + id, ...plain.slice(1)],
              });
              set({ company: null, view: 'sheet' });
            }}
          >
            Its peers
          </Button>
          {schemes.map((scheme) => (
            <Button
              key={scheme}
              onClick={() =>
                goTo([
                  {
                    id: freeId(own),
                    field: 'industry',
                    test: {
                      scheme,
                      any: codes.filter((code) => code.scheme === scheme).map((code) => code.code),
                    },
                  },
                ])
              }
            >
              Companies with these {SCHEMES[scheme]} codes
            </Button>
          ))}
          {home?.lat != null && home.lon != null && (
            <Button
              onClick={() =>
                goTo([
                  {
                    id: freeId(own),
                    field: 'place',
                    test: {
                      near: { lat: home.lat!, lon: home.lon!, km: NEAR_KM, label: name.slice(0, 120) },
                    },
                  },
                ])
              }
            >
              Companies within {NEAR_KM} km
            </Button>
          )}
        </div>

        <div className="mt-5 grid grid-cols-2 items-start gap-x-7 gap-y-6 max-[820px]:grid-cols-1">
          <div className="min-w-0 space-y-6">
            <Section
              name="Size"
              note={[ofSource('headcount'), ofSource('revenue')]
                .filter((source, i, all) => source && all.indexOf(source) === i)
                .join(', ')}
            >
              <Fact name="Headcount" from={ofSource('headcount')}>
                {headcount ? <Sized shown={format.headcount(headcount)} /> : <Why reason={why?.headcount} />}
              </Fact>
              {MONEY.map(([id, label, part]) => (
                <MoneyFact
                  key={id}
                  label={`${label}, ${format.symbol}k`}
                  cell={cells[id] as MoneyCell | null}
                  why={why?.[id]}
                  from={ofSource(part)}
                />
              ))}
            </Section>
            <SizeHistory profile={data} />
            <Departments profile={data} />
            <Codes codes={codes} kin={data.kin} />
            <Technologies profile={data} source={ofSource('technologies')} />
            <MarketSection row={data.row} />
          </div>
          <div className="min-w-0 space-y-6">
            <Standing companyKey={companyKey} />
            <OnLists subject="companies" recordKey={companyKey} />
            <HandedTo subject="companies" recordKey={companyKey} />
            <WrittenToCompany company={companyKey} />
            <Corrected profile={data} name={name} />
            <Joined companyKey={companyKey} />
            {text('group') && <GroupSection group={text('group')!} companyKey={companyKey} />}
            <Section name="Reach" note={ofSource('web') ?? ofSource('phone')}>
              <Fact name="Web" from={ofSource('web')}>
                <WebAddress link={web} cells={cells} />
                {text('web') && <TryWebsite companyKey={companyKey} />}
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
                <PlaceSpot lat={home.lat} lon={home.lon} name={name} />
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
              <Fact name="Ownership" from={ofSource('ownership')}>
                {text('ownership') ?? <Unknown />}
                {text('listing') && `, ${text('listing')}`}
                {text('ticker') && <span className="figure"> {text('ticker')}</span>}
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

const MONEY = [
  ['revenue', 'Revenue', 'revenue'],
  ['profit', 'Profit', 'profit'],
  ['assets', 'Total assets', 'assets'],
] as const;

function MoneyFact({
  label,
  cell,
  why,
  from,
}: {
  label: string;
  cell: MoneyCell | null;
  why: string | undefined;
  from: string | undefined;
}) {
  const format = useFormat();
  const shown = cell ? format.thousands(cell) : null;
  return (
    <Fact name={label} from={from}>
      {shown ? <Sized shown={shown} /> : <Why reason={cell ? 'no exchange rate' : why} />}
    </Fact>
  );
}

/** The codes with their kin in other schemes: sure links, and possible ones in italics. */
function Codes({ codes, kin }: { codes: readonly CodeCell[]; kin: ProfileAnswer['kin'] }) {
  return (
    <Section name="Codes" note={`${codes.length} recorded, main first`}>
      {codes.map((code) => (
        <div
          key={`${code.scheme} ${code.code}`}
          className="grid grid-cols-[72px_1fr] gap-2 border-b border-rule py-1"
        >
          <span className="figure text-[13px]">{code.code}</span>
          <span>
            {code.title}{' '}
            <span className="text-[12px] text-soft">
              {code.main ? 'main, ' : ''}
              {SCHEMES[code.scheme]}
            </span>
            <span className="block text-[12px] text-soft">
              {(Object.keys(SCHEMES) as (keyof typeof SCHEMES)[]).map((scheme) => {
                const own = (kin[`${code.scheme} ${code.code}`] ?? []).filter((one) => one.scheme === scheme);
                if (own.length === 0) return null;
                return (
                  <span key={scheme} className="mr-2">
                    {SCHEMES[scheme]}{' '}
                    {own.slice(0, MOST_KIN).map((one) => (
                      <span
                        key={one.code}
                        className={`figure mr-1 ${one.sure ? '' : 'italic'}`}
                        title={one.sure ? 'a sure link' : 'a possible link'}
                      >
                        {one.code}
                        {!one.sure && '?'}
                      </span>
                    ))}
                    {own.length > MOST_KIN && `and ${own.length - MOST_KIN} more`}
                  </span>
                );
              })}
            </span>
          </span>
        </div>
      ))}
      {codes.length === 0 && <Unknown />}
    </Section>
  );
}

/** Kin that are named of each scheme. */
const MOST_KIN = 3;

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
