'use client';

import {
  type SortingState,
  type Table,
  getCoreRowModel,
  getFilteredRowModel,
  getSortedRowModel,
  useReactTable,
} from '@tanstack/react-table';
import { useMemo, useRef, useState } from 'react';
import { byName } from '@/core/plan';
import { remember, remembered } from '../session/view';

/** A column of a table of records: what it shows as text, and what it is ordered by where that is another thing. */
export interface RecordColumn<R> {
  readonly id: string;
  readonly text: (record: R) => string;
  readonly order?: (record: R) => number | bigint;
}

/** As it is remembered: a sign for the way, then the column. */
const storedSort = (key: string, columns: readonly { readonly id: string }[]): SortingState => {
  const stored = remembered(key) ?? '';
  const id = stored.slice(1);
  const known = columns.some((column) => column.id === id);
  return [{ id: known ? id : columns[0]!.id, desc: known && stored.startsWith('-') }];
};

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
}

/** Order, filter and marks of a table of records; the order is remembered in this browser. */
export function useRecordTable<R extends { readonly id: string }>(
  name: string,
  records: readonly R[],
  columns: readonly RecordColumn<R>[],
): RecordTable<R> {
  const key = `dianome.sort.${name}`;
  const [sorting, setSorting] = useState<SortingState>(() => storedSort(key, columns));
  const [filter, setFilter] = useState('');
  const [rowSelection, setRowSelection] = useState<Readonly<Record<string, boolean>>>({});
  const last = useRef<string | null>(null);
  const data = useMemo(() => [...records], [records]);
  const definitions = useMemo(
    () =>
      columns.map(({ id, text, order }) => ({
        id,
        accessorFn: text,
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
    state: { sorting, globalFilter: filter, rowSelection: rowSelection as Record<string, boolean> },
    getRowId: ({ id }) => id,
    enableSortingRemoval: false,
    sortDescFirst: false,
    globalFilterFn: 'includesString',
    getColumnCanGlobalFilter: () => true,
    getCoreRowModel: getCoreRowModel(),
    getFilteredRowModel: getFilteredRowModel(),
    getSortedRowModel: getSortedRowModel(),
    onGlobalFilterChange: setFilter,
    onRowSelectionChange: setRowSelection as never,
    onSortingChange: (update) => {
      const next = typeof update === 'function' ? update(sorting) : update;
      setSorting(next);
      if (next[0]) remember(key, `${next[0].desc ? '-' : '+'}${next[0].id}`);
    },
  });
  const rows = table.getRowModel().rows;
  const shown = rows.map(({ original }) => original);
  const mark = (id: string, on: boolean, through: boolean) => {
    const ids = shown.map((record) => record.id);
    const from = last.current === null ? -1 : ids.indexOf(last.current);
    const to = ids.indexOf(id);
    last.current = id;
    const between = through && from >= 0 ? ids.slice(Math.min(from, to), Math.max(from, to) + 1) : [id];
    setRowSelection({ ...rowSelection, ...Object.fromEntries(between.map((each) => [each, on])) });
  };
  const markAll = (on: boolean) => {
    last.current = null;
    setRowSelection(on ? Object.fromEntries(shown.map(({ id }) => [id, true])) : {});
  };
  return {
    table,
    shown,
    marked: shown.filter(({ id }) => rowSelection[id]),
    filter,
    setFilter,
    mark,
    markAll,
  };
}
