'use client';

import { ChevronDown } from 'lucide-react';
import { Select } from 'radix-ui';
import type { ReactNode } from 'react';

export interface Option<T extends string = string> {
  readonly value: T;
  readonly label: string;
}
interface OptionGroup<T extends string> {
  readonly label: string;
  readonly options: readonly Option<T>[];
}

interface ChoiceProps<T extends string> {
  readonly label: string;
  /** Null while nothing is chosen; `placeholder` stands there then. */
  readonly value: T | null;
  readonly options: readonly (Option<T> | OptionGroup<T>)[];
  readonly onChoose: (value: T) => void;
  readonly placeholder?: string;
  readonly lined?: boolean;
  readonly disabled?: boolean;
  readonly autoFocus?: boolean;
  readonly className?: string;
}

/** An empty value means something here and nothing to the list. */
const keyOf = (value: string) => `=${value}`;

/** One of a few values. */
export function Choice<T extends string>({
  label,
  value,
  options,
  onChoose,
  placeholder,
  lined,
  disabled,
  autoFocus,
  className,
}: ChoiceProps<T>) {
  return (
    <Select.Root
      value={value === null ? '' : keyOf(value)}
      onValueChange={(key) => onChoose(key.slice(1) as T)}
      {...(disabled ? { disabled } : {})}
    >
      <Select.Trigger
        aria-label={label}
        autoFocus={autoFocus}
        className={
          className ??
          `field flex items-center justify-between gap-1 text-left whitespace-nowrap ${lined ? 'field-line' : ''}`
        }
      >
        <span className="min-w-0 truncate">
          <Select.Value placeholder={placeholder} />
        </span>
        <Select.Icon>
          <ChevronDown size={15} aria-hidden="true" />
        </Select.Icon>
      </Select.Trigger>
      <Select.Portal>
        <Select.Content
          position="popper"
          data-typing
          className="z-[60] max-h-(--radix-select-content-available-height) min-w-(--radix-select-trigger-width) border-2 border-ink bg-sheet text-ink"
        >
          <Select.Viewport className="py-1">
            {options.map((option) =>
              'options' in option ? (
                <Select.Group key={option.label}>
                  <Select.Label className="px-3 pt-2 text-[13px] font-bold text-muted">
                    {option.label}
                  </Select.Label>
                  {option.options.map((each) => (
                    <Item key={each.value} value={each.value}>
                      {each.label}
                    </Item>
                  ))}
                </Select.Group>
              ) : (
                <Item key={option.value} value={option.value}>
                  {option.label}
                </Item>
              ),
            )}
          </Select.Viewport>
        </Select.Content>
      </Select.Portal>
    </Select.Root>
  );
}

function Item({ value, children }: { value: string; children: ReactNode }) {
  return (
    <Select.Item
      value={keyOf(value)}
      data-value={value}
      className="flex min-h-7 cursor-pointer items-center border-l-4 border-transparent px-2 outline-none data-[highlighted]:bg-chosen data-[state=checked]:border-ink data-[state=checked]:font-bold max-[699px]:min-h-11"
    >
      <Select.ItemText>{children}</Select.ItemText>
    </Select.Item>
  );
}
