'use client';

import { ToggleGroup } from 'radix-ui';
import type { ReactNode } from 'react';

export interface Alternative<T extends string> {
  readonly value: T;
  readonly shown: ReactNode;
  /** Its name, where what is shown does not say it. */
  readonly name?: string;
  readonly title?: string;
}

const looks = {
  bar: {
    group: 'flex border-2 border-ink max-[699px]:flex-wrap',
    item: 'min-h-7 bg-sheet px-2 font-semibold data-[state=on]:bg-ink data-[state=on]:text-sheet max-[699px]:min-h-touch',
  },
  buttons: {
    group: 'flex flex-wrap items-center gap-2',
    item: 'button data-[state=on]:bg-hivis data-[state=on]:text-on-hivis',
  },
  jackets: {
    group: 'flex flex-wrap items-center gap-1',
    item: 'border-2 border-transparent p-px data-[state=on]:border-ink data-[state=on]:bg-chosen max-[699px]:min-h-touch',
  },
  roles: {
    group: 'grid grid-cols-2 border-2 border-ink',
    item: 'flex min-h-8 items-center justify-between gap-2 border-rule bg-sheet px-2 text-left text-[14px] font-semibold odd:border-r hover:bg-chosen data-[state=on]:bg-ink data-[state=on]:text-sheet [&:not(:nth-last-child(-n+2))]:border-b max-[699px]:min-h-touch',
  },
} as const;

/** One of a few that are all in view; the arrow keys go from one to the next. */
export function OneOf<T extends string>({
  label,
  look,
  value,
  of,
  onChoose,
  onClear,
  children,
}: {
  label: string;
  look: keyof typeof looks;
  value: T | null;
  of: readonly Alternative<T>[];
  onChoose: (value: T) => void;
  /** The chosen one was pressed again, where it may be none; else that chooses it once more. */
  onClear?: () => void;
  /** What stands before them. */
  children?: ReactNode;
}) {
  const { group, item } = looks[look];
  return (
    <ToggleGroup.Root
      type="single"
      aria-label={label}
      value={value ?? ''}
      onValueChange={(next) => {
        if (next !== '') onChoose(next as T);
        else if (onClear) onClear();
        else if (value !== null) onChoose(value);
      }}
      className={group}
    >
      {children}
      {of.map(({ value: each, shown, name, title }) => (
        <ToggleGroup.Item key={each} value={each} aria-label={name} title={title} className={item}>
          {shown}
        </ToggleGroup.Item>
      ))}
    </ToggleGroup.Root>
  );
}
