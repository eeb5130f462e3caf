'use client';

import { ChevronDown, ChevronRight, X } from 'lucide-react';
import { Fragment, type ReactNode, useState } from 'react';
import { type RecordOf, recordTitle } from '@/core/plan';
import { usePlan, useSession } from '../../session/context';
import { ColumnHeads } from '../../parts/column-heads';
import type { Option } from '../../parts/choice';
import { RecordValue } from '../../parts/record-value';

type Listed = 'place' | 'line' | 'stock' | 'wish' | 'need';

export interface BriefColumn<T extends Listed> {
  readonly head: string;
  readonly field: keyof RecordOf<T> & string;
  readonly words?: Readonly<Record<string, string>>;
  readonly options?: readonly Option[];
  readonly placeholder?: string;
  readonly width?: number;
}

/** A list of the brief: every field edited in place, and the form that adds to it. */
export function BriefList<T extends Listed>({
  title,
  about,
  table,
  records,
  columns,
  more = [],
  isUsual,
  beside,
  children,
}: {
  title: string;
  /** What to write, while nothing is there. */
  about: string;
  table: T;
  records: readonly RecordOf<T>[];
  columns: readonly BriefColumn<T>[];
  /** What is seldom asked, behind a button of the row; open from the beginning where it is not as usual. */
  more?: BriefColumn<T>[];
  isUsual?: (record: RecordOf<T>) => boolean;
  /** One more cell. */
  beside?: { readonly head: string; readonly cell: (record: RecordOf<T>) => ReactNode };
  children: ReactNode;
}) {
  return (
    <section aria-label={title} className="mb-6">
      <h3 className="border-b-2 border-ink font-bold">{title}</h3>
      {records.length === 0 ? (
        <p className="py-1 text-[14px] text-muted">{about}</p>
      ) : (
        <table className="schedule schedule-cards text-[14px]" aria-label={title}>
          <ColumnHeads
            columns={[...columns.map(({ head }) => head), ...(beside ? [beside.head] : []), '']}
            className="max-[699px]:hidden"
          />
          <tbody>
            {records.map((record) => (
              <Row
                key={record.id}
                {...{ table, record, columns, more, beside }}
                unusual={!isUsual?.(record)}
              />
            ))}
          </tbody>
        </table>
      )}
      {children}
    </section>
  );
}

function Row<T extends Listed>({
  table,
  record,
  columns,
  more,
  beside,
  unusual,
}: {
  table: T;
  record: RecordOf<T>;
  columns: readonly BriefColumn<T>[];
  more: readonly BriefColumn<T>[];
  beside: { readonly head: string; readonly cell: (record: RecordOf<T>) => ReactNode } | undefined;
  unusual: boolean;
}) {
  const plan = usePlan();
  const session = useSession();
  const [open, setOpen] = useState(unusual);
  const of = recordTitle(plan, table, record as never);
  const Mark = open ? ChevronDown : ChevronRight;
  const wide = columns.length + (beside ? 2 : 1);
  return (
    <Fragment>
      <tr
        data-record={record.id}
        className="max-[699px]:flex max-[699px]:flex-wrap max-[699px]:items-center max-[699px]:border-t max-[699px]:border-rule"
      >
        {columns.map(({ head, width, ...column }) => (
          <td
            key={head}
            className={width === undefined ? 'max-[699px]:flex-1' : ''}
            {...(width === undefined ? {} : { style: { minWidth: width, width } })}
          >
            <span aria-hidden="true" className="hidden text-[12px] text-muted max-[699px]:block">
              {head}
            </span>
            <RecordValue table={table} record={record} of={of} {...column} />
          </td>
        ))}
        {beside && <td className="max-[699px]:basis-full">{beside.cell(record)}</td>}
        <td className="w-[68px] max-[699px]:ml-auto">
          <span className="flex items-center justify-end gap-1">
            {more.length > 0 && (
              <button
                type="button"
                className="flex size-7 items-center justify-center max-[699px]:size-touch"
                aria-expanded={open}
                aria-label={`More about ${of}`}
                onClick={() => setOpen(!open)}
              >
                <Mark size={18} aria-hidden="true" />
              </button>
            )}
            <button
              type="button"
              className="flex size-7 items-center justify-center max-[699px]:size-touch"
              aria-label={`Remove ${of}`}
              onClick={() =>
                session.perform({ operation: 'removeFromBrief', input: { table, ids: [record.id] } })
              }
            >
              <X size={18} aria-hidden="true" />
            </button>
          </span>
        </td>
      </tr>
      {open && more.length > 0 && (
        <tr className="max-[699px]:block">
          <td colSpan={wide} className="bg-paper max-[699px]:block">
            <div className="flex flex-wrap items-center gap-x-5 gap-y-1 py-1 pl-4 text-[14px]">
              {more.map(({ head, width = 150, ...column }) => (
                <span key={head} className="flex items-center gap-2">
                  <span className="text-muted">{head}</span>
                  <span style={{ width }}>
                    <RecordValue table={table} record={record} of={of} {...column} />
                  </span>
                </span>
              ))}
            </div>
          </td>
        </tr>
      )}
    </Fragment>
  );
}
