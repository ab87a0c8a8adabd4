import { useQueryClient } from '@tanstack/react-query';
import { lazy, Suspense, useRef, useState } from 'react';
import { toast } from 'sonner';
import type { ListView } from '../../contract/lists.ts';
import type { WordedTally } from '../../contract/responses.ts';
import { MOST_COMBINED } from '../../core/lists/combine.ts';
import { SCORE_COLUMN } from '../../core/tape/own-columns.ts';
import { turnRound } from '../../core/tape/turn.ts';
import { fold } from '../../core/text/fold.ts';
import { call } from '../api.ts';
import { useFormat } from '../app/format.ts';
import { did, said } from '../app/history.ts';
import { useKey } from '../app/keys.ts';
import type { Acted } from '../desk/acted.ts';
import { NO_PICKS } from '../desk/picks.ts';
import { putTapeOnList } from '../desk/putting.ts';
import { useDesk } from '../desk/store.ts';
import { Button, Kbd, Trouble } from '../ui/controls.tsx';
import { FindBox } from '../ui/FindBox.tsx';
import { useOrder } from '../ui/SortHead.tsx';
import { combineLists, removeList, restoreList, takeAway } from './acts.ts';
import { CombineDialog } from './CombineDialog.tsx';
import { ListDialog } from './ListDialog.tsx';
import { ListRoll } from './ListRoll.tsx';
import { ListTable, type By, type ListTableActions, type Seen } from './ListTable.tsx';
import { useOpenList, useOpenTape } from './open-list.ts';
import { Shares } from './Shares.tsx';
import { tapeOfList, useLists } from './use-lists.ts';
import { VerdictLegend } from './VerdictStrip.tsx';

const ExportDialog = lazy(() =>
  import('../exports/make/ExportDialog.tsx').then((module) => ({ default: module.ExportDialog })),
);

const WriteToDialog = lazy(() =>
  import('../outreach/WriteToDialog.tsx').then((module) => ({ default: module.WriteToDialog })),
);

const VisitsDialog = lazy(() =>
  import('./VisitsDialog.tsx').then((module) => ({ default: module.VisitsDialog })),
);

/** What Lists sorts by: dates as days, so that lists changed on one day stand by name. */
const sortable = (list: ListView) => ({
  ...list,
  holds: list.subject,
  verdicts: list.members === 0 ? null : (list.members - list.notJudged) / list.members,
  changed: list.changedAt,
});

/** All lists with how they were judged; the roll on the right shows how the selected one came to its members. */
export function Lists() {
  const format = useFormat();
  const client = useQueryClient();
  const openOnDesk = useOpenList();
  const openTape = useOpenTape();
  const { data, error } = useLists();
  const [text, setText] = useState('');
  const [folder, setFolder] = useState<string | null>(null);
  const [currentKey, setCurrentKey] = useState<string | null>(null);
  const [picked, setPicked] = useState<ReadonlySet<string>>(new Set());
  const [editing, setEditing] = useState<ListView | 'new' | null>(null);
  const [combining, setCombining] = useState<readonly ListView[] | null>(null);
  const [exporting, setExporting] = useState<Acted | null>(null);
  const [writing, setWriting] = useState<Acted | null>(null);
  const [visiting, setVisiting] = useState<Acted | null>(null);
  const [showRemoved, setShowRemoved] = useState(false);
  const box = useRef<HTMLDivElement>(null);
  const table = useRef<ListTableActions>(null);
  const all = data?.lists ?? [];
  const folders = [...new Set(all.map((list) => list.folder).filter(Boolean))].sort();
  const words = fold(text.trim());
  const found = all.filter(
    (list) =>
      (folder === null || list.folder === folder) &&
      fold([list.name, list.purpose, list.folder, list.owner].join(' ')).includes(words),
  );
  const { sorted, order, setOrder } = useOrder<By, ReturnType<typeof sortable>>(found.map(sortable), {
    by: 'changed',
    descending: true,
  });
  const current = all.find(({ key }) => key === currentKey) ?? sorted[0] ?? null;
  const pickedLists = all.filter(({ key }) => picked.has(key));

  const move = (step: number) => {
    const at = sorted.findIndex(({ key }) => key === current?.key);
    const next = sorted[Math.max(0, Math.min(sorted.length - 1, at + step))];
    if (!next) return;
    setCurrentKey(next.key);
    table.current?.scrollTo(sorted.indexOf(next));
  };
  const toggle = (key: string) => {
    const now = new Set(picked);
    if (!now.delete(key)) now.add(key);
    setPicked(now);
  };
  const attempt = async (work: () => Promise<unknown>) => {
    try {
      await work();
    } catch (failure) {
      toast.error((failure as Error).message);
    }
  };
  const combine = () => {
    const lists = pickedLists.length > 1 ? pickedLists : [];
    if (lists.length < 2) return toast('Pick two to six lists with Space, then combine them.');
    if (lists.length > MOST_COMBINED) return toast(`At most ${MOST_COMBINED} lists can be combined at once.`);
    if (new Set(lists.map(({ subject }) => subject)).size > 1)
      return toast('Lists of different kinds of records have nobody in common.');
    setCombining([...lists].sort((a, b) => Number(b.key === current?.key) - Number(a.key === current?.key)));
  };
  const actOn = (list: ListView, act: (acted: Acted) => void) =>
    attempt(async () => {
      const tape = tapeOfList(list);
      const { tally } = await call<WordedTally>('POST', '/tally', { tape });
      act({ tape, sort: [], picks: NO_PICKS, one: false, count: tally, gone: 0, total: tally });
    });
  const exportList = (list: ListView) => actOn(list, setExporting);
  const putOn = (list: ListView) => putTapeOnList(tapeOfList(list), null);
  const writeTo = (list: ListView) => actOn(list, setWriting);
  const visit = (list: ListView) => actOn(list, setVisiting);
  const remove = (list: ListView) =>
    attempt(async () => {
      await removeList(client, list);
      said(`Removed the list ${list.name}; it can be had back for 30 days`);
    });
  const shortlist = (list: ListView) =>
    attempt(async () => {
      const name = `${list.name}, shortlist`.slice(0, 120);
      const part = { list: list.key, verdict: ['in' as const] };
      const made = await combineLists(client, { parts: [part], way: 'both', name, stays: false });
      said(`${format.number(made.members)} on ${made.name}`);
      setCurrentKey(made.key);
    });
  const duplicate = (list: ListView) =>
    attempt(async () => {
      const name = `${list.name}, copy`.slice(0, 120);
      const made = await combineLists(client, {
        parts: [{ list: list.key }],
        way: 'both',
        name,
        stays: false,
      });
      said(`Made ${made.name}`);
      setCurrentKey(made.key);
    });

  const see = (list: ListView, what: Seen) => {
    const tape = tapeOfList(list);
    if (what === 'breakdown' || what === 'map') {
      openOnDesk(list, {}, what);
      if (what === 'breakdown') useDesk.getState().set({ against: 'universe' });
    } else if (what === 'peers') {
      const like = { id: 'l1', field: 'peers', test: { list: list.key, from: 0.5 } };
      const lacking = { id: 'l2', field: 'list', test: { any: [list.key] }, not: true as const };
      openTape({ ...tape, name: `More like ${list.name}`, lines: [like, lacking] }, undefined, 'sheet', [
        { by: `${SCORE_COLUMN}l1`, descending: true },
      ]);
    } else openTape(turnRound(tape, what));
  };

  useKey('j', () => move(1));
  useKey('k', () => move(-1));
  useKey('arrowdown', () => move(1));
  useKey('arrowup', () => move(-1));
  useKey('space', () => current && toggle(current.key));
  useKey('enter', () => current && openOnDesk(current));
  useKey('c', combine);
  useKey('x', () => current && void exportList(current));
  useKey('l', () => {
    if (current?.subject === 'people' || current?.subject === 'companies') void writeTo(current);
  });
  useKey('s', () => {
    if (current && current.members > 0) putOn(current);
  });
  useKey('n', () => setEditing('new'));
  useKey('delete', () => current && void remove(current));

  return (
    <div className="flex min-h-0 flex-1">
      <main className="flex min-h-0 min-w-0 flex-1 flex-col px-5 pt-3">
        <div className="flex items-center gap-3 border-b border-edge pb-2.5">
          <h1 className="title flex-1 text-[21px]">Lists</h1>
          <FindBox label="Find a list" value={text} onChange={setText} />
          <select
            aria-label="Folder"
            className="field py-1"
            value={folder ?? ''}
            onChange={(event) => setFolder(event.target.value || null)}
          >
            <option value="">All folders</option>
            {folders.map((one) => (
              <option key={one}>{one}</option>
            ))}
          </select>
          <Button onClick={() => setEditing('new')}>
            New list <Kbd>n</Kbd>
          </Button>
        </div>
        <Trouble error={error} />
        <div ref={box} className="min-h-0 flex-1 overflow-y-auto">
          {data && all.length === 0 && (
            <p className="py-6 text-soft">
              None yet. On the Desk, pick rows with Space and press S to put them on a list; with none picked,
              all of the tape goes on it.
            </p>
          )}
          {all.length > 0 && (
            <ListTable
              ref={table}
              box={box}
              lists={sorted}
              order={order}
              onOrder={setOrder}
              current={current?.key ?? null}
              picked={picked}
              onCurrent={setCurrentKey}
              onPick={toggle}
              onOpen={openOnDesk}
              onEdit={setEditing}
              onRemove={(list) => void remove(list)}
              onShortlist={(list) => void shortlist(list)}
              onDuplicate={(list) => void duplicate(list)}
              onSee={see}
            />
          )}
          {all.length > 0 && found.length === 0 && (
            <p className="py-4 text-soft">No list has these words. Esc leaves the search.</p>
          )}
          {current && <Shares list={current} onList={setCurrentKey} />}
          {data && data.removed.length > 0 && (
            <section className="pt-5 pb-4">
              <Button look="quiet" aria-expanded={showRemoved} onClick={() => setShowRemoved(!showRemoved)}>
                Lately removed: {data.removed.length}
              </Button>
              {showRemoved && (
                <ul aria-label="Lately removed">
                  {data.removed.map((list) => (
                    <li key={list.key} className="flex items-baseline gap-3 border-b border-rule py-1">
                      <span className="flex-1">{list.name}</span>
                      <span className="text-[13px] text-soft">
                        <span className="figure">{format.number(list.members)}</span> {list.subject}, removed{' '}
                        {format.date(list.removedAt!.slice(0, 10))}
                      </span>
                      <Button
                        look="quiet"
                        onClick={() =>
                          void attempt(async () => {
                            await restoreList(client, list.key);
                            did(`${list.name} is back`, {
                              name: `having ${list.name} back`,
                              undo: () => takeAway(client, list.key),
                              redo: () => restoreList(client, list.key),
                            });
                          })
                        }
                      >
                        Have it back
                      </Button>
                    </li>
                  ))}
                </ul>
              )}
            </section>
          )}
        </div>
        <footer className="flex items-center gap-3 border-t border-edge py-2 text-[13px]">
          <span>
            <span className="figure font-semibold">{picked.size}</span> picked
          </span>
          {picked.size > 0 ? (
            <>
              <Button look="quiet" onClick={() => setPicked(new Set())}>
                Let go
              </Button>
              {picked.size > 1 && (
                <Button onClick={combine}>
                  Combine <Kbd>C</Kbd>
                </Button>
              )}
            </>
          ) : (
            <span className="text-soft">
              Pick two to combine <Kbd>Space</Kbd>
            </span>
          )}
          <span className="ml-auto">
            <VerdictLegend />
          </span>
        </footer>
      </main>
      <ListRoll
        list={current}
        onCombine={combine}
        onExport={(list) => void exportList(list)}
        onPut={putOn}
        onWrite={(list) => void writeTo(list)}
        onVisit={(list) => void visit(list)}
      />
      {editing && (
        <ListDialog
          list={editing === 'new' ? null : editing}
          folders={folders}
          onClose={() => setEditing(null)}
          onMade={(list) => setCurrentKey(list.key)}
        />
      )}
      {combining && (
        <CombineDialog
          lists={combining}
          onClose={() => setCombining(null)}
          onMade={(list) => {
            setCombining(null);
            setPicked(new Set());
            setCurrentKey(list.key);
          }}
        />
      )}
      {visiting && (
        <Suspense>
          <VisitsDialog acted={visiting} onClose={() => setVisiting(null)} />
        </Suspense>
      )}
      {writing && (
        <Suspense>
          <WriteToDialog acted={writing} onClose={() => setWriting(null)} />
        </Suspense>
      )}
      {exporting && (
        <Suspense>
          <ExportDialog acted={exporting} onClose={() => setExporting(null)} />
        </Suspense>
      )}
    </div>
  );
}
