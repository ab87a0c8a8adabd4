import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useId, useState } from 'react';
import type { HookView, NewFeed, ProgramsAnswer } from '../../contract/program-views.ts';
import { call } from '../api.ts';
import { useFormat } from '../app/format.ts';
import { countedPart } from '../desk/queries.ts';
import { useDesk } from '../desk/store.ts';
import { isOwnColumn } from '../../core/tape/own-columns.ts';
import { useSettings } from '../app/settings.ts';
import { Button, Segments, Trouble } from '../ui/controls.tsx';
import { RemoveDialog } from '../ui/RemoveDialog.tsx';
import { Deliveries } from './Deliveries.tsx';

export function usePrograms() {
  return useQuery({
    queryKey: ['programs'],
    queryFn: ({ signal }) => call<ProgramsAnswer>('GET', '/programs', undefined, signal),
    // What waits goes out by itself.
    refetchInterval: ({ state }) =>
      state.data?.deliveries.some((one) => one.state === 'waiting') ? 2000 : false,
  });
}

interface Removing {
  name: string;
  path: string;
  says: string;
}

/** Addresses that other programs read, folders that exports are copied to, and webhooks that they are posted to. */
export function OtherPrograms({ head }: { head: React.ReactNode }) {
  const client = useQueryClient();
  const format = useFormat();
  const { data, error } = usePrograms();
  const [removing, setRemoving] = useState<Removing | null>(null);
  const changed = () => void client.invalidateQueries({ queryKey: ['programs'] });
  const remove = useMutation({ mutationFn: (path: string) => call('DELETE', path), onSuccess: changed });
  const day = (at: string) => format.date(at.slice(0, 10));
  return (
    <main className="min-h-0 flex-1 overflow-auto px-5 pt-4 pb-6">
      {head}
      <Trouble error={error ?? remove.error} />
      <div className="mt-4 grid grid-cols-2 gap-x-10 gap-y-8 max-[1000px]:grid-cols-1">
        <Part
          title="Addresses to read from"
          says="A spreadsheet or notebook reads what a tape keeps, as it is at that moment. Whoever has the address can read it, on this machine."
          form={<NewFeedForm onMade={changed} />}
        >
          {(data?.feeds ?? []).map(({ id, name, format: kind, wording, readAt, timesRead }) => (
            <Item
              key={id}
              name={name}
              kind={kind === 'csv' ? 'CSV' : 'JSON Lines'}
              under={wording.join('; ') || 'the whole universe'}
              act="Take back"
              onAct={() =>
                setRemoving({
                  name,
                  path: `/feeds/${id}`,
                  says: 'Whoever reads from its address gets nothing any more, and that cannot be undone.',
                })
              }
            >
              <span className="text-soft">
                {readAt ? `read ${format.number(timesRead)} times, last ${day(readAt)}` : 'never read'}
              </span>
            </Item>
          ))}
        </Part>
        <Part
          title="Folders"
          says="An export that goes there is copied under its name with day and time, and only once it is whole."
          form={
            <NamedForm
              what="folder"
              second={{ label: 'Path of the folder', placeholder: '/home/me/lists' }}
              onMake={(name, path) => call('POST', '/folders', { name, path }).then(changed)}
            />
          }
        >
          {(data?.folders ?? []).map(({ id, name, path, trouble }) => (
            <Item
              key={id}
              name={name}
              under={<span className="figure">{path}</span>}
              onAct={() =>
                setRemoving({
                  name,
                  path: `/folders/${id}`,
                  says: 'What was copied there stays where it is.',
                })
              }
            >
              {trouble && <span className="text-cut">{trouble}</span>}
            </Item>
          ))}
        </Part>
        <Part
          title="Webhooks"
          says="JSON Lines posted in batches, signed by the Standard Webhooks scheme, and tried again with growing pauses. “stand-in” is a receiver on this machine that fails now and then."
          form={
            <NamedForm
              what="webhook"
              second={{
                label: 'Address of the webhook',
                placeholder: 'https://hooks.example/companies, or stand-in',
              }}
              onMake={(name, url) => call('POST', '/hooks', { name, url }).then(changed)}
            />
          }
        >
          {(data?.hooks ?? []).map(({ id, name, url, secret, ...figures }) => (
            <Item
              key={id}
              name={name}
              under={
                <>
                  <span className="figure">{url}</span>
                  <details>
                    <summary className="cursor-pointer">secret to verify by</summary>
                    <span className="figure break-all whitespace-normal text-ink">{secret}</span>
                  </details>
                </>
              }
              onAct={() =>
                setRemoving({
                  name,
                  path: `/hooks/${id}`,
                  says: 'What waits for it is posted no more, and its secret is gone; that cannot be undone.',
                })
              }
            >
              <Posted {...figures} />
            </Item>
          ))}
        </Part>
        <Part
          title="Hosts that webhooks may go to"
          says="Any other is refused, and so is one that turns out to be on this machine or in a private network unless it is allowed as such."
          form={<HostForm onMade={changed} />}
        >
          {(data?.hosts ?? []).map(({ name, private: inside }) => (
            <Item key={name} name={name} onAct={() => remove.mutate(`/hosts/${name}`)}>
              <span className="text-soft">{inside ? 'private allowed' : 'open internet only'}</span>
            </Item>
          ))}
        </Part>
      </div>
      {data && <Deliveries answer={data} />}
      <RemoveDialog
        name={removing?.name ?? null}
        onClose={() => setRemoving(null)}
        onRemove={() => remove.mutate(removing!.path)}
      >
        {removing?.says}
      </RemoveDialog>
    </main>
  );
}

/** One way to give other programs something: what it is, how one is made, and those there are. */
function Part({
  title,
  says,
  form,
  children,
}: {
  title: string;
  says: string;
  form: React.ReactNode;
  children: React.ReactNode;
}) {
  const id = useId();
  return (
    <section aria-labelledby={id}>
      <h2 id={id} className="title text-[18px]">
        {title}
      </h2>
      <p className="text-[13px] text-soft">{says}</p>
      {form}
      <ul aria-labelledby={id} className="mt-2">
        {children}
      </ul>
    </section>
  );
}

function Item({
  name,
  kind,
  under,
  act = 'Remove',
  onAct,
  children,
}: {
  name: string;
  kind?: string;
  under?: React.ReactNode;
  act?: string;
  onAct(): void;
  children?: React.ReactNode;
}) {
  return (
    <li className="flex items-baseline gap-3 border-b border-rule py-1.5 text-[13px]">
      <span className="min-w-0 flex-1">
        <strong className="text-[14px]">{name}</strong> <span className="text-soft">{kind}</span>
        {under && <span className="block truncate text-soft">{under}</span>}
      </span>
      <span>{children}</span>
      <Button look="quiet" aria-label={`${act} ${name}`} onClick={onAct}>
        {act}
      </Button>
    </li>
  );
}

/** How a webhook's requests fared. */
function Posted({ waiting, delivered, givenUp }: Pick<HookView, 'waiting' | 'delivered' | 'givenUp'>) {
  const format = useFormat();
  return (
    <span className="whitespace-nowrap">
      <span className="figure">{format.number(delivered)}</span> delivered
      {waiting > 0 && (
        <>
          , <span className="figure text-unsure">{format.number(waiting)}</span> waiting
        </>
      )}
      {givenUp > 0 && (
        <>
          , <span className="figure text-cut">{format.number(givenUp)}</span> given up
        </>
      )}
    </span>
  );
}

/** A feed of the tape that stands on the Desk. */
function NewFeedForm({ onMade }: { onMade(): void }) {
  const { tape, sort, columns } = useDesk();
  const settings = useSettings();
  const [name, setName] = useState('');
  const [kind, setKind] = useState<'csv' | 'jsonl'>('csv');
  const make = useMutation({
    mutationFn: () =>
      call<NewFeed>('POST', '/feeds', {
        name: name.trim(),
        wish: {
          ...{ tape: countedPart(tape), sort, name: name.trim(), format: kind, currency: settings.currency },
          columns: columns[tape.subject]!.filter((id) => !isOwnColumn(id)),
        },
      }),
    onSuccess: () => {
      setName('');
      onMade();
    },
  });
  const address = make.data && new URL(make.data.address, window.location.origin).href;
  return (
    <form
      className="mt-2 space-y-2"
      onSubmit={(event) => {
        event.preventDefault();
        make.mutate();
      }}
    >
      <div className="flex flex-wrap items-center gap-2">
        <input
          className="field min-w-40 flex-1 py-1"
          aria-label="Name of the address"
          placeholder={`Name, for the tape on the Desk (${tape.name ?? tape.subject})`}
          maxLength={80}
          value={name}
          onChange={(event) => setName(event.target.value)}
        />
        <Segments
          label="What it gives"
          value={kind}
          onChange={setKind}
          options={[
            { key: 'csv', label: 'CSV' },
            { key: 'jsonl', label: 'JSON Lines' },
          ]}
        />
        <Button type="submit" disabled={name.trim() === '' || make.isPending}>
          Make
        </Button>
      </div>
      <Trouble error={make.error} />
      {address && (
        <p role="status" className="rounded-md border border-edge bg-picked px-3 py-2 text-[13px]">
          Copy it now; it is not shown again.
          <input
            readOnly
            aria-label="The address"
            className="field figure mt-1 w-full py-1 text-[12px]"
            value={address}
            onFocus={(event) => event.target.select()}
          />
        </p>
      )}
    </form>
  );
}

function NamedForm({
  what,
  second,
  onMake,
}: {
  what: string;
  second: { label: string; placeholder: string };
  onMake(name: string, value: string): Promise<unknown>;
}) {
  const [name, setName] = useState('');
  const [value, setValue] = useState('');
  const make = useMutation({
    mutationFn: () => onMake(name.trim(), value.trim()),
    onSuccess: () => {
      setName('');
      setValue('');
    },
  });
  return (
    <form
      className="mt-2"
      onSubmit={(event) => {
        event.preventDefault();
        make.mutate();
      }}
    >
      <div className="flex gap-2">
        <input
          className="field w-36 py-1"
          aria-label={`Name of the ${what}`}
          placeholder="Name"
          maxLength={80}
          value={name}
          onChange={(event) => setName(event.target.value)}
        />
        <input
          className="field min-w-0 flex-1 py-1"
          aria-label={second.label}
          placeholder={second.placeholder}
          maxLength={1000}
          value={value}
          onChange={(event) => setValue(event.target.value)}
        />
        <Button type="submit" disabled={name.trim() === '' || value.trim() === '' || make.isPending}>
          Add
        </Button>
      </div>
      <Trouble error={make.error} />
    </form>
  );
}

function HostForm({ onMade }: { onMade(): void }) {
  const [name, setName] = useState('');
  const [inside, setInside] = useState(false);
  const allow = useMutation({
    mutationFn: () => call('PUT', '/hosts', { name: name.trim().toLowerCase(), private: inside }),
    onSuccess: () => {
      setName('');
      onMade();
    },
  });
  return (
    <form
      className="mt-2"
      onSubmit={(event) => {
        event.preventDefault();
        allow.mutate();
      }}
    >
      <div className="flex items-center gap-2">
        <input
          className="field min-w-0 flex-1 py-1"
          aria-label="Name of the host"
          placeholder="hooks.example"
          maxLength={253}
          value={name}
          onChange={(event) => setName(event.target.value)}
        />
        <label className="flex items-center gap-1.5 text-[13px]">
          <input type="checkbox" checked={inside} onChange={(event) => setInside(event.target.checked)} />{' '}
          private too
        </label>
        <Button type="submit" disabled={name.trim() === '' || allow.isPending}>
          Allow
        </Button>
      </div>
      <Trouble error={allow.error} />
    </form>
  );
}
