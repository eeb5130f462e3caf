'use client';

import { DropdownMenu } from 'radix-ui';
import { useState } from 'react';
import { remember, remembered } from '../session/stored';

export interface Columns<Name extends string> {
  readonly all: readonly Name[];
  readonly shows: (name: Name) => boolean;
  readonly toggle: (name: Name) => void;
}

/** Which of a table's optional columns are shown; remembered in this browser. */
export function useColumns<Name extends string>(table: string, all: readonly Name[]): Columns<Name> {
  const key = `dianome.columns.${table}`;
  const [hidden, setHidden] = useState<ReadonlySet<string>>(
    () => new Set((remembered(key) ?? '').split(',').filter((name) => name !== '')),
  );
  return {
    all,
    shows: (name) => !hidden.has(name),
    toggle: (name) => {
      const next = new Set(hidden);
      if (!next.delete(name)) next.add(name);
      remember(key, [...next].join(','));
      setHidden(next);
    },
  };
}

/** The button that lists the columns; the menu stays open while several are chosen. */
export function ColumnChoice<Name extends string>({ columns }: { columns: Columns<Name> }) {
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className="link text-[13px] max-[699px]:hidden">columns</DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="end"
          className="z-40 min-w-40 border-2 border-ink bg-sheet py-1"
          aria-label="Columns"
        >
          {columns.all.map((name) => (
            <DropdownMenu.CheckboxItem
              key={name}
              checked={columns.shows(name)}
              onCheckedChange={() => columns.toggle(name)}
              onSelect={(event) => event.preventDefault()}
              className="flex min-h-8 cursor-pointer items-center gap-2 px-3 outline-none data-[highlighted]:bg-chosen"
            >
              <span
                className="flex size-4 items-center justify-center border-2 border-ink"
                aria-hidden="true"
              >
                <DropdownMenu.ItemIndicator className="block size-2 bg-ink" />
              </span>
              {name}
            </DropdownMenu.CheckboxItem>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
