import { useQueryClient } from '@tanstack/react-query';
import clsx from 'clsx';
import { useRef, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import type { GathererView } from '../../contract/gather-views.ts';
import { fold } from '../../core/text/fold.ts';
import { call } from '../api.ts';
import { useFormat } from '../app/format.ts';
import { useKey } from '../app/keys.ts';
import { Button, Kbd, Trouble } from '../ui/controls.tsx';
import { RemoveDialog } from '../ui/RemoveDialog.tsx';
import { SortHead, useOrder } from '../ui/SortHead.tsx';
import { HostsDialog } from './HostsDialog.tsx';
import { beginGatherer, freeName } from './begin.ts';
import { NewGatherer } from './NewGatherer.tsx';
import { RunRoll } from './RunRoll.tsx';
import { STATE_WORDS } from './words.ts';
import { useGatherers, useRun } from './use-gather.ts';

type By = 'name' | 'start' | 'searches' | 'records' | 'changed';
const sortable = (one: GathererView) => ({
  ...one,
  records: one.run?.records ?? null,
  changed: one.changedAt,
});

/** All gatherers, what each reads and what its last run came to; the roll shows the selected one's last run. */
export function Gather() {
  const format = useFormat();
  const navigate = useNavigate();
  const client = useQueryClient();
  const { data, error, isPending } = useGatherers();
  const [text, setText] = useState('');
  const [making, setMaking] = useState(false);
  const [hosts, setHosts] = useState(false);
  const [removing, setRemoving] = useState<GathererView | null>(null);
  const [trouble, setTrouble] = useState<Error | null>(null);
  const [selected, setSelected] = useState<string | null>(null);
  const words = fold(text.trim());
  const found = (data?.gatherers ?? []).filter(({ name, start }) => fold(`${name} ${start}`).includes(words));
  const { sorted, order, setOrder } = useOrder<By, ReturnType<typeof sortable>>(found.map(sortable), {
    by: 'changed',
    descending: true,
  });
  const current = sorted.find(({ id }) => id === selected) ?? sorted[0] ?? null;
  const { data: shown } = useRun(current?.run?.id ?? null);
  const move = (step: number) => {
    const at = sorted.findIndex(({ id }) => id === current?.id);
    const next = sorted[Math.max(0, Math.min(sorted.length - 1, at + step))];
    if (next) setSelected(next.id);
  };
  const open = (id: string) => void navigate(`/gather/${id}`);
  useKey('j', () => move(1));
  useKey('k', () => move(-1));
  useKey('arrowdown', () => move(1));
  useKey('arrowup', () => move(-1));
  useKey('enter', () => current && open(current.id), { off: making || hosts || removing !== null });
  useKey('n', () => setMaking(true));
  const saved = useRef<HTMLInputElement>(null);
  const openSaved = (file: File) => {
    const name = freeName(
      file.name.replace(/\.\w+$/, '').slice(0, 110),
      (data?.gatherers ?? []).map((one) => one.name),
    );
    setTrouble(null);
    beginGatherer(name, { from: 'file', file }).then(
      ({ id }) => open(id),
      (failure: Error) => setTrouble(failure),
    );
  };
  const remove = (one: GathererView) =>
    call('DELETE', `/gather/gatherers/${one.id}`).then(
      () => client.invalidateQueries({ queryKey: ['gather'] }),
      (failure: Error) => setTrouble(failure),
    );
  return (
    <div className="flex min-h-0 flex-1">
      <main className="min-w-0 flex-1 overflow-auto px-5 pt-4 pb-6">
        <div className="flex flex-wrap items-center gap-3 border-b border-edge pb-3">
          <h1 className="title text-[25px]">Gather</h1>
          <span className="text-soft">companies that stand on pages</span>
          <input
            type="search"
            className="field ml-auto w-52 py-1.5"
            placeholder="Search gatherers"
            aria-label="Search gatherers"
            value={text}
            onChange={(event) => setText(event.target.value)}
          />
          <input
            ref={saved}
            type="file"
            accept=".html,.htm,.mhtml,.mht,.zip"
            className="hidden"
            aria-label="A saved page"
            onChange={(event) => {
              const [file] = event.target.files ?? [];
              event.target.value = '';
              if (file) openSaved(file);
            }}
          />
          <Button onClick={() => saved.current?.click()}>Open a saved page</Button>
          <Button onClick={() => setHosts(true)}>Hosts</Button>
          <Button look="ink" onClick={() => setMaking(true)}>
            New gatherer <Kbd>n</Kbd>
          </Button>
        </div>
        <Trouble error={error ?? trouble} />
        {isPending && <p className="mt-4 text-soft">Looking …</p>}
        {data && data.gatherers.length === 0 && (
          <div className="mt-8 max-w-xl">
            <p>
              Some companies stand in no database, only in directories. A gatherer goes through their pages:
              point at one row, and all like it are read.
            </p>
            <p className="mt-2 text-soft">
              Two made-up directories ship with the program to try it on:{' '}
              {data.standIns.map(({ name, seen }, i) => (
                <span key={name}>
                  {i > 0 && ' and '}
                  <a className="underline underline-offset-4" href={seen} target="_blank" rel="noreferrer">
                    {name}
                  </a>
                </span>
              ))}
              .
            </p>
          </div>
        )}
        {sorted.length > 0 && (
          <table className="mt-2 w-full" aria-label="Gatherers">
            <thead className="border-b border-edge text-[13px]">
              <tr>
                <SortHead by="name" label="Gatherer" order={order} onOrder={setOrder} />
                <SortHead by="start" label="Begins at" order={order} onOrder={setOrder} />
                <SortHead by="searches" label="Searches" order={order} onOrder={setOrder} right />
                <th className="py-2 pr-5 text-left font-semibold">Last run</th>
                <SortHead by="records" label="Records" order={order} onOrder={setOrder} right />
                <SortHead by="changed" label="Changed" order={order} onOrder={setOrder} />
                <th>
                  <span className="sr-only">Remove</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {sorted.map((one) => (
                <tr
                  key={one.id}
                  aria-selected={one.id === current?.id}
                  className={clsx('border-b border-rule', one.id === current?.id && 'bg-picked')}
                  onClick={() => setSelected(one.id)}
                >
                  <td className="py-2 pr-5 pl-1 font-semibold">
                    <Link className="hover:underline" to={`/gather/${one.id}`}>
                      {one.name}
                    </Link>
                  </td>
                  <td className="max-w-56 truncate py-2 pr-5 text-[13px] text-soft">{one.start}</td>
                  <td className="figure py-2 pr-5 text-right">{format.number(one.searches)}</td>
                  <td className="py-2 pr-5 text-[13px]">
                    {one.run ? STATE_WORDS[one.run.state] : 'none yet'}
                  </td>
                  <td className="figure py-2 pr-5 text-right">
                    {one.run ? format.number(one.run.records) : ''}
                  </td>
                  <td className="py-2 pr-5 text-[13px] whitespace-nowrap text-soft">
                    {format.date(one.changedAt.slice(0, 10))}
                  </td>
                  <td className="py-1.5 text-right">
                    <Button look="quiet" aria-label={`Remove ${one.name}`} onClick={() => setRemoving(one)}>
                      Remove
                    </Button>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
        {data && data.gatherers.length > 0 && sorted.length === 0 && (
          <p className="mt-6 text-soft">No gatherer has “{text}” in its name or address.</p>
        )}
      </main>
      {current && shown && <RunRoll run={shown.run} to={`/gather/${current.id}?run=${shown.run.id}`} />}
      {making && data && (
        <NewGatherer
          standIns={data.standIns}
          taken={data.gatherers.map(({ name }) => name)}
          onClose={() => setMaking(false)}
        />
      )}
      {hosts && data && <HostsDialog hosts={data.hosts} onClose={() => setHosts(false)} />}
      <RemoveDialog
        name={removing?.name ?? null}
        onClose={() => setRemoving(null)}
        onRemove={() => removing && void remove(removing)}
      >
        Its examples, its runs and the records they found go with it. Sources and lists made of them stay.
      </RemoveDialog>
    </div>
  );
}
