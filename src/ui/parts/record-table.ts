'use client';

import {
  type ColumnFiltersState,
  type ColumnSizingState,
  type SortingState,
  type Table,
  getCoreRowModel,
  getFilteredRowModel,
  getSortedRowModel,
  useReactTable,
} from '@tanstack/react-table';
import { useMemo, useRef, useState } from 'react';
import { byName } from '@/core/plan';
import { remember, remembered } from '../session/stored';

/** A column of a table of records: what it shows as text, and what it is ordered by where that is another thing. */
export interface RecordColumn<R> {
  /** Its head. */
  readonly id: string;
  readonly text: (record: R) => string;
  readonly order?: (record: R) => number | bigint;
}

/** As it is remembered: a sign for the way, then the column. */
const storedSort = (key: string, columns: readonly { readonly id: string }[]): SortingState => {
  const stored = remembered(key) ?? '';
  const id = stored.slice(1);
  const known = columns.some((column) => column.id === id);
  return known ? [{ id, desc: stored.startsWith('-') }] : [];
};
function storedSizes(key: string): ColumnSizingState {
  try {
    return JSON.parse(remembered(key) ?? '{}') as ColumnSizingState;
  } catch {
    return {};
  }
}

/** Which records are marked, where others are to know too. */
export interface Marks {
  readonly ids: readonly string[];
  readonly set: (ids: readonly string[]) => void;
}

export interface RecordTable<R> {
  readonly table: Table<R>;
  /** The records that match what is typed, in order. */
  readonly shown: readonly R[];
  /** Those of them that are marked. */
  readonly marked: readonly R[];
  readonly filter: string;
  readonly setFilter: (text: string) => void;
  /** Marks a record; with `through` all between it and the one marked before. */
  readonly mark: (id: string, on: boolean, through: boolean) => void;
  readonly markAll: (on: boolean) => void;
  /** The columns somebody made wider or narrower, in pixels. */
  readonly sizes: Readonly<Record<string, number>>;
  /** Null for as wide as it would be. */
  readonly resize: (column: string, width: number | null) => void;
}

/** The state after an update of the library, which is a value or a way from the one before. */
const updated = (update: unknown, before: unknown): never =>
  (typeof update === 'function' ? (update as (value: unknown) => unknown)(before) : update) as never;

/**
 * Order, filters, widths and marks of a table of records; order and widths are remembered in this browser. Until an order is
 * chosen the records are as they come.
 */
export function useRecordTable<R extends { readonly id: string }>(
  name: string,
  records: readonly R[],
  columns: readonly RecordColumn<R>[],
  marks?: Marks,
): RecordTable<R> {
  const [sortKey, sizeKey] = [`dianome.sort.${name}`, `dianome.widths.${name}`];
  const [sorting, setSorting] = useState<SortingState>(() => storedSort(sortKey, columns));
  const [filter, setFilter] = useState('');
  const [columnFilters, setColumnFilters] = useState<ColumnFiltersState>([]);
  const [sizes, setSizes] = useState(() => storedSizes(sizeKey));
  const [own, setOwn] = useState<readonly string[]>([]);
  const { ids, set: setIds } = marks ?? { ids: own, set: setOwn };
  const last = useRef<string | null>(null);
  const data = useMemo(() => [...records], [records]);
  const definitions = useMemo(
    () =>
      columns.map(({ id, text, order }) => ({
        id,
        accessorFn: text,
        filterFn: 'includesString' as const,
        sortingFn: (a: { original: R }, b: { original: R }) => {
          if (!order) return byName(text(a.original), text(b.original));
          const [x, y] = [order(a.original), order(b.original)];
          return x < y ? -1 : x > y ? 1 : 0;
        },
      })),
    [columns],
  );
  // eslint-disable-next-line react-hooks/incompatible-library
  const table = useReactTable({
    data,
    columns: definitions,
    state: { sorting, globalFilter: filter, columnFilters },
    getRowId: ({ id }) => id,
    sortDescFirst: false,
    // What is typed may stand in two columns beside each other: a box and its port.
    globalFilterFn: ({ original }, _column, typed: string) =>
      columns
        .map(({ text }) => text(original))
        .join(' ')
        .toLowerCase()
        .includes(typed.trim().toLowerCase()),
    getColumnCanGlobalFilter: () => true,
    getCoreRowModel: getCoreRowModel(),
    getFilteredRowModel: getFilteredRowModel(),
    getSortedRowModel: getSortedRowModel(),
    onGlobalFilterChange: setFilter,
    onColumnFiltersChange: (update) => setColumnFilters((before) => updated(update, before)),
    onSortingChange: (update) => {
      const next: SortingState = updated(update, sorting);
      setSorting(next);
      remember(sortKey, next[0] ? `${next[0].desc ? '-' : '+'}${next[0].id}` : '');
    },
  });
  const rows = table.getRowModel().rows;
  const shown = useMemo(() => rows.map(({ original }) => original), [rows]);
  const isMarked = new Set(ids);
  const mark = (id: string, on: boolean, through: boolean) => {
    const all = shown.map((record) => record.id);
    const from = last.current === null ? -1 : all.indexOf(last.current);
    const to = all.indexOf(id);
    last.current = id;
    const between = through && from >= 0 ? all.slice(Math.min(from, to), Math.max(from, to) + 1) : [id];
    const others = ids.filter((each) => !between.includes(each));
    setIds(on ? [...others, ...between] : others);
  };
  const markAll = (on: boolean) => {
    last.current = null;
    setIds(on ? shown.map(({ id }) => id) : []);
  };
  const resize = (column: string, width: number | null) => {
    const { [column]: _before, ...others } = sizes;
    const next = width === null ? others : { ...others, [column]: Math.max(MIN_WIDTH, Math.round(width)) };
    setSizes(next);
    remember(sizeKey, JSON.stringify(next));
  };
  return {
    table,
    shown,
    marked: shown.filter(({ id }) => isMarked.has(id)),
    filter,
    setFilter,
    mark,
    markAll,
    sizes,
    resize,
  };
}

/** Narrower than this a column shows nothing. */
const MIN_WIDTH = 44;
