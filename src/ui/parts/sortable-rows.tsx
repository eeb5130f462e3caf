'use client';

import {
  type Announcements,
  DndContext,
  KeyboardSensor,
  MouseSensor,
  TouchSensor,
  closestCenter,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import { restrictToVerticalAxis } from '@dnd-kit/modifiers';
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import type { CSSProperties, ReactNode } from 'react';
import { GripMark } from './marks';

/** A mouse has to move a little, a finger to rest, so that a press is still a press and a swipe still scrolls. */
const MOUSE = { activationConstraint: { distance: 5 } };
const TOUCH = { activationConstraint: { delay: 200, tolerance: 8 } };

/**
 * Rows whose order is theirs to change, by mouse, finger and keyboard (space bar, arrow keys, space bar); Esc puts a row back.
 * `onMove` gets the row and its new place among all.
 */
export function SortableRows({
  ids,
  nameOf,
  onMove,
  children,
}: {
  ids: readonly string[];
  /** What a row is called when it is moved. */
  nameOf: (id: string) => string;
  onMove: (id: string, to: number) => void;
  children: ReactNode;
}) {
  const sensors = useSensors(
    useSensor(MouseSensor, MOUSE),
    useSensor(TouchSensor, TOUCH),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const place = (id: unknown) => ids.indexOf(String(id)) + 1;
  const announcements: Announcements = {
    onDragStart: ({ active }) => `${nameOf(String(active.id))} picked up, place ${place(active.id)}.`,
    onDragOver: ({ active, over }) =>
      over ? `${nameOf(String(active.id))} is at place ${place(over.id)} of ${ids.length}.` : undefined,
    onDragEnd: ({ active, over }) =>
      over ? `${nameOf(String(active.id))} put at place ${place(over.id)}.` : 'Put back.',
    onDragCancel: ({ active }) => `${nameOf(String(active.id))} put back.`,
  };
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      modifiers={[restrictToVerticalAxis]}
      accessibility={{
        announcements,
        screenReaderInstructions: {
          draggable: 'The space bar picks the row up, the arrow keys move it, the space bar puts it down.',
        },
      }}
      onDragEnd={({ active, over }) => {
        if (over && over.id !== active.id) onMove(String(active.id), ids.indexOf(String(over.id)));
      }}
    >
      <SortableContext items={[...ids]} strategy={verticalListSortingStrategy}>
        {children}
      </SortableContext>
    </DndContext>
  );
}

/** A row of those: what its element takes, and the handle it is moved by. */
export function useSortableRow(id: string) {
  const { setNodeRef, setActivatorNodeRef, attributes, listeners, transform, transition, isDragging } =
    useSortable({ id });
  const style: CSSProperties = transform
    ? {
        transform: `translate(0, ${transform.y}px)`,
        transition,
        ...(isDragging ? { position: 'relative', zIndex: 10, outline: '3px solid var(--ink)' } : {}),
      }
    : {};
  const handle = (name: string) => (
    <button
      ref={setActivatorNodeRef}
      type="button"
      {...attributes}
      {...listeners}
      aria-label={`Move ${name}`}
      className="flex min-h-6 w-6 shrink-0 cursor-grab touch-none items-center justify-center max-[699px]:min-h-touch max-[699px]:w-11"
    >
      <GripMark />
    </button>
  );
  return { setNodeRef, style, handle };
}
