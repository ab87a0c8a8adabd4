import { useQueryClient } from '@tanstack/react-query';
import { lazy, Suspense, useEffect, useRef, useState } from 'react';
import { toast } from 'sonner';
import {
  editLine,
  holderOf,
  joinLines,
  lineOf,
  moveLine,
  toggleMark,
  toggleUnknown,
} from '../../core/tape/edit.ts';
import type { Line } from '../../core/tape/nodes.ts';
import { useFormat } from '../app/format.ts';
import { useKey } from '../app/keys.ts';
import { putAtOnce } from '../lists/acts.ts';
import { useLists } from '../lists/use-lists.ts';
import { usePutting } from './putting.ts';
import { Trouble } from '../ui/controls.tsx';
import { ViewBoundary } from '../ui/ViewBoundary.tsx';
import { counted, useActed, type Acted } from './acted.ts';
import { AddToListDialog } from './AddToListDialog.tsx';
import { useDeskAddress } from './address.ts';
import { useSheetVerdicts } from '../lists/review/sheet-verdicts.ts';
import { LastVerdictRow } from '../lists/review/ReasonRow.tsx';
import { useListAtHand, useReview } from '../lists/review/reviewing.ts';
import { EmptyUniverse } from './EmptyUniverse.tsx';
import { useHealth } from './queries.ts';
import { useUsualColumns } from './sheet/ColumnSets.tsx';
import { Sheet, type SheetActions } from './sheet/Sheet.tsx';
import { StageHeader } from './StageHeader.tsx';
import { useDesk } from './store.ts';
import { TapePanel } from './tape/TapePanel.tsx';

const Picker = lazy(() => import('./pickers/Picker.tsx').then((module) => ({ default: module.Picker })));
const Breakdown = lazy(() =>
  import('./breakdown/Breakdown.tsx').then((module) => ({ default: module.Breakdown })),
);
const SpotCheck = lazy(() =>
  import('./check/SpotCheck.tsx').then((module) => ({ default: module.SpotCheck })),
);
const MapView = lazy(() => import('./map/MapView.tsx').then((module) => ({ default: module.MapView })));
const Opened = lazy(() => import('../profile/Opened.tsx').then((module) => ({ default: module.Opened })));
const ExportDialog = lazy(() =>
  import('../exports/make/ExportDialog.tsx').then((module) => ({ default: module.ExportDialog })),
);

const WriteToDialog = lazy(() =>
  import('../outreach/WriteToDialog.tsx').then((module) => ({ default: module.WriteToDialog })),
);

const DescribeDialog = lazy(() =>
  import('../lists/review/DescribeDialog.tsx').then((module) => ({ default: module.DescribeDialog })),
);

const VisitsDialog = lazy(() =>
  import('../lists/VisitsDialog.tsx').then((module) => ({ default: module.VisitsDialog })),
);

/** Subjects of which somebody can be written to. */
const WRITTEN_TO: ReadonlySet<string> = new Set(['people', 'companies']);

const VIEW_NAMES = {
  sheet: 'The sheet',
  breakdown: 'Breakdown',
  map: 'The map',
  check: 'The spot check',
} as const;
const NARROW = '(max-width: 1000px)';

/** The Desk: the stage with the sheet, a picker or a profile, and the tape beside it. */
export function Desk() {
  const problem = useDeskAddress();
  useUsualColumns();
  const { data: health } = useHealth();
  const openLine = useDesk((state) => state.openLine);
  const company = useDesk((state) => state.company);
  const tape = useDesk((state) => state.tape);
  const view = useDesk((state) => state.view);
  const folded = useDesk((state) => state.folded);
  const [current, setCurrent] = useState<string | null>(null);
  const [exporting, setExporting] = useState<Acted | null>(null);
  const [listing, setListing] = useState<Acted | null>(null);
  const [writing, setWriting] = useState<Acted | null>(null);
  const [visiting, setVisiting] = useState<Acted | null>(null);
  const [describing, setDescribing] = useState<Acted | null>(null);
  const acted = useActed();
  const client = useQueryClient();
  const format = useFormat();
  const listAtHand = useListAtHand();
  const { data: lists } = useLists();
  const reasonsOpen = useReview((state) => state.reasonsOpen);
  const sheet = useRef<SheetActions | null>(null);
  const { set, change, leave } = useDesk.getState();
  const stageKey = useStageKey(openLine);
  // Digits are views again once one has gone elsewhere.
  useEffect(() => useReview.setState({ reasonsOpen: false }), [company === null, view, openLine]);
  const onStage = openLine === null && company === null;
  const onSheet = onStage && view === 'sheet';
  const line = lineOf(tape, openLine ?? current);
  const within = line ? holderOf(tape, line.id) : undefined;

  useEffect(() => {
    const narrow = window.matchMedia(NARROW);
    const fold = () => useDesk.getState().set({ folded: narrow.matches });
    fold();
    narrow.addEventListener('change', fold);
    return () => narrow.removeEventListener('change', fold);
  }, []);
  useEffect(() => {
    document.title = `${tape.name ?? (tape.lines.length ? `${tape.lines.length} lines` : 'Desk')} · Just Tally`;
  }, [tape]);

  const onLine = (edit: (line: Line) => Line) => () =>
    line && change(editLine(useDesk.getState().tape, line.id, edit));
  const stepLine = (step: number) => {
    const at = tape.lines.findIndex((one) => one.id === line?.id);
    const next = tape.lines[Math.max(0, Math.min(tape.lines.length - 1, at + step))];
    if (!next) return;
    setCurrent(next.id);
    if (openLine !== null) set({ openLine: next.id });
    document
      .querySelector<HTMLElement>(`[data-line="${CSS.escape(next.id)}"]`)
      ?.scrollIntoView({ block: 'nearest' });
  };
  const shift = (step: number) =>
    line && !within && change(moveLine(tape, line.id, tape.lines.indexOf(line) + step));
  useKey('/', () => {
    const focus = () => document.querySelector<HTMLInputElement>('[data-entry]')?.focus();
    set({ folded: false });
    // At once, for a hand that types on; once more where the tape had to be unfolded first.
    focus();
    requestAnimationFrame(focus);
  });
  useKey('j', () => sheet.current?.move(1), { off: !onSheet });
  useKey('k', () => sheet.current?.move(-1), { off: !onSheet });
  useKey('arrowdown', () => sheet.current?.move(1), { off: !onSheet });
  useKey('arrowup', () => sheet.current?.move(-1), { off: !onSheet });
  useKey('pagedown', () => sheet.current?.move(12), { off: !onSheet });
  useKey('pageup', () => sheet.current?.move(-12), { off: !onSheet });
  useKey('home', () => sheet.current?.move(-Infinity), { off: !onSheet });
  useKey('end', () => sheet.current?.move(Infinity), { off: !onSheet });
  useKey('space', () => sheet.current?.pick(), { off: !onSheet });
  useKey('ctrl+a', () => sheet.current?.pickAll(), { off: !onSheet });
  useKey('enter', () => sheet.current?.open(false), { off: !onSheet });
  useKey('shift+enter', () => sheet.current?.open(true), { off: !onSheet });
  useKey('escape', () => (openLine === null ? leave() : set({ openLine: null })), {
    off: onStage,
    everywhere: true,
  });
  useSheetVerdicts(sheet, onSheet);
  useKey('x', () => setExporting(acted), { off: acted === null });
  useKey('s', () => setListing(acted), { off: acted === null });
  useKey(
    'shift+s',
    () => {
      const last = usePutting.getState().last[acted!.tape.subject];
      // One that was removed or closed since takes nothing: it is asked for another.
      const list = lists?.lists.find(({ key, frozen, stays }) => key === last?.key && !frozen && !stays);
      if (list) void putAtOnce(client, list, acted!, format.number);
      else setListing(acted);
    },
    { off: acted === null },
  );
  useKey('t', () => setDescribing(acted), { off: !onSheet || listAtHand === null });
  const canWrite = acted !== null && WRITTEN_TO.has(acted.tape.subject);
  useKey('l', () => setWriting(acted), { off: !canWrite });
  useKey('r', () => {
    const above = tape.lines[tape.lines.findIndex((one) => one.id === line?.id) - 1];
    if (!line || !above) return;
    try {
      change(joinLines(tape, above.id, [line]));
    } catch (failure) {
      toast.error((failure as Error).message);
    }
  });
  useKey('[', () => stepLine(-1));
  useKey(']', () => stepLine(1));
  useKey('o', () => line && set({ openLine: openLine === line.id ? null : line.id, company: null }));
  useKey(
    'p',
    onLine((one) => toggleMark(one, 'parked')),
  );
  useKey(
    'n',
    onLine((one) => toggleMark(one, 'not')),
  );
  useKey(
    'm',
    // Lines within a has-line are not weighed one against the other.
    onLine((one) => (within ? one : toggleMark(one, 'must'))),
  );
  useKey('u', onLine(toggleUnknown));
  useKey('delete', () => line && change(editLine(tape, line.id, () => null)));
  useKey('alt+arrowup', () => shift(-1));
  useKey('alt+arrowdown', () => shift(1));
  useKey('1', () => set({ openLine: null, company: null, view: 'sheet' }), { off: reasonsOpen });
  useKey('2', () => set({ openLine: null, company: null, view: 'breakdown' }), { off: reasonsOpen });
  useKey('3', () => set({ openLine: null, company: null, view: 'map' }), { off: reasonsOpen });
  useKey('4', () => set({ openLine: null, company: null, view: 'check' }), { off: reasonsOpen });

  if (health?.universe === 0) return <EmptyUniverse />;
  return (
    <div className={`relative flex min-h-0 flex-1 ${folded ? 'flex-col' : ''}`}>
      <main className="flex min-h-0 min-w-0 flex-1 flex-col px-5 pt-3">
        {problem && <Trouble error={new Error(problem)} />}
        <Suspense fallback={<p className="p-6 text-soft">One moment …</p>}>
          {openLine !== null ? (
            <ViewBoundary key={stageKey} name="This line">
              <Picker openLine={openLine} />
            </ViewBoundary>
          ) : company !== null ? (
            <ViewBoundary key={company} name="This page">
              <Opened openKey={company} />
            </ViewBoundary>
          ) : (
            <>
              <StageHeader />
              <ViewBoundary key={`${view} ${tape.subject}`} name={VIEW_NAMES[view]}>
                {view === 'sheet' && <LastVerdictRow />}
                {view === 'sheet' && <Sheet ref={sheet} />}
                {view === 'breakdown' && <Breakdown />}
                {view === 'map' && <MapView />}
                {view === 'check' && <SpotCheck />}
              </ViewBoundary>
            </>
          )}
        </Suspense>
      </main>
      <TapePanel
        currentLine={openLine ?? current}
        onCurrentLine={setCurrent}
        acted={acted}
        onExport={() => setExporting(acted)}
        onList={() => setListing(acted)}
        onDescribe={listAtHand ? () => setDescribing(acted) : null}
        onWrite={canWrite ? () => setWriting(acted) : null}
        onVisit={acted?.tape.subject === 'companies' ? () => setVisiting(acted) : null}
      />
      {listing && <AddToListDialog acted={counted(listing, acted)} onClose={() => setListing(null)} />}
      {describing && listAtHand && (
        <Suspense>
          <DescribeDialog
            list={listAtHand}
            acted={counted(describing, acted)}
            onClose={() => setDescribing(null)}
          />
        </Suspense>
      )}
      {visiting && (
        <Suspense>
          <VisitsDialog acted={counted(visiting, acted)} onClose={() => setVisiting(null)} />
        </Suspense>
      )}
      {writing && (
        <Suspense>
          <WriteToDialog acted={counted(writing, acted)} onClose={() => setWriting(null)} />
        </Suspense>
      )}
      {exporting && (
        <Suspense>
          <ExportDialog acted={counted(exporting, acted)} onClose={() => setExporting(null)} />
        </Suspense>
      )}
    </div>
  );
}

/** A key for the picker of an open line: that of a condition that had no line yet stays when its first choice makes one. */
function useStageKey(openLine: string | null): string | null {
  const [kept, setKept] = useState({ openLine, key: openLine });
  if (kept.openLine === openLine) return kept.key;
  const draft = /^new:(?:[^/]*\/)?(.+)$/.exec(kept.openLine ?? '')?.[1];
  const line = lineOf(useDesk.getState().tape, openLine);
  const same = draft !== undefined && line !== undefined && 'field' in line && line.field === draft;
  const key = same ? kept.key : openLine;
  setKept({ openLine, key });
  return key;
}
