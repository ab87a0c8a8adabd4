import clsx from 'clsx';
import { useImperativeHandle, useLayoutEffect, useRef, useState, type Ref } from 'react';
import { toast } from 'sonner';
import type { PlaceCell, Row } from '../../../core/cells.ts';
import { subjectOf } from '../../../core/fields/registry.ts';
import type { SortKey, Tape } from '../../../core/tape/nodes.ts';
import type { Field } from '../../../core/fields/field.ts';
import { linesOfValue } from '../../../core/tape/value-lines.ts';
import { useFormat } from '../../app/format.ts';
import { useKey } from '../../app/keys.ts';
import { Button, Kbd, Trouble } from '../../ui/controls.tsx';
import { addressOf } from '../address.ts';
import { openKeyOf } from '../open-key.ts';
import { useTally } from '../queries.ts';
import { isPicked, NO_PICKS, pickedCount, withPicked, withRun } from '../picks.ts';
import { useColumns, useDesk } from '../store.ts';
import { Cell } from './Cell.tsx';
import { MOST_COPIED, rowsAsTable } from './copy-rows.ts';
import { FindWithin } from './FindWithin.tsx';
import { frozenStyle, PICK_WIDTH } from './frozen.ts';
import { SheetHeader } from './SheetHeader.tsx';
import { columnOf, type ShownColumn } from './columns.ts';
import { columnWidths } from './row-geometry.ts';
import { useRowWindow } from './row-window.ts';
import { SheetSummary } from './SheetSummary.tsx';
import { useRows } from './use-rows.ts';
import { ValueMenu, type PickedValue } from './ValueMenu.tsx';

const ROW_HEIGHT = 38;
/** Rows between two that are picked one by one; longer runs are kept as what they are. */
const MOST_BY_KEY = 500;

/** Where the sheet of a tape was left, so that a company can be opened and closed without losing the place. */
let lastPlace: { tape: Tape; sort: readonly SortKey[]; top: number } | null = null;

/** What the keyboard can ask of the sheet. */
export interface SheetActions {
  move(step: number): void;
  pick(): void;
  pickAll(): void;
  open(inNewTab: boolean): void;
  /** The row at hand. */
  current(): { key: string; name: string } | null;
}

/** Who is left, as rows; only those in view are fetched and drawn. */
export function Sheet({ ref }: { ref: Ref<SheetActions> }) {
  const columns = useColumns();
  const widths = useDesk((state) => state.widths);
  const picks = useDesk((state) => state.picks);
  const cursor = useDesk((state) => state.cursor);
  const tape = useDesk((state) => state.tape);
  const sort = useDesk((state) => state.sort);
  const { set } = useDesk.getState();
  const format = useFormat();
  const { data: tally } = useTally();
  const box = useRef<HTMLDivElement>(null);
  const total = tally?.tally ?? 0;
  const view = useRowWindow(box, total, ROW_HEIGHT);
  const { one, many } = subjectOf(tape.subject);
  const wanted = withUnder(tape.subject, columns);
  const rows = useRows(view.first, view.count, wanted);
  const fields = columns.flatMap((id) => columnOf(tape, id, tally) ?? []);
  const frozen = Math.min(
    useDesk((state) => state.frozen),
    fields.length,
  );
  const fixed = columnWidths(fields, widths, view.width - PICK_WIDTH);
  // Columns that stay have the width they say, since the next one stands where they end.
  const template = `${PICK_WIDTH}px ${fixed.map((px, i) => (i < frozen && i < fields.length - 1 ? `${px}px` : `minmax(${px}px, ${px}fr)`)).join(' ')}`;
  const width = PICK_WIDTH + fixed.reduce((sum, px) => sum + px, 0);
  const [value, setValue] = useState<PickedValue | null>(null);
  const lastPicked = useRef(0);

  useLayoutEffect(() => {
    const element = box.current!;
    if (lastPlace?.tape === tape && lastPlace.sort === sort) element.scrollTo({ top: lastPlace.top });
    else
      element.scrollTo({
        top: cursor * ROW_HEIGHT > element.clientHeight ? (cursor - 3) * ROW_HEIGHT : 0,
        left: 0,
      });
    const remember = () => (lastPlace = { tape, sort, top: element.scrollTop });
    element.addEventListener('scroll', remember, { passive: true });
    return () => element.removeEventListener('scroll', remember);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the cursor places the sheet when it opens; later it is scrolled to by keys
  }, [tape, sort, total > 0]);

  const toggle = (at: number, range: boolean) => {
    const row = rows.row(at);
    if (!row) return;
    const picked = !isPicked(picks, row.key, at);
    if (range && lastPicked.current !== at) {
      const [from, to] = [Math.min(at, lastPicked.current), Math.max(at, lastPicked.current)];
      if (picks.mode === 'some' && to - from >= MOST_BY_KEY)
        set({ picks: withRun(picks, [from, to], picked) });
      else
        void rows
          .keysBetween(from, to)
          .then((keys) =>
            set({
              picks: withPicked(
                useDesk.getState().picks,
                keys.map((key, i) => ({ key, at: from + i })),
                picked,
              ),
            }),
          )
          .catch((failure: unknown) => toast.error((failure as Error).message));
    } else set({ picks: withPicked(picks, [{ key: row.key, at }], picked) });
    lastPicked.current = at;
  };
  const openKey = (key: string) => openKeyOf(tape.subject, key);
  const companyAddress = (key: string) =>
    addressOf({ ...useDesk.getState(), company: openKey(key), openLine: null });

  const pickAll = () =>
    set({ picks: pickedCount(picks, total) === total ? NO_PICKS : { mode: 'all', except: new Set() } });
  useImperativeHandle(ref, () => ({
    move(step) {
      const next = Math.max(0, Math.min(total - 1, cursor + step));
      set({ cursor: next });
      view.scrollTo(next);
    },
    pick: () => toggle(cursor, false),
    pickAll,
    open(inNewTab) {
      const row = rows.row(cursor);
      if (!row) return;
      if (inNewTab) window.open(companyAddress(row.key), '_blank', 'noopener');
      else set({ company: openKey(row.key), openLine: null });
    },
    current() {
      const row = rows.row(cursor);
      return row ? { key: row.key, name: (row.cells.name as string | null) ?? row.key } : null;
    },
  }));

  const count = pickedCount(picks, total);
  useKey('ctrl+c', () => {
    if (window.getSelection()?.toString()) return document.execCommand('copy');
    const wanted = Math.max(1, count);
    if (wanted > MOST_COPIED)
      return toast.error(
        `${format.number(wanted)} rows are too many for the clipboard (${format.number(MOST_COPIED)} fit); export them instead.`,
      );
    void rowsAsTable(fields, format.currency, wanted)
      .then((table) => navigator.clipboard.writeText(table))
      .then(() =>
        toast.success(`${format.number(wanted)} ${wanted === 1 ? 'row' : 'rows'} copied as a table`),
      )
      .catch((failure: unknown) => toast.error((failure as Error).message));
  });
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <div
        ref={box}
        role="grid"
        aria-label={many.charAt(0).toUpperCase() + many.slice(1)}
        aria-rowcount={total + 1}
        aria-colcount={columns.length + 1}
        tabIndex={0}
        className="min-h-0 flex-1 overflow-auto -outline-offset-2"
        data-sheet
      >
        <SheetHeader template={template} width={width} widths={fixed} />
        {rows.error && (
          <div className="p-4">
            <Trouble error={rows.error} />
          </div>
        )}
        <div role="rowgroup" className="relative" style={{ height: view.height, minWidth: width }}>
          {Array.from({ length: view.count }, (_, i) => {
            const at = rows.first + i;
            const row = rows.row(at);
            const picked = row ? isPicked(picks, row.key, at) : false;
            return (
              <div
                key={at}
                role="row"
                aria-rowindex={at + 2}
                aria-selected={picked}
                data-row={row?.key}
                className={clsx(
                  'absolute inset-x-0 grid items-stretch border-b border-rule',
                  picked ? 'bg-picked' : at === cursor ? 'bg-paper' : 'bg-ground hover:bg-paper',
                )}
                style={{ top: view.top + i * ROW_HEIGHT, height: ROW_HEIGHT, gridTemplateColumns: template }}
                onClick={() => set({ cursor: at })}
                onDoubleClick={() => row && set({ company: openKey(row.key), openLine: null, cursor: at })}
              >
                <span
                  role="gridcell"
                  className={clsx(
                    'sticky left-0 z-[1] grid place-items-center bg-inherit',
                    at === cursor && 'shadow-[inset_3px_0_0_var(--ink)]',
                  )}
                >
                  {row && (
                    <input
                      type="checkbox"
                      tabIndex={at === cursor ? 0 : -1}
                      aria-label={`Pick ${typeof row.cells.name === 'string' ? row.cells.name : row.key}`}
                      className="size-4"
                      checked={picked}
                      onChange={() => {}}
                      onClick={(event) => {
                        event.stopPropagation();
                        toggle(at, event.shiftKey);
                      }}
                    />
                  )}
                </span>
                {fields.map((field, i) => (
                  <span
                    key={field.id}
                    role="gridcell"
                    className={clsx(
                      'flex min-w-0 items-center bg-inherit px-2.5',
                      field.numeric && 'justify-end',
                      i < frozen && 'sticky z-[1]',
                      i === frozen - 1 && 'border-r border-rule',
                    )}
                    style={frozenStyle(i, frozen, fixed)}
                  >
                    {!row ? (
                      <span className="inline-block h-2.5 w-2/3 rounded bg-rule" />
                    ) : field.id === 'name' ? (
                      <a
                        href={companyAddress(row.key)}
                        tabIndex={at === cursor ? 0 : -1}
                        className="block min-w-0 leading-tight no-underline hover:underline"
                        onClick={(event) => {
                          if (event.ctrlKey || event.metaKey || event.shiftKey) return;
                          event.preventDefault();
                          set({ company: openKey(row.key), openLine: null, cursor: at });
                        }}
                      >
                        <strong className="block truncate font-semibold">{row.cells.name as string}</strong>
                        {!columns.includes(UNDER[tape.subject]!) && (
                          <span className="block truncate text-[12px] text-soft">
                            {underText(tape.subject, row, one)}
                          </span>
                        )}
                      </a>
                    ) : (
                      <ShownValue
                        column={field}
                        row={row}
                        current={at === cursor}
                        onValue={(field, x, y) => setValue({ field, cell: row.cells[field.id]!, x, y })}
                      />
                    )}
                  </span>
                ))}
              </div>
            );
          })}
        </div>
        {tally && total === 0 && tally.universe > 0 && (
          <div className="p-8 text-center">
            <p className="title text-lg">
              {['companies', 'people'].includes(tape.subject) ? 'Nobody' : `No ${one}`} is left
            </p>
            <p className="mt-1 text-soft">
              {tally.lines.some((line) => line.without > 0)
                ? 'Some lines hold back: see “more without it” on the tape, park one with P, or keep its unknowns with U.'
                : 'No single line is to blame: only with several of them parked is somebody left.'}
            </p>
          </div>
        )}
        <SheetSummary columns={fields} template={template} width={width} widths={fixed} total={total} />
      </div>
      {value && <ValueMenu value={value} onClose={() => setValue(null)} />}
      <div className="flex h-11 items-center gap-4 border-t border-edge text-[13px]">
        <span>
          <strong className="figure">{format.number(count)}</strong> picked
        </span>
        {count > 0 && (
          <Button look="quiet" onClick={() => set({ picks: NO_PICKS })}>
            Let go
          </Button>
        )}
        {count < total && (
          <Button look="quiet" onClick={pickAll}>
            Pick all <span className="figure">{format.number(total)}</span> <Kbd>Ctrl A</Kbd>
          </Button>
        )}
        <FindWithin
          onGo={(row) => {
            set({ cursor: row });
            view.scrollTo(row);
          }}
        />
        <span className="ml-auto text-soft">
          {total > 0 && (
            <>
              rows <span className="figure text-ink">{format.number(view.shown.from + 1)}</span> to{' '}
              <span className="figure text-ink">{format.number(view.shown.to + 1)}</span> of{' '}
              <span className="figure text-ink">{format.number(total)}</span>
            </>
          )}
        </span>
      </div>
    </div>
  );
}

/** A value, pressed to make it a line where it can be one. */
function ShownValue({
  column,
  row,
  current,
  onValue,
}: {
  column: ShownColumn;
  row: Row;
  current: boolean;
  onValue(field: Field, x: number, y: number): void;
}) {
  const format = useFormat();
  const { field } = column;
  const tabIndex = current ? 0 : -1;
  const shown = <Cell column={column} row={row} format={format} tabIndex={tabIndex} />;
  if (!field || linesOfValue(field, row.cells[column.id] ?? null).length === 0)
    return <span className="min-w-0 truncate">{shown}</span>;
  return (
    <button
      type="button"
      tabIndex={tabIndex}
      className="min-w-0 truncate text-left decoration-edge decoration-dotted underline-offset-4 hover:underline"
      onClick={(event) => {
        event.stopPropagation();
        const { left, bottom } = event.currentTarget.getBoundingClientRect();
        onValue(field, left, bottom);
      }}
      onDoubleClick={(event) => event.stopPropagation()}
    >
      {shown}
    </button>
  );
}

/** What stands under the name, by subject: the field it is from. */
const UNDER: Readonly<Record<string, string>> = {
  companies: 'place',
  sites: 'place',
  people: 'company',
  events: 'company',
  deals: 'target',
  brands: 'owner',
};

/** The columns to fetch: those shown, and what stands under the name unless it is shown by itself. */
function withUnder(subject: string, columns: readonly string[]): readonly string[] {
  const under = UNDER[subject]!;
  return columns.includes(under) ? columns : [...columns, under];
}

function underText(subject: string, row: Row, one: string): string {
  const cell = row.cells[UNDER[subject]!];
  if (Array.isArray(cell)) return cell.length ? (cell as string[]).join(', ') : `no company named`;
  if (typeof cell === 'string') return cell;
  const place = cell as PlaceCell | null | undefined;
  return place ? [place.town, place.countryName].filter(Boolean).join(', ') : `place of the ${one} unknown`;
}
