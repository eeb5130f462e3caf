'use client';

import type { Table } from '@tanstack/react-table';
import { ArrowDown, ArrowUp } from 'lucide-react';

/** The head of a column by which a table can be ordered, up and down. */
export function SortHead<R>({ table, head, hint }: { table: Table<R>; head: string; hint?: string }) {
  const column = table.getColumn(head);
  const way = column?.getIsSorted() || null;
  return (
    <button
      type="button"
      className="flex min-h-6 items-center gap-1 px-1 py-1 text-left font-bold hover:underline"
      title={hint}
      aria-pressed={way !== null}
      onClick={column?.getToggleSortingHandler()}
    >
      {head}
      {way === 'asc' && <ArrowUp size={14} aria-hidden="true" />}
      {way === 'desc' && <ArrowDown size={14} aria-hidden="true" />}
      {way && <span className="sr-only">{way === 'asc' ? ' upwards' : ' downwards'}</span>}
    </button>
  );
}
