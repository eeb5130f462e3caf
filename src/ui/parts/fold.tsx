'use client';

import { ChevronDown, ChevronRight } from 'lucide-react';
import { Collapsible } from 'radix-ui';
import { type ReactNode, useState } from 'react';
import { remember, remembered } from '../session/stored';

const keyOf = (id: string): string => `dianome.fold.${id}`;

/**
 * Fields that are seldom needed, behind a line that tells what is in them. Each person's choice is kept, for all things of
 * the kind.
 */
export function Fold({
  id,
  title,
  told,
  children,
}: {
  /** By which the choice is kept. */
  id: string;
  title: string;
  told: string;
  children: ReactNode;
}) {
  const [open, setOpen] = useState(() => remembered(keyOf(id)) === 'open');
  const Mark = open ? ChevronDown : ChevronRight;
  return (
    <Collapsible.Root
      open={open}
      onOpenChange={(next) => {
        setOpen(next);
        remember(keyOf(id), next ? 'open' : 'shut');
      }}
    >
      <Collapsible.Trigger className="flex min-h-7 w-full items-center gap-1 border-b border-rule text-left text-[14px] max-[699px]:min-h-touch">
        <Mark size={16} aria-hidden="true" className="shrink-0" />
        <span className="shrink-0 font-bold">{title}</span>
        {!open && <span className="min-w-0 truncate text-muted">{told}</span>}
      </Collapsible.Trigger>
      <Collapsible.Content className="pl-2">{children}</Collapsible.Content>
    </Collapsible.Root>
  );
}
