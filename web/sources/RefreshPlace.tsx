import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import type { MatchListAnswer } from '../../contract/matches.ts';
import type { Refreshed, SourceChangesAnswer, SourceView } from '../../contract/responses.ts';
import { call } from '../api.ts';
import { said } from '../app/history.ts';
import { useFormat } from '../app/format.ts';
import { listsChanged, noteMade } from '../lists/acts.ts';
import { useOpenList } from '../lists/open-list.ts';
import { useLists } from '../lists/use-lists.ts';
import { Button, Trouble } from '../ui/controls.tsx';
import { SortHead, useOrder } from '../ui/SortHead.tsx';
import { Roll } from '../ui/Roll.tsx';
import { subjectOf } from '../../core/fields/registry.ts';
import { capital } from '../../core/text/capital.ts';
import { isShared } from './reading/WhatTheseAre.tsx';
import { freeName } from './match/free-name.ts';

type What = SourceChangesAnswer['what'];

const TITLES: Record<What, string> = { new: 'New', changed: 'Changed', gone: 'Gone' };

/** What the last newer version of a source did: its roll, and the companies behind each figure with what was and what is. */
export function RefreshPlace({
  source,
  refreshed,
  onLeave,
}: {
  source: SourceView;
  refreshed: Refreshed;
  onLeave(): void;
}) {
  const format = useFormat();
  const [params, setParams] = useSearchParams();
  const asked = params.get('what');
  const what: What = asked === 'new' || asked === 'gone' ? asked : 'changed';
  const show = (next: What) => setParams({ changes: source.key, what: next });
  const { before, added, gone, now, changed, keptAs, on } = refreshed;
  const count = { new: added, changed, gone }[what];
  const { many } = subjectOf(source.subject);
  return (
    <main className="flex min-h-0 flex-1">
      <div className="flex min-h-0 min-w-0 flex-1 flex-col px-5">
        <p className="flex items-center gap-2 pt-2 text-[13px] text-soft">
          <Button look="quiet" className="-ml-1.5 underline" onClick={onLeave}>
            Sources
          </Button>
          <span aria-hidden="true">/</span> {source.name}
        </p>
        <ChangesTable source={source} what={what} count={count} />
      </div>
      <Roll
        title={source.name}
        about={
          <>
            a newer version, {source.fileName}
            <span className="block">
              put in place {format.date(on)}, as of {format.date(source.asOf)}
            </span>
          </>
        }
        opens={`See these ${many}`}
        steps={[
          { key: 'before', label: `${capital(many)} before`, delta: before, total: before },
          {
            key: 'new',
            label: 'New',
            delta: added,
            adds: true,
            total: before + added,
            onOpen: () => show('new'),
          },
          {
            key: 'gone',
            label: 'Gone',
            note:
              keptAs !== null
                ? 'kept as a source of their own'
                : isShared(source.subject)
                  ? 'they left, unless another source has them'
                  : 'they left',
            delta: -gone,
            total: now,
            onOpen: () => show('gone'),
          },
        ]}
        below={
          <p className="flex justify-between border-t border-edge py-2 pr-4 pl-10">
            <span className="font-semibold">Of those that stayed, changed</span>
            <button
              type="button"
              className="figure text-[15px] font-semibold enabled:hover:underline"
              disabled={changed === 0}
              title={`See these ${many}`}
              onClick={() => show('changed')}
            >
              {format.number(changed)}
            </button>
          </p>
        }
        foot={{ label: `${many} now`, total: now }}
      >
        <ListOf source={source} what={what} count={count} />
      </Roll>
    </main>
  );
}

function ListOf({ source, what, count }: { source: SourceView; what: What; count: number }) {
  const format = useFormat();
  const client = useQueryClient();
  const open = useOpenList();
  const { data: lists } = useLists();
  const wished = `${source.name}, ${what}`;
  const list = useMutation({
    mutationFn: async () => {
      const name = freeName(
        wished,
        (lists?.lists ?? []).map((one) => one.name),
      );
      const made = await call<MatchListAnswer>('POST', `/sources/${encodeURIComponent(source.key)}/list`, {
        what,
        name,
      });
      noteMade(client, made.list);
      await listsChanged(client);
      said(`${format.number(made.added)} ${subjectOf(source.subject).many} are on the list “${name}”.`);
      return made;
    },
  });
  return (
    <>
      <Trouble error={list.error} />
      <Button
        look="ink"
        className="px-2"
        disabled={count === 0 || list.isPending}
        onClick={() => list.mutate()}
      >
        Make a list of the {format.number(count)} {what}
      </Button>
      {list.data && (
        <Button className="px-2" onClick={() => open(list.data.list)}>
          Open it on the Desk
        </Button>
      )}
    </>
  );
}

/** The companies of one kind; of those that changed, each field with what it was and what it is. */
function ChangesTable({ source, what, count }: { source: SourceView; what: What; count: number }) {
  const format = useFormat();
  const { one, many } = subjectOf(source.subject);
  const [all, setAll] = useState(false);
  const { data, error } = useQuery({
    queryKey: ['sources', source.key, 'changes', what, source.loadedAt],
    queryFn: ({ signal }) =>
      call<SourceChangesAnswer>(
        'GET',
        `/sources/${encodeURIComponent(source.key)}/changes?what=${what}`,
        undefined,
        signal,
      ),
  });
  const rows = (data?.changes ?? []).map((row) => ({ ...row, field: Object.keys(row.changes)[0] ?? null }));
  const { sorted, order, setOrder } = useOrder<'name' | 'field', (typeof rows)[number]>(rows, {
    by: 'name',
    descending: false,
  });
  const shown = all ? sorted : sorted.slice(0, FIRST_ROWS);
  return (
    <section className="flex min-h-0 flex-1 flex-col" aria-label={TITLES[what]}>
      <header className="flex items-baseline gap-4 pb-2">
        <h1 className="title text-[23px]">{TITLES[what]}</h1>
        <p>
          <span className="figure font-semibold">{format.number(count)}</span>{' '}
          <span className="text-soft">{count === 1 ? one : many}</span>
        </p>
      </header>
      <Trouble error={error} />
      <div className="min-h-0 flex-1 overflow-auto">
        {count === 0 && <p className="py-8 text-center text-soft">None is {what}.</p>}
        <table className="w-full text-left">
          {what === 'changed' && rows.length > 0 && (
            <thead className="sticky top-0 border-b border-edge bg-ground text-[13px]">
              <tr>
                <SortHead by="name" label={capital(one)} order={order} onOrder={setOrder} />
                <SortHead by="field" label="Field" order={order} onOrder={setOrder} text />
                <th className="py-1 pr-4 font-semibold">Was</th>
                <th className="py-1 font-semibold">Is</th>
              </tr>
            </thead>
          )}
          <tbody>
            {shown.flatMap(({ key, name, there, changes }) => {
              const fields = Object.entries(changes);
              const company = there ? (
                <Link
                  to={`/desk?company=${encodeURIComponent(source.subject === 'companies' ? key : `${source.subject}/${key}`)}`}
                  className="hover:underline"
                >
                  {name}
                </Link>
              ) : (
                <span className="text-soft">{name}</span>
              );
              if (fields.length === 0)
                return [
                  <tr key={key} className="border-b border-rule">
                    <td className="py-1.5">{company}</td>
                  </tr>,
                ];
              return fields.map(([field, { was, is }], i) => (
                <tr key={`${key} ${field}`} className={i === fields.length - 1 ? 'border-b border-rule' : ''}>
                  <td className="max-w-64 py-1 pr-4 align-top">{i === 0 && company}</td>
                  <td className="py-1 pr-4 align-top text-soft">{field}</td>
                  <td className="max-w-72 py-1 pr-4 align-top break-words">
                    <Said text={was} />
                  </td>
                  <td className="max-w-72 py-1 align-top font-semibold break-words">
                    <Said text={is} />
                  </td>
                </tr>
              ));
            })}
          </tbody>
        </table>
        {!all && rows.length > FIRST_ROWS && (
          <Button className="my-3" onClick={() => setAll(true)}>
            Show {format.number(rows.length)}
          </Button>
        )}
        {all && rows.length < count && (
          <p className="py-3 text-soft">
            The first {format.number(rows.length)} of {format.number(count)}; a list has all of them.
          </p>
        )}
      </div>
    </section>
  );
}

const FIRST_ROWS = 100;

function Said({ text }: { text: string | null }) {
  return text === null ? <em className="font-normal text-soft">unknown</em> : <>{text}</>;
}
