import type { ReactNode } from 'react';

/** A row of the details: label left, value right. */
export function Property({ label, children }: { label: string; children: ReactNode }) {
  return (
    <div className="grid grid-cols-[6.6rem_1fr] items-center border-b border-rule text-[14px]">
      <span className="text-muted">{label}</span>
      <div className="min-w-0 border-l border-rule pl-1">{children}</div>
    </div>
  );
}
