import {
  closestCenter,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { UnstyledButton } from '@mantine/core';
import { IconGripVertical } from '@tabler/icons-react';
import {
  createContext,
  type CSSProperties,
  type ReactNode,
  useContext,
  useEffect,
  useMemo,
  useRef,
  useState,
} from 'react';
import { placeAfterMove } from './place-after-move.ts';

/** Puts a row before another; null: to the end. */
export type Move = (id: string, next: string | null) => void;

interface Order {
  readonly ids: readonly string[];
  readonly move: Move;
}
const byPointer = { activationConstraint: { distance: 4 } };
const byKeys = { coordinateGetter: sortableKeyboardCoordinates };

const isSameOrder = (a: readonly string[], b: readonly string[]): boolean =>
  a === b || (a.length === b.length && a.every((id, i) => id === b[i]));

const context = createContext<Order>({ ids: [], move: () => undefined });

/**
 * Rows that can be put into another order, in one way everywhere: by dragging the grip, by Space, arrows and Space on
 * it, or by Alt and an arrow anywhere in the row.
 */
export function Reorder({
  ids,
  onMove,
  children,
}: {
  readonly ids: readonly string[];
  readonly onMove: Move;
  readonly children: ReactNode;
}) {
  const sensors = useSensors(useSensor(PointerSensor, byPointer), useSensor(KeyboardSensor, byKeys));
  // Every row reads these: they are new only where the order is, or an edit elsewhere would draw each row again.
  const [rows, setRows] = useState(ids);
  if (!isSameOrder(rows, ids)) setRows(ids);
  const items = useMemo(() => [...rows], [rows]);
  const latest = useRef(onMove);
  useEffect(() => {
    latest.current = onMove;
  });
  const order = useMemo<Order>(() => ({ ids: rows, move: (id, next) => latest.current(id, next) }), [rows]);
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    if (!over || active.id === over.id) return;
    order.move(String(active.id), placeAfterMove(rows, String(active.id), rows.indexOf(String(over.id))));
  };
  return (
    <context.Provider value={order}>
      <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={onDragEnd}>
        <SortableContext items={items} strategy={verticalListSortingStrategy}>
          {children}
        </SortableContext>
      </DndContext>
    </context.Provider>
  );
}

interface ReorderRow {
  readonly ref: (node: HTMLElement | null) => void;
  readonly style: CSSProperties;
  readonly onKeyDown: (event: React.KeyboardEvent) => void;
  readonly grip: ReactNode;
}

/** A row of it: what the row's element takes, and the grip that stands in it. `name` says what is moved. */
export function useReorderRow(id: string, name: string, tabIndex = 0): ReorderRow {
  const { ids, move } = useContext(context);
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition } = useSortable({ id });
  return {
    ref: setNodeRef,
    style: { transform: CSS.Translate.toString(transform), transition },
    onKeyDown: (event) => {
      if (!event.altKey || (event.key !== 'ArrowUp' && event.key !== 'ArrowDown')) return;
      event.preventDefault();
      event.stopPropagation();
      const to = ids.indexOf(id) + (event.key === 'ArrowUp' ? -1 : 1);
      if (to >= 0 && to < ids.length) move(id, placeAfterMove(ids, id, to));
    },
    grip: (
      <UnstyledButton
        className="grip"
        ref={setActivatorNodeRef}
        {...attributes}
        {...listeners}
        tabIndex={tabIndex}
        aria-label={`Move ${name}`}
      >
        <IconGripVertical size={15} aria-hidden="true" />
      </UnstyledButton>
    ),
  };
}
