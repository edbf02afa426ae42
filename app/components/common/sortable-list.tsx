import {
  type Active,
  type Announcements,
  closestCenter,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  type Over,
  PointerSensor,
  useSensor,
  useSensors,
} from "@dnd-kit/core";
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from "@dnd-kit/sortable";
import { CSS } from "@dnd-kit/utilities";
import { clsx } from "clsx";
import { GripVertical } from "lucide-react";
import type { ReactNode } from "react";
import { commonTexts } from "~/texts/common";

const t = commonTexts.sortableList;

const nameOf = ({ data }: Active) => String((data.current as { name?: string } | undefined)?.name);

type SaysPlace = (name: string, place: number, of: number) => string;

/** Announces a row's place in the list; nothing where it is over no row. */
function atPlace(says: SaysPlace) {
  return ({ active, over }: { active: Active; over: Over | null }): string | undefined => {
    const at = over?.data.current?.sortable as { index: number; items: readonly unknown[] } | undefined;
    return at && says(nameOf(active), at.index + 1, at.items.length);
  };
}

/** Screen reader announcements of a drag. */
const ANNOUNCEMENTS: Announcements = {
  onDragStart: ({ active }) => t.pickedUp(nameOf(active)),
  onDragOver: atPlace(t.isAt),
  onDragEnd: atPlace(t.droppedAt),
  onDragCancel: ({ active }) => t.leftWhereItWas(nameOf(active)),
};

interface SortableListProps {
  label: string;
  /** Keys of the rows, in order. */
  keys: readonly string[];
  onMove: (from: number, to: number) => void;
  className: string;
  children: ReactNode;
}

/** Rows whose order is changed by dragging, with mouse or keyboard. */
export function SortableList({ label, keys, onMove, className, children }: SortableListProps) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const drop = ({ active, over }: DragEndEvent) => {
    if (over && active.id !== over.id) onMove(keys.indexOf(String(active.id)), keys.indexOf(String(over.id)));
  };
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={drop}
      accessibility={{ announcements: ANNOUNCEMENTS, screenReaderInstructions: { draggable: t.howTo } }}
    >
      <SortableContext items={[...keys]} strategy={verticalListSortingStrategy}>
        <ol aria-label={label} className={className}>
          {children}
        </ol>
      </SortableContext>
    </DndContext>
  );
}

interface SortableRowProps {
  id: string;
  label?: string;
  className: string;
  /** @param grip the handle by which the row is dragged */
  children: (grip: ReactNode) => ReactNode;
  /** Name of what is moved, for its grip. */
  name: string;
}

export function SortableRow({ id, label, name, className, children }: SortableRowProps) {
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({ id, data: { name } });
  return (
    <li
      ref={setNodeRef}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      aria-label={label}
      className={clsx(className, isDragging ? "relative z-10 border-accent shadow-lg" : "border-line")}
    >
      {children(
        <button
          type="button"
          aria-label={t.move(name)}
          className="shrink-0 cursor-grab touch-none text-soft hover:text-ink"
          {...attributes}
          {...listeners}
        >
          <GripVertical className="size-4" aria-hidden />
        </button>,
      )}
    </li>
  );
}
