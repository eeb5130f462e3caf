'use client';

import { useVirtualizer } from '@tanstack/react-virtual';
import { type ClipboardEvent, type ReactNode, useEffect, useRef, useState } from 'react';
import type { Call } from '@/core/plan';
import { useSession } from '../session/context';
import { cellOf, moveByKey } from './cell-keys';
import { ColumnHead } from './column-head';
import { type Columns, ColumnChoice } from './columns';
import { FilterLine } from './filter-line';
import { useNarrow } from './narrow';
import { pasteOver, tabbed } from './paste-over';
import { Problem } from './problem';
import type { RecordColumn, RecordTable } from './record-table';
import { Tick } from './tick';

export interface DataColumn<R> extends RecordColumn<R> {
  readonly cell: (record: R) => ReactNode;
  /** At least so wide, in pixels; what is left over is shared by `grow`. */
  readonly width: number;
  readonly grow?: number;
  readonly hint?: string;
  /** What text pasted over its cell does; not there where nothing can be set. */
  readonly paste?: (record: R, text: string) => Call;
}

interface Props<R> {
  /** What the rows are, one and many: `fixed address`, `fixed addresses`. */
  readonly words: readonly [string, string];
  readonly records: RecordTable<R>;
  readonly columns: readonly DataColumn<R>[];
  readonly nameOf: (record: R) => string;
  readonly of: number;
  /** Which columns are shown. */
  readonly choice: Columns<string>;
  readonly selected: string | null;
  readonly onSelect?: (record: R) => void;
  /** Before the first column: a mark. */
  readonly lead?: (record: R) => ReactNode;
  readonly placeholder: string;
  readonly tools?: ReactNode;
  /** With the marked ones. */
  readonly bulk?: ReactNode;
  readonly testId: string;
  readonly tall?: boolean;
}

const ROW = 33;
const CARD = 190;

/** Rows of records with their fields: ordered, filtered, marked, edited cell by cell, copied and pasted; only what is seen is drawn. */
export function DataTable<R extends { readonly id: string }>(props: Props<R>) {
  const { words, records, columns, nameOf, of, choice, selected, onSelect, lead, testId } = props;
  const session = useSession();
  const [problem, setProblem] = useState('');
  const scroller = useRef<HTMLDivElement>(null);
  const narrow = useNarrow();
  const { shown, marked, mark, markAll, sizes } = records;
  const visible = columns.filter(({ id }) => !choice.all.includes(id) || choice.shows(id));
  // eslint-disable-next-line react-hooks/incompatible-library
  const rows = useVirtualizer({
    count: shown.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => (narrow ? CARD : ROW),
    overscan: 8,
    getItemKey: (index) => shown[index]!.id,
  });
  useEffect(() => {
    // A row that somebody is working in stays where it is, under the pointer.
    if (scroller.current?.contains(document.activeElement)) return;
    const at = shown.findIndex(({ id }) => id === selected);
    if (at >= 0) rows.scrollToIndex(at);
    // Only a new selection scrolls; edits of the list must not.
  }, [selected]); // eslint-disable-line react-hooks/exhaustive-deps
  const isMarked = new Set(marked.map(({ id }) => id));
  const template = [
    '34px',
    ...(lead ? ['26px'] : []),
    ...visible.map(({ id, width, grow }) =>
      sizes[id] !== undefined
        ? `${sizes[id]}px`
        : grow === undefined
          ? `${width}px`
          : `minmax(${width}px, ${grow}fr)`,
    ),
  ].join(' ');
  const onCopy = (event: ClipboardEvent) => {
    const within = event.target;
    if (within instanceof HTMLInputElement && within.selectionStart !== within.selectionEnd) return;
    if (marked.length === 0) return;
    event.preventDefault();
    event.clipboardData.setData('text/plain', tabbed(visible, marked));
  };
  const onPaste = (event: ClipboardEvent) => {
    const at = cellOf(event.target);
    const text = event.clipboardData.getData('text/plain').replace(/\r?\n$/, '');
    // One cell is the field's own affair.
    if (!at || !/[\t\n]/.test(text)) return;
    event.preventDefault();
    setProblem(pasteOver({ session, columns: visible, records: shown, at, text, nameOf }));
  };
  const grid = 'grid items-center min-[700px]:grid-cols-(--columns) max-[699px]:grid-cols-2';
  return (
    <>
      <div className="flex min-h-9 flex-wrap items-center gap-2">
        <h3 className="font-bold">
          {of} {words[of === 1 ? 0 : 1]}
        </h3>
        <FilterLine records={records} words={words[1]} of={of} placeholder={props.placeholder} />
        {props.tools}
        <span className="flex-1" />
        <ColumnChoice columns={choice} />
      </div>
      {props.bulk}
      <Problem text={problem} className="my-1 text-[14px]" />
      <div className="overflow-x-auto">
        <div
          role="grid"
          aria-label={words[1]}
          aria-rowcount={shown.length + 1}
          aria-multiselectable="true"
          className="min-[700px]:min-w-full"
          style={{ '--columns': template } as React.CSSProperties}
          onKeyDown={(event) =>
            moveByKey(event, shown.length, visible.length + 1, (row) => rows.scrollToIndex(row))
          }
          onCopy={onCopy}
          onPaste={onPaste}
        >
          <div
            role="row"
            className={`${grid} border-y-2 border-ink text-[13px] max-[699px]:sr-only`}
            aria-rowindex={1}
          >
            <label role="columnheader" className="flex min-h-8 items-center justify-center">
              <Tick
                label="Mark all that are shown"
                checked={shown.length > 0 && marked.length === shown.length}
                mixed={marked.length > 0 && marked.length < shown.length}
                onChange={markAll}
              />
            </label>
            {lead && <span role="columnheader" aria-label="Finding" />}
            {visible.map(({ id, hint }, i) => (
              <ColumnHead key={id} records={records} column={id} hint={hint} at={i + 2} />
            ))}
          </div>
          <div
            ref={scroller}
            role="presentation"
            className={`overflow-y-auto ${props.tall ? 'max-h-[540px]' : 'max-h-[420px]'}`}
            data-testid={testId}
          >
            <div role="presentation" className="relative" style={{ height: rows.getTotalSize() }}>
              {rows.getVirtualItems().map((item) => {
                const record = shown[item.index]!;
                const select = () => record.id !== selected && onSelect?.(record);
                return (
                  <div
                    key={item.key}
                    role="row"
                    aria-rowindex={item.index + 2}
                    aria-selected={isMarked.has(record.id)}
                    className={`absolute inset-x-0 ${grid} border-b border-rule ${record.id === selected || isMarked.has(record.id) ? 'bg-chosen' : 'bg-sheet'}`}
                    style={{ top: item.start, ...(narrow ? {} : { minHeight: item.size }) }}
                    data-index={item.index}
                    data-record={record.id}
                    ref={rows.measureElement}
                    onFocus={select}
                    onClick={select}
                  >
                    <label
                      role="gridcell"
                      data-cell={`${item.index} 0`}
                      className="flex min-h-8 items-center justify-center max-[699px]:min-h-touch max-[699px]:justify-start max-[699px]:px-1"
                    >
                      <Tick
                        label={`Mark ${nameOf(record)}`}
                        checked={isMarked.has(record.id)}
                        onChange={(on, through) => mark(record.id, on, through)}
                      />
                    </label>
                    {lead && (
                      <span role="gridcell" className="flex justify-center">
                        {lead(record)}
                      </span>
                    )}
                    {visible.map(({ id, cell }, i) => (
                      <span key={id} role="gridcell" data-cell={`${item.index} ${i + 1}`} className="min-w-0">
                        {cell(record)}
                      </span>
                    ))}
                  </div>
                );
              })}
            </div>
          </div>
        </div>
      </div>
    </>
  );
}
