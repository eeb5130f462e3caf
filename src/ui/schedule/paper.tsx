import Link from 'next/link';
import type { ReactNode } from 'react';
import { PrintButton } from './print-button';

interface Props {
  readonly siteId: string;
  readonly title: string;
  readonly revision: number;
  readonly today: string;
  /** The station it belongs to. */
  readonly from?: string;
  readonly children: ReactNode;
}

/** A sheet to print, black on white whatever the theme. */
export function Paper({ siteId, title, revision, today, from = 'handover', children }: Props) {
  return (
    <div
      className="min-h-dvh bg-white text-[#12201a]"
      style={
        {
          '--ink': '#12201a',
          '--rule': '#c3ccc6',
          '--muted': '#46554c',
          '--sheet': '#ffffff',
        } as React.CSSProperties
      }
    >
      <main className="mx-auto max-w-[1000px] px-6 py-5 print:max-w-none print:p-0">
        <div className="no-print flex gap-3 pb-4">
          <Link className="button" href={`/site/${siteId}/${from}`}>
            Back
          </Link>
          <PrintButton />
        </div>
        <header className="flex items-end justify-between border-b-[3px] border-ink pb-1">
          <h1 className="text-[22px] font-bold">{title}</h1>
          <p className="mono text-[13px]">
            change {revision}, {today}
          </p>
        </header>
        {children}
      </main>
    </div>
  );
}
