import { useState } from 'react';
import { columnFields, subjectOf } from '../../core/fields/registry.ts';
import { useFormat } from '../app/format.ts';
import { Cell, CompanyLink } from '../desk/sheet/Cell.tsx';
import { columnOf } from '../desk/sheet/columns.ts';
import { emptyTape } from '../../core/tape/nodes.ts';
import { VerdictBar } from '../lists/review/VerdictBar.tsx';
import { WatchButton } from '../runs/WatchButton.tsx';
import { Button } from '../ui/controls.tsx';
import { ProductsOverTime } from './BrandDetails.tsx';
import { useRecord } from './use-record.ts';
import { NoteBox } from './NoteBox.tsx';
import { Fact, NotThere, Section } from './parts.tsx';
import { HandedTo } from './HandedTo.tsx';
import { OnLists } from './OnLists.tsx';
import { CompanyFacts, PersonAbout } from './PersonAbout.tsx';
import { Career, WrittenTo } from './PersonSections.tsx';
import { Steps } from './Steps.tsx';

/** Fields that stand elsewhere on the page. */
const APART: ReadonlySet<string> = new Set(['name', 'source', 'earlier', 'latitude', 'longitude']);

/** The page of a person, site, brand, deal or event: what is known of it, and the companies it hangs on. */
export function RecordPage({ subject, recordKey }: { subject: string; recordKey: string }) {
  const format = useFormat();
  const { data, error } = useRecord(subject, recordKey);
  const [noting, setNoting] = useState(false);
  if (error) return <NotThere error={error} />;
  if (!data) return <p className="p-6 text-soft">Opening …</p>;
  const { one, relation } = subjectOf(subject);
  const { cells } = data.row;
  const bare = emptyTape(subject);
  const fields = columnFields(subject).filter(({ id, store }) => !APART.has(id) && store.at !== 'parties');
  const roleLabel = (role: string) =>
    relation!.roles.find(({ key, stored }) => key === role || (stored.length === 1 && stored[0] === role))
      ?.label ?? 'Company';
  return (
    <article className="flex min-h-0 flex-1 flex-col">
      <div className="flex items-start justify-between gap-3">
        <Steps subject={subject} recordKey={recordKey} />
        <span className="flex shrink-0 gap-2 text-[13px]">
          {subject === 'people' && (
            <WatchButton of={{ subject, key: recordKey, name: (cells.name as string | null) ?? recordKey }} />
          )}
          <Button onClick={() => setNoting(true)}>Note</Button>
        </span>
      </div>
      <VerdictBar subject={subject} recordKey={recordKey} name={(cells.name as string | null) ?? recordKey} />
      <div className="min-h-0 flex-1 overflow-y-auto pb-8">
        <p className="text-soft">{one}</p>
        <h1 className="title text-[27px] break-words">{(cells.name as string | null) ?? recordKey}</h1>
        <NoteBox subject={subject} recordKey={recordKey} open={noting} onOpen={setNoting} />
        <div className="mt-4 grid grid-cols-2 gap-x-7 gap-y-6 max-[820px]:grid-cols-1">
          <Section name="What is known" note={data.sources.map(({ name }) => name).join(', ')}>
            {fields.map((field) => (
              <Fact
                key={field.id}
                name={field.kind === 'money' ? `${field.label}, ${format.symbol}k` : field.label}
              >
                <Cell column={columnOf(bare, field.id)!} row={data.row} format={format} />
              </Fact>
            ))}
            <Fact name="As of">
              {data.sources.map(({ name, asOf }) => `${name}, ${format.date(asOf)}`).join('; ') ||
                'not stated'}
            </Fact>
          </Section>
          <Section name={relation!.roles.length ? 'Companies' : 'Company'}>
            {data.parties.map(({ role, name, key }, i) => (
              <Fact key={i} name={roleLabel(role)}>
                {key ? (
                  <CompanyLink company={key} name={name} />
                ) : (
                  <span title="No company of the universe was found under this name">
                    {name} <span className="text-soft italic">not in the universe</span>
                  </span>
                )}
              </Fact>
            ))}
            {data.parties.length === 0 && <p className="py-1 text-soft italic">none recorded</p>}
            {subject === 'people' && data.parties[0]?.key && <CompanyFacts company={data.parties[0].key} />}
          </Section>
          <OnLists subject={subject} recordKey={recordKey} />
          <HandedTo subject={subject} recordKey={recordKey} />
          {subject === 'people' && (
            <>
              <Career earlier={cells.earlier as string | null} />
              <WrittenTo person={recordKey} />
              <PersonAbout
                person={recordKey}
                title={cells.title as string | null}
                department={cells.department as string | null}
                level={cells.level as string | null}
              />
            </>
          )}
          {data.products && (
            <Section name="Products over the years">
              <ProductsOverTime products={data.products} />
            </Section>
          )}
        </div>
      </div>
    </article>
  );
}
