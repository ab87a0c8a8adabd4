import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import {
  arrayMove,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { ArrowDown, ArrowUp, GripVertical } from 'lucide-react';
import { Button } from '../ui/controls.tsx';

interface Named {
  key: string;
  name: string;
}

/** Sources in the order in which they win: dragged, or moved by a press. */
export function SourceOrder({
  of,
  sources,
  onOrder,
}: {
  /** What they are ordered for. */
  of: string;
  sources: readonly Named[];
  onOrder(keys: string[]): void;
}) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const keys = sources.map(({ key }) => key);
  const move = (from: number, to: number) => onOrder(arrayMove(keys, from, to));
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={({ active, over }) =>
        over && move(keys.indexOf(active.id as string), keys.indexOf(over.id as string))
      }
    >
      <SortableContext items={keys} strategy={verticalListSortingStrategy}>
        <ol aria-label={`Order for ${of}`} className="mt-1 max-w-md">
          {sources.map((source, at) => (
            <Placed
              key={source.key}
              source={source}
              place={at}
              last={at === sources.length - 1}
              onMove={(to) => move(at, to)}
            />
          ))}
        </ol>
      </SortableContext>
    </DndContext>
  );
}

function Placed({
  source,
  place,
  last,
  onMove,
}: {
  source: Named;
  place: number;
  last: boolean;
  onMove(to: number): void;
}) {
  const { attributes, listeners, setNodeRef, transform, transition } = useSortable({ id: source.key });
  return (
    <li
      ref={setNodeRef}
      style={{ transform: transform ? `translateY(${transform.y}px)` : undefined, transition }}
      className="flex items-center gap-2 border-b border-rule bg-ground py-0.5 text-[14px]"
    >
      <button
        type="button"
        className="cursor-grab p-1 text-soft"
        {...attributes}
        {...listeners}
        aria-label={`Drag ${source.name}`}
      >
        <GripVertical size={14} />
      </button>
      <span className="figure w-5 text-[13px] text-soft">{place + 1}</span>
      <span className="min-w-0 flex-1 truncate" title={source.name}>
        {source.name}
      </span>
      <Button
        look="quiet"
        aria-label={`${source.name} up`}
        disabled={place === 0}
        onClick={() => onMove(place - 1)}
      >
        <ArrowUp size={14} />
      </Button>
      <Button
        look="quiet"
        aria-label={`${source.name} down`}
        disabled={last}
        onClick={() => onMove(place + 1)}
      >
        <ArrowDown size={14} />
      </Button>
    </li>
  );
}
