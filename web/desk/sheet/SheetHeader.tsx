import { closestCenter, DndContext, PointerSensor, useSensor, useSensors } from '@dnd-kit/core';
import { horizontalListSortingStrategy, SortableContext, useSortable } from '@dnd-kit/sortable';
import {
  columnOrderingFeature,
  columnResizingFeature,
  columnSizingFeature,
  createColumnHelper,
  tableFeatures,
  useTable,
  type Header,
} from '@tanstack/react-table';
import clsx from 'clsx';
import { ArrowDown, ArrowUp } from 'lucide-react';
import { useMemo } from 'react';
import type { Row } from '../../../core/cells.ts';
import { useFormat } from '../../app/format.ts';
import { useTally } from '../queries.ts';
import { useColumns, useDesk } from '../store.ts';
import { columnOf } from './columns.ts';
import { frozenStyle } from './frozen.ts';

const features = tableFeatures({ columnOrderingFeature, columnSizingFeature, columnResizingFeature });
const helper = createColumnHelper<typeof features, Row>();
const NO_ROWS: Row[] = [];

/** The head of the sheet: click to sort, shift-click to sort by more, drag to move, drag an edge to widen. */
export function SheetHeader({
  template,
  width,
  widths: shown,
}: {
  template: string;
  width: number;
  widths: readonly number[];
}) {
  const tape = useDesk((state) => state.tape);
  const columns = useColumns();
  const widths = useDesk((state) => state.widths);
  const { setColumns, setWidths } = useDesk.getState();
  const defs = useMemo(
    () =>
      helper.columns(
        columns
          .flatMap((id) => columnOf(tape, id) ?? [])
          .map(({ id, width: size }) =>
            helper.accessor((row) => row.cells[id], {
              id,
              size,
              minSize: 60,
              maxSize: 800,
            }),
          ),
      ),
    [columns, tape],
  );
  const table = useTable({
    features,
    columns: defs,
    data: NO_ROWS,
    state: { columnOrder: [...columns], columnSizing: { ...widths } },
    columnResizeMode: 'onChange',
    onColumnSizingChange: (updater) =>
      setWidths(typeof updater === 'function' ? updater(useDesk.getState().widths) : updater),
  });
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }));
  return (
    <DndContext
      // Its hints for screen readers are no part of the grid.
      accessibility={{ container: document.body }}
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={({ active, over }) => {
        if (!over || active.id === over.id) return;
        const next = [...columns];
        next.splice(
          columns.indexOf(String(over.id)),
          0,
          ...next.splice(columns.indexOf(String(active.id)), 1),
        );
        setColumns(next);
      }}
    >
      <div
        data-head
        role="row"
        aria-rowindex={1}
        className="sticky top-0 z-10 grid items-center border-b border-edge bg-ground"
        style={{ gridTemplateColumns: template, minWidth: width, height: 33 }}
      >
        <span role="columnheader" className="sticky left-0 z-[2] h-full bg-ground">
          <span className="sr-only">Picked</span>
        </span>
        <SortableContext items={[...columns]} strategy={horizontalListSortingStrategy}>
          {table.getHeaderGroups()[0]?.headers.map((header, i) => (
            <HeaderCell key={header.id} header={header} at={i} widths={shown} />
          ))}
        </SortableContext>
      </div>
    </DndContext>
  );
}

function HeaderCell({
  header,
  at,
  widths,
}: {
  header: Header<typeof features, Row, unknown>;
  at: number;
  widths: readonly number[];
}) {
  const frozen = useDesk((state) => state.frozen);
  const id = header.column.id;
  const tape = useDesk((state) => state.tape);
  const { data: tally } = useTally();
  const column = columnOf(tape, id, tally)!;
  const sort = useDesk((state) => state.sort);
  const { set } = useDesk.getState();
  const { symbol } = useFormat();
  const { attributes, listeners, setNodeRef, transform, isDragging } = useSortable({ id });
  const key = sort.find((one) => one.by === id);
  const sortable = column.sortable !== false;
  const turn = (more: boolean) => {
    const startsDescending = column.numeric === true || column.field?.kind === 'date';
    const next = !key
      ? { by: id, ...(startsDescending ? { descending: true as const } : {}) }
      : (key.descending === true) === startsDescending
        ? { by: id, ...(startsDescending ? {} : { descending: true as const }) }
        : null;
    const others = more ? sort.filter((one) => one.by !== id) : [];
    set({ sort: next ? [...others, next] : others });
  };
  return (
    <span
      ref={setNodeRef}
      role="columnheader"
      aria-sort={!key ? 'none' : key.descending ? 'descending' : 'ascending'}
      className={clsx(
        'flex h-full items-center bg-ground',
        at < frozen ? 'sticky z-[2]' : 'relative',
        isDragging && 'z-10 bg-paper',
      )}
      style={{
        ...frozenStyle(at, frozen, widths),
        transform: transform ? `translate3d(${transform.x}px, 0, 0)` : undefined,
      }}
    >
      <button
        type="button"
        {...attributes}
        {...listeners}
        disabled={!sortable}
        title={
          sortable
            ? `${column.meaning} Click to sort, shift-click to sort by this as well, drag to move.`
            : column.meaning
        }
        onClick={(event) => turn(event.shiftKey)}
        className={clsx(
          'flex w-full items-center gap-1 overflow-hidden px-2.5 text-[12px] font-semibold whitespace-nowrap disabled:opacity-100',
          column.numeric && 'justify-end',
          key ? 'text-ink' : 'text-soft hover:text-ink',
        )}
      >
        {column.heading}
        {column.field?.kind === 'money' && `, ${symbol}k`}
        {key && (key.descending ? <ArrowDown size={12} /> : <ArrowUp size={12} />)}
        {key && sort.length > 1 && <span className="figure">{sort.indexOf(key) + 1}</span>}
      </button>
      <span
        aria-hidden="true"
        onMouseDown={header.getResizeHandler()}
        onTouchStart={header.getResizeHandler()}
        className="absolute top-1.5 right-0 bottom-1.5 w-1.5 cursor-col-resize border-r border-rule hover:border-ink"
      />
    </span>
  );
}
