import type { ReactNode } from 'react';

/** A table of a sheet; on a phone it scrolls by itself, and the page stays as wide as the phone. */
export const SheetTable = ({ label, children }: { label: string; children: ReactNode }) => (
  <div
    role="group"
    aria-label={label}
    tabIndex={0}
    className="relative overflow-x-auto print:overflow-visible"
  >
    <table className="schedule mt-1 text-[13px]">{children}</table>
  </div>
);
