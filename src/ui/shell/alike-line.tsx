'use client';

import { ChevronDown, ChevronRight } from 'lucide-react';
import { useState } from 'react';

/** Which kinds of finding are shown in full, and how that is changed. */
export function useOpened() {
  const [opened, setOpened] = useState<ReadonlySet<string>>(new Set());
  const toggle = (alike: string, open: boolean) => {
    const next = new Set(opened);
    if (open) next.add(alike);
    else next.delete(alike);
    setOpened(next);
  };
  return { opened, toggle };
}

/** The line that stands for the others of a kind. */
export function AlikeLine({
  count,
  open,
  onToggle,
}: {
  count: number;
  open: boolean;
  onToggle: (open: boolean) => void;
}) {
  const Mark = open ? ChevronDown : ChevronRight;
  return (
    <button
      type="button"
      className="flex min-h-7 w-full items-center gap-1 border-b border-rule pl-6 text-left text-[14px] hover:underline max-[699px]:min-h-touch"
      aria-expanded={open}
      onClick={() => onToggle(!open)}
    >
      <Mark size={16} aria-hidden="true" />
      {count} more like this
    </button>
  );
}
