import { useSortable } from '@dnd-kit/sortable';
import clsx from 'clsx';
import { Ban, GripVertical, Pause, Pin, Play, Split, X } from 'lucide-react';
import type { ReactNode } from 'react';
import type { WordedTally } from '../../../contract/responses.ts';
import { removeLine, replaceLine, splitBlock, toggleMark, toggleUnknown } from '../../../core/tape/edit.ts';
import { isBlock, isHas, passesUnknown, type Line } from '../../../core/tape/nodes.ts';
import { useFormat } from '../../app/format.ts';
import { UnknownMark } from '../../ui/controls.tsx';
import { useDesk } from '../store.ts';
import { InnerLines, roleOf } from './InnerLines.tsx';
import { OrZone } from './OrZone.tsx';
import { Scale } from './Scale.tsx';

type Figures = WordedTally['lines'][number];

interface Props {
  line: Line;
  figures: Figures | undefined;
  /** What was left before this line. */
  before: number;
  tally: WordedTally | undefined;
  /** Id of the line that is open, which may be one within this. */
  openLine: string | null;
  /** Whether the keyboard acts on it. */
  current: boolean;
  /** One row, without scale and small words. */
  compact: boolean;
  /** Whether another line is held that could be dropped on it. */
  joinable: boolean;
  /** Joins it with the line above by *or*; undefined for the first. */
  onJoinAbove: (() => void) | undefined;
  onCurrent(id: string): void;
}

/** One line of the tape: what it asks, what it left, what it cut, and what it costs. */
export function TapeLine({
  line,
  figures,
  before,
  tally,
  openLine,
  current,
  compact,
  joinable,
  onJoinAbove,
  onCurrent,
}: Props) {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } =
    useSortable({ id: line.id });
  const { tape, change, set } = useDesk.getState();
  const format = useFormat();
  const inner = isBlock(line) ? line.either.filter(isHas) : isHas(line) ? [line] : [];
  const act = (next: Line) => change(replaceLine(tape, next));
  const more = figures && tally ? figures.without - tally.tally : 0;
  const holdsBack = tally?.holdsBackMost === line.id;
  const open = openLine === line.id;
  const label =
    figures?.words.label ?? (isBlock(line) ? 'Either' : isHas(line) ? `Has ${line.has}` : line.field);

  return (
    <li
      ref={setNodeRef}
      style={{ transform: transform ? `translate3d(0, ${transform.y}px, 0)` : undefined, transition }}
      className={clsx(
        'group relative border-b border-dashed border-edge/70 pr-4 pl-10',
        compact && !open ? 'py-1' : 'py-2',
        holdsBack && 'bg-wash',
        isDragging && 'z-10 bg-paper shadow-md',
        open && 'bg-ground/70',
        (open || current) && 'shadow-[inset_3px_0_0_var(--ink)]',
      )}
      onFocus={() => onCurrent(line.id)}
    >
      <button
        ref={setActivatorNodeRef}
        type="button"
        {...attributes}
        {...listeners}
        aria-label={`Move ${label}`}
        className="absolute top-2 left-3 cursor-grab rounded p-0.5 text-edge hover:text-ink focus-visible:text-ink"
      >
        <GripVertical size={14} />
      </button>
      <button
        type="button"
        data-line={line.id}
        aria-expanded={open}
        onClick={() => set({ openLine: open ? null : line.id, company: null })}
        className={clsx('flex w-full items-start gap-3 text-left', line.parked && 'text-soft')}
      >
        <span
          className={clsx('min-w-0 flex-1 leading-snug break-words', compact && !open && 'truncate')}
          title={compact ? figures?.words.text : undefined}
        >
          {line.not && <strong className="text-cut">not </strong>}
          <strong>{label}</strong>{' '}
          {isHas(line) && !compact ? roleOf(line, tape.subject) : figures?.words.text}
          {line.must && (
            <span className="ml-1.5 rounded border border-edge px-1 text-[11px] text-soft">must</span>
          )}
        </span>
        {line.parked ? (
          <span className="flex items-center gap-1 pt-0.5 text-[13px] whitespace-nowrap text-soft">
            <Pause size={12} fill="currentColor" /> parked
          </span>
        ) : (
          figures && (
            <span className="figure text-right leading-tight whitespace-nowrap">
              <span className={clsx('text-[15px] font-semibold', (!compact || open) && 'block')}>
                {format.number(figures.subtotal)}
              </span>
              <span
                className={clsx(
                  'text-[12px]',
                  compact && !open ? 'ml-2' : 'block',
                  figures.cut > 0 ? 'text-cut' : 'text-soft',
                )}
              >
                {figures.cut > 0 ? `−${format.number(figures.cut)}` : 'cuts 0'}
              </span>
            </span>
          )
        )}
      </button>
      {!line.parked && figures && (!compact || open) && (
        <>
          <div className="flex flex-wrap items-center gap-x-3 text-[12px] leading-5">
            {more > 0 && (
              <span
                className={clsx(holdsBack && 'font-semibold text-cut')}
              >{`${format.number(more)} more without it${holdsBack ? ' · holds back most' : ''}`}</span>
            )}
            {figures.unknown > 0 && (
              <button
                type="button"
                className="text-unsure hover:underline"
                title={`${reasonsText(figures, format.number)}Click to ${passesUnknown(line) ? 'leave them out' : 'keep them'} (U)`}
                onClick={() => act(toggleUnknown(line))}
              >
                <UnknownMark />
                {format.number(figures.unknown)} unknown, {passesUnknown(line) ? 'kept' : 'left out'}
              </button>
            )}
            {!!figures.kin && (
              <span title="Found by their codes in other schemes alone">
                {format.number(figures.kin)} by kin codes
              </span>
            )}
            {!!figures.estimated && (
              <span
                className="text-unsure"
                title={`${format.number(figures.straddling ?? 0)} of them could lie on the other side of a limit`}
              >
                {format.number(figures.estimated)} on an estimate
              </span>
            )}
          </div>
          {inner.length > 0 && (
            <InnerLines lines={inner} figures={figures} openLine={openLine} onCurrent={onCurrent} />
          )}
          {open && (
            <p className="text-[12px] leading-5 text-soft">
              <span className="figure text-ink">{format.number(figures.alone)}</span> pass this line alone
              {figures.branches?.map((branch, i) => (
                <span key={branch.id}>
                  {i === 0 ? '; branches ' : ', '}
                  <span className="figure text-ink">{format.number(branch.alone)}</span>
                </span>
              ))}
            </p>
          )}
          <Scale universe={tally!.universe} before={before} subtotal={figures.subtotal} />
        </>
      )}
      {joinable && <OrZone lineId={line.id} />}
      <div
        className={clsx(
          'absolute right-3 bottom-3.5 flex gap-0.5 rounded-md border border-rule bg-paper px-0.5 shadow-sm',
          !current && 'opacity-0 group-focus-within:opacity-100 group-hover:opacity-100',
        )}
      >
        <Mark
          on={line.not === true}
          name={line.not ? 'Keep what matches (N)' : 'Take out what matches (N)'}
          onClick={() => act(toggleMark(line, 'not'))}
        >
          <Ban size={13} />
        </Mark>
        <Mark
          on={line.must === true}
          name={line.must ? 'Up for discussion again (M)' : 'Not up for discussion (M)'}
          onClick={() => act(toggleMark(line, 'must'))}
        >
          <Pin size={13} />
        </Mark>
        <Mark
          on={line.parked === true}
          name={line.parked ? 'Count it again (P)' : 'Park it (P)'}
          onClick={() => act(toggleMark(line, 'parked'))}
        >
          {line.parked ? <Play size={13} /> : <Pause size={13} />}
        </Mark>
        {onJoinAbove && (
          <Mark on={false} name="Either this or the line above (R)" onClick={onJoinAbove}>
            <span className="px-0.5 text-[11px] leading-[13px]">or</span>
          </Mark>
        )}
        {isBlock(line) && (
          <Mark
            on={false}
            name="Take the block apart"
            onClick={() => change(splitBlock(useDesk.getState().tape, line.id))}
          >
            <Split size={13} />
          </Mark>
        )}
        <Mark on={false} name="Take the line off (Delete)" onClick={() => change(removeLine(tape, line.id))}>
          <X size={13} />
        </Mark>
      </div>
    </li>
  );
}

function Mark({
  on,
  name,
  onClick,
  children,
}: {
  on: boolean;
  name: string;
  onClick(): void;
  children: ReactNode;
}) {
  return (
    <button
      type="button"
      aria-label={name}
      title={name}
      aria-pressed={on}
      onClick={onClick}
      className={clsx('rounded p-1', on ? 'bg-ink text-paper' : 'text-soft hover:bg-ground hover:text-ink')}
    >
      {children}
    </button>
  );
}

function reasonsText(figures: Figures, number: (value: number) => string): string {
  const reasons = Object.entries(figures.reasons ?? {});
  return reasons.length
    ? `Why: ${reasons.map(([reason, count]) => `${reason} ${number(count)}`).join(', ')}. `
    : '';
}
