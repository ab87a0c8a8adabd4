import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  pointerWithin,
  useSensor,
  useSensors,
  type CollisionDetection,
} from '@dnd-kit/core';
import { SortableContext, sortableKeyboardCoordinates, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { PanelRightClose, PanelRightOpen } from 'lucide-react';
import { useState } from 'react';
import { toast } from 'sonner';
import { subjectOf } from '../../../core/fields/registry.ts';
import type { PersonFunction } from '../../../core/people/functions.ts';
import type { Acted } from '../acted.ts';
import { putLines } from '../../../core/tape/also.ts';
import { addLines, freeId, joinLines, moveLine } from '../../../core/tape/edit.ts';
import type { Line } from '../../../core/tape/nodes.ts';
import { rightPersonLine } from '../../../core/tape/right-person.ts';
import { useFormat } from '../../app/format.ts';
import { ReviewRoll } from '../../lists/review/ReviewRoll.tsx';
import { Button, Kbd, Trouble } from '../../ui/controls.tsx';
import { useTally } from '../queries.ts';
import { useDesk } from '../store.ts';
import { Entry } from './Entry.tsx';
import { NearDialog } from './NearDialog.tsx';
import { OR_ZONE } from './OrZone.tsx';
import { TapeLine } from './TapeLine.tsx';
import { TapeMenu } from './TapeMenu.tsx';

/** A hand on another line's drop place joins; anywhere else it moves. */
const zonesFirst: CollisionDetection = (args) => {
  const isZone = (id: string | number) => String(id).startsWith(OR_ZONE);
  const zones = pointerWithin({
    ...args,
    droppableContainers: args.droppableContainers.filter(({ id }) => isZone(id)),
  });
  if (zones.length) return zones;
  return closestCenter({
    ...args,
    droppableContainers: args.droppableContainers.filter(({ id }) => !isZone(id)),
  });
};

/** What may be typed of each subject. */
const EXAMPLES: Readonly<Record<string, string>> = {
  companies: 'nace 25.51; in Czechia, Poland; 20-249 staff',
  sites: 'works; in Czechia; headcount 20+',
  people: 'purchasing; director+; has company (nace 25.51)',
  deals: 'growth loan; past 18 months; has company as target (in Poland)',
  brands: 'channel dealers 40+; category coatings',
  events: 'job opening; past 3 months; has company (nace 25.51)',
};

/** The tape beside the stage: entry on top, lines, and the tally below. Folds to its tally. */
export function TapePanel({
  currentLine,
  onCurrentLine,
  acted,
  onExport,
  onList,
  onWrite,
  onVisit,
  onDescribe,
}: {
  currentLine: string | null;
  onCurrentLine(id: string | null): void;
  /** What the acts at the foot are on; null where there is nothing. */
  acted: Acted | null;
  onExport(): void;
  onList(): void;
  /** Null where nobody can be written to of the subject. */
  onWrite: (() => void) | null;
  /** The same of what cannot be visited. */
  onVisit: (() => void) | null;
  /** Null where the tape stands on no list that says things of its members. */
  onDescribe: (() => void) | null;
}) {
  /** What the open record is one of; undefined where the acts are on the tape. */
  const openOne = acted?.one ? subjectOf(acted.tape.subject).one : undefined;
  const tape = useDesk((state) => state.tape);
  const openLine = useDesk((state) => state.openLine);
  const folded = useDesk((state) => state.folded);
  const { change, set } = useDesk.getState();
  const { data: tally, error, isPlaceholderData } = useTally();
  const format = useFormat();
  const [said, setSaid] = useState('');
  const [near, setNear] = useState(false);
  const [dragged, setDragged] = useState<string | null>(null);
  const compact = useDesk((state) => state.compact);
  const join = (id: string, line: Line) => {
    try {
      change(joinLines(useDesk.getState().tape, id, [line]));
      setSaid('Lines joined by or.');
    } catch (failure) {
      toast.error((failure as Error).message);
    }
  };
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const { many } = subjectOf(tape.subject);
  const figuresOf = new Map(tally?.lines.map((line) => [line.id, line]));
  const left = (at: number) =>
    at < 0 ? (tally?.universe ?? 0) : (figuresOf.get(tape.lines[at]!.id)?.subtotal ?? 0);

  if (folded)
    return (
      <aside
        aria-label="Tape"
        className="flex items-center gap-4 border-t-2 border-double border-ink bg-paper px-4 py-2"
      >
        <span className="figure text-3xl font-semibold">{tally ? format.number(tally.tally) : '…'}</span>
        <span className="text-soft">
          {many} · {tape.lines.length} lines
        </span>
        <Button className="ml-auto" onClick={() => set({ folded: false })}>
          <PanelRightOpen size={15} /> Open the tape
        </Button>
        <Button look="ink" onClick={onExport}>
          Export
        </Button>
      </aside>
    );

  return (
    <aside
      aria-label="Tape"
      className="flex w-[384px] shrink-0 flex-col border-l border-edge bg-paper max-[1000px]:absolute max-[1000px]:inset-y-0 max-[1000px]:right-0 max-[1000px]:z-20 max-[1000px]:shadow-xl"
    >
      <Entry
        main
        tape={tape}
        placeholder={
          tape.subject === 'companies'
            ? '“50-249 staff”, “near Brno 60 km” …'
            : '“past 18 months”, “has company (in Czechia)” …'
        }
        onLines={(lines, joint) => change(putLines(useDesk.getState().tape, lines, joint))}
        onField={(field) => set({ openLine: `new:${field}`, company: null })}
        onHas={(has) => {
          const now = useDesk.getState().tape;
          const id = freeId(now);
          change(addLines(now, [{ id, has, lines: [] }]));
          set({ openLine: id, company: null });
        }}
        {...(tape.subject === 'companies'
          ? {
              onRight: (functions: readonly PersonFunction[]) => {
                const now = useDesk.getState().tape;
                change(addLines(now, [rightPersonLine(functions, freeId(now))]));
              },
            }
          : {})}
      />
      <div className="min-h-0 flex-1 overflow-y-auto">
        <div className="flex justify-between border-b border-dashed border-edge/70 py-1.5 pr-4 pl-10">
          <span className="text-soft">all {many}</span>
          {tape.lines.length > 3 && (
            <button
              type="button"
              className="ml-3 text-[12px] text-soft underline decoration-rule underline-offset-4 hover:text-ink"
              aria-pressed={compact}
              onClick={() => useDesk.getState().setCompact(!compact)}
            >
              {compact ? 'open all lines' : 'one row a line'}
            </button>
          )}
          <span className="flex-1" />
          <span className="figure text-[15px] font-semibold">
            {tally ? format.number(tally.universe) : '…'}
          </span>
        </div>
        {error && (
          <div className="p-4">
            <Trouble error={error} />
          </div>
        )}
        <DndContext
          sensors={sensors}
          collisionDetection={zonesFirst}
          onDragStart={({ active }) => setDragged(String(active.id))}
          onDragCancel={() => setDragged(null)}
          onDragEnd={({ active, over }) => {
            setDragged(null);
            if (over && String(over.id).startsWith(OR_ZONE)) {
              const moved = tape.lines.find((line) => line.id === active.id);
              if (moved) join(String(over.id).slice(OR_ZONE.length), moved);
            } else if (over && active.id !== over.id) {
              change(
                moveLine(
                  tape,
                  String(active.id),
                  tape.lines.findIndex((line) => line.id === over.id),
                ),
              );
              setSaid('Line moved.');
            }
          }}
        >
          <SortableContext items={tape.lines.map((line) => line.id)} strategy={verticalListSortingStrategy}>
            <ol aria-label="Lines" className={isPlaceholderData ? 'opacity-80' : ''}>
              {tape.lines.map((line, i) => (
                <TapeLine
                  key={line.id}
                  line={line}
                  figures={figuresOf.get(line.id)}
                  before={left(i - 1)}
                  tally={tally}
                  openLine={openLine}
                  current={currentLine === line.id}
                  compact={compact}
                  joinable={dragged !== null && dragged !== line.id}
                  onJoinAbove={i > 0 ? () => join(tape.lines[i - 1]!.id, line) : undefined}
                  onCurrent={onCurrentLine}
                />
              ))}
            </ol>
          </SortableContext>
        </DndContext>
        <ReviewRoll />
        {tape.lines.length === 0 && (
          <div className="py-4 pr-6 pl-10 text-soft">
            <p>
              Nothing is left out yet. Type a condition above, or pick one with +. Several at once are
              separated by a semicolon:
            </p>
            <p className="figure mt-2 text-[12px] leading-5 text-ink">{EXAMPLES[tape.subject]}</p>
          </div>
        )}
      </div>
      <footer className="border-t-3 border-double border-ink px-4 pt-2 pb-3">
        <div className="flex items-end justify-between gap-3">
          <div className="pb-1">
            <p className="font-semibold">{many}</p>
            <p className="text-[13px] text-soft">
              {tally && tally.estimated > 0 ? (
                <span className="text-unsure">{format.number(tally.estimated)} on an estimate</span>
              ) : tally ? (
                'counted exactly'
              ) : (
                'counting …'
              )}
            </p>
            {tape.lines.length > 0 && (
              <button
                type="button"
                className="text-[13px] text-soft underline decoration-rule underline-offset-4 hover:text-ink"
                onClick={() => setNear(true)}
              >
                about how many, please?
              </button>
            )}
            {tally !== undefined && tally.suppressed > 0 && (
              <p className="text-[13px] text-cut">
                <span className="figure">{format.number(tally.suppressed)}</span> of these{' '}
                {tally.suppressed === 1 ? 'is' : 'are'} kept off exports
              </p>
            )}
            {tape.first !== undefined && (
              <p className="text-[13px] text-soft">
                exports take the first <span className="figure">{format.number(tape.first)}</span>
                <Button
                  look="quiet"
                  aria-label="Export all again"
                  title="Export all again"
                  onClick={() => {
                    const { first: _, ...whole } = tape;
                    change(whole);
                  }}
                >
                  ×
                </Button>
              </p>
            )}
          </div>
          <output
            aria-live="polite"
            aria-label="Tally"
            data-tally={tally && !isPlaceholderData ? tally.tally : undefined}
            className="figure text-5xl leading-none font-semibold tracking-tight"
          >
            {tally ? format.number(tally.tally) : '…'}
          </output>
        </div>
        <div className="mt-3.5 flex items-center gap-2">
          <Button look="ink" onClick={onExport} disabled={!acted} title={openOne && `Export this ${openOne}`}>
            {openOne ? 'Export this' : 'Export'} <Kbd>X</Kbd>
          </Button>
          <Button
            onClick={onList}
            disabled={!acted || acted.count === 0}
            title={openOne && `Put this ${openOne} on a list`}
          >
            {openOne ? 'To list' : 'Add to list'} <Kbd>S</Kbd>
          </Button>
          <TapeMenu onWrite={onWrite} onVisit={onVisit} onDescribe={onDescribe} />
          <Button
            look="quiet"
            className="ml-auto"
            title="Fold the tape to its tally"
            aria-label="Fold the tape"
            onClick={() => set({ folded: true })}
          >
            <PanelRightClose size={16} />
          </Button>
        </div>
        <p className="sr-only" aria-live="polite">
          {said}
        </p>
        {near && <NearDialog onClose={() => setNear(false)} />}
      </footer>
    </aside>
  );
}
