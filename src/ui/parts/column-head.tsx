'use client';

import type { Table } from '@tanstack/react-table';
import { ArrowDown, ArrowUp, ListFilter } from 'lucide-react';
import { Popover } from 'radix-ui';
import { useRef } from 'react';
import { followPointer } from './pointer-drag';
import type { RecordTable } from './record-table';

/** How much a press makes a column wider, in pixels. */
const STEP = 24;

/** How a table is ordered by a column, for a reader. */
export function sortOf<R>(table: Table<R>, id: string): 'ascending' | 'descending' | 'none' {
  const way = table.getColumn(id)!.getIsSorted();
  return way === 'asc' ? 'ascending' : way === 'desc' ? 'descending' : 'none';
}

/** The head of a column: press to order by it, up, down and as it came; beside it its filter and its width. */
export function ColumnHead<R>({
  records: { table, sizes, resize },
  column: id,
  hint,
  at,
  narrow = false,
  className = '',
}: {
  records: RecordTable<R>;
  column: string;
  hint?: string | undefined;
  /** Which column of the row it is; left out in a table, whose own head cell says so. */
  at?: number;
  /** No wider than its name: no filter of its own, whose button would lie over the name. */
  narrow?: boolean;
  className?: string;
}) {
  const head = useRef<HTMLDivElement>(null);
  const column = table.getColumn(id)!;
  const way = column.getIsSorted() || null;
  const filter = (column.getFilterValue() as string | undefined) ?? '';
  const width = () => sizes[id] ?? head.current!.clientWidth;
  return (
    <div
      ref={head}
      {...(at === undefined
        ? {}
        : { role: 'columnheader', 'aria-colindex': at, 'aria-sort': sortOf(table, id) })}
      className={`group relative flex min-w-0 items-center pr-2 ${className}`}
    >
      <button
        type="button"
        className="flex min-h-6 max-[699px]:min-h-touch min-w-0 items-center gap-1 px-1 py-1 text-left font-bold hover:underline"
        title={hint}
        onClick={column.getToggleSortingHandler()}
      >
        <span className="truncate">{id}</span>
        {way === 'asc' && <ArrowUp size={14} className="shrink-0" aria-hidden="true" />}
        {way === 'desc' && <ArrowDown size={14} className="shrink-0" aria-hidden="true" />}
      </button>
      {!narrow && (
        <Popover.Root>
          <Popover.Trigger
            aria-label={`Filter and width of ${id}`}
            className={`absolute right-2 flex size-[24px] items-center justify-center bg-sheet text-muted hover:text-ink ${filter ? 'bg-ink! text-sheet!' : 'opacity-0 group-focus-within:opacity-100 group-hover:opacity-100 data-[state=open]:opacity-100 [@media(hover:none)]:opacity-100'}`}
          >
            <ListFilter size={14} aria-hidden="true" />
          </Popover.Trigger>
          <Popover.Portal>
            <Popover.Content
              align="start"
              data-typing
              className="z-40 flex w-56 flex-col gap-2 border-2 border-ink bg-sheet p-2 text-[14px]"
              aria-label={`Filter and width of ${id}`}
            >
              <label>
                {id} contains
                <input
                  type="search"
                  className="field field-line"
                  value={filter}
                  onChange={(event) => column.setFilterValue(event.target.value || undefined)}
                />
              </label>
              <div className="flex gap-1">
                <button type="button" className="button" onClick={() => resize(id, width() + STEP)}>
                  wider
                </button>
                <button type="button" className="button" onClick={() => resize(id, width() - STEP)}>
                  narrower
                </button>
                <button type="button" className="link" onClick={() => resize(id, null)}>
                  usual
                </button>
              </div>
            </Popover.Content>
          </Popover.Portal>
        </Popover.Root>
      )}
      <span
        aria-hidden="true"
        className="absolute inset-y-0 right-0 w-2 cursor-col-resize touch-none border-r border-rule hover:border-ink"
        onPointerDown={(event) => {
          event.preventDefault();
          const [from, start, before] = [event.clientX, width(), sizes[id] ?? null];
          followPointer(event, {
            onMove: ({ clientX }) => resize(id, start + clientX - from),
            onDrop: ({ clientX }) => resize(id, start + clientX - from),
            onCancel: () => resize(id, before),
          });
        }}
      />
    </div>
  );
}
