import { useQuery } from '@tanstack/react-query';
import type { RecordAnswer } from '../../contract/responses.ts';
import { columnFields, subjectOf } from '../../core/fields/registry.ts';
import { call } from '../api.ts';
import { useFormat } from '../app/format.ts';
import { Cell, CompanyLink } from '../desk/sheet/Cell.tsx';
import { columnOf } from '../desk/sheet/columns.ts';
import { emptyTape } from '../../core/tape/nodes.ts';
import { Fact, NotThere, Section } from './parts.tsx';
import { Steps } from './Steps.tsx';

/** The page of a person, site, brand, deal or event: what is known of it, and the companies it hangs on. */
export function RecordPage({ subject, recordKey }: { subject: string; recordKey: string }) {
  const format = useFormat();
  const { data, error } = useQuery({
    queryKey: ['record', subject, recordKey],
    queryFn: ({ signal }) =>
      call<RecordAnswer>(
        'GET',
        `/records/${encodeURIComponent(subject)}/${encodeURIComponent(recordKey)}`,
        undefined,
        signal,
      ),
    retry: false,
  });
  if (error) return <NotThere error={error} />;
  if (!data) return <p className="p-6 text-soft">Opening …</p>;
  const { one, relation } = subjectOf(subject);
  const { cells } = data.row;
  const bare = emptyTape(subject);
  const fields = columnFields(subject).filter(
    ({ id, store }) => id !== 'name' && store.at !== 'parties' && id !== 'source',
  );
  const roleLabel = (role: string) =>
    relation!.roles.find(({ key, stored }) => key === role || (stored.length === 1 && stored[0] === role))
      ?.label ?? 'Company';
  return (
    <article className="flex min-h-0 flex-1 flex-col">
      <Steps subject={subject} recordKey={recordKey} />
      <div className="min-h-0 flex-1 overflow-y-auto pb-8">
        <p className="text-soft">{one}</p>
        <h1 className="title text-[27px] break-words">{(cells.name as string | null) ?? recordKey}</h1>
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
          </Section>
        </div>
      </div>
    </article>
  );
}
