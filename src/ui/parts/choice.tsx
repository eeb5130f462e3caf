'use client';

import { ChevronDown } from 'lucide-react';
import { Select } from 'radix-ui';
import { type ReactNode, useLayoutEffect, useRef, useState } from 'react';

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

const labelOf = <T extends string>(options: ChoiceProps<T>['options'], value: T | null): string | undefined =>
  options
    .flatMap((option) => ('options' in option ? option.options : [option]))
    .find((option) => option.value === value)?.label;

const lookOf = (lined: boolean | undefined) =>
  `field flex items-center justify-between gap-1 text-left whitespace-nowrap ${lined ? 'field-line' : ''}`;

/** What stands in the line while the list is shut. */
function Shown({ text, dim }: { text: ReactNode; dim?: boolean }) {
  return (
    <>
      <span className={`min-w-0 truncate ${dim ? 'text-muted' : ''}`}>{text}</span>
      <ChevronDown size={15} className="shrink-0" aria-hidden="true" />
    </>
  );
}

/**
 * One of a few values. A table has many of these, of which one is opened: until it is pointed at or has the focus there is only
 * the line, and the list comes then.
 */
export function Choice<T extends string>(props: ChoiceProps<T>) {
  const { label, value, options, placeholder, lined, disabled, autoFocus, className } = props;
  const [live, setLive] = useState<'by pointer' | 'by focus' | 'open' | null>(autoFocus ? 'by focus' : null);
  if (live) return <List {...props} start={live} />;
  const text = labelOf(options, value);
  return (
    <button
      type="button"
      role="combobox"
      aria-expanded={false}
      aria-label={label}
      disabled={disabled}
      className={className ?? lookOf(lined)}
      onPointerEnter={({ pointerType }) => pointerType === 'mouse' && setLive((how) => how ?? 'by pointer')}
      // A press may come before the list has taken this one's place.
      onPointerDown={({ pointerType, button }) => pointerType === 'mouse' && button === 0 && setLive('open')}
      onFocus={() => setLive((how) => how ?? 'by focus')}
      onClick={() => setLive('open')}
    >
      <Shown text={text ?? placeholder ?? ''} dim={text === undefined} />
    </button>
  );
}

function List<T extends string>({
  label,
  value,
  options,
  onChoose,
  placeholder,
  lined,
  disabled,
  className,
  start,
}: ChoiceProps<T> & { start: 'by pointer' | 'by focus' | 'open' }) {
  const trigger = useRef<HTMLButtonElement>(null);
  useLayoutEffect(() => {
    if (start === 'by focus') trigger.current!.focus();
  }, [start]);
  return (
    <Select.Root
      defaultOpen={start === 'open'}
      value={value === null ? '' : keyOf(value)}
      onValueChange={(key) => onChoose(key.slice(1) as T)}
      {...(disabled ? { disabled } : {})}
    >
      <Select.Trigger ref={trigger} aria-label={label} className={className ?? lookOf(lined)}>
        <Shown text={<Select.Value placeholder={placeholder} />} />
      </Select.Trigger>
      <Select.Portal>
        <Select.Content
          position="popper"
          // What it hangs on may be pushed off the screen by findings that come in; the list is to be reached all the same.
          sticky="always"
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
      className="flex min-h-7 cursor-pointer items-center border-l-4 border-transparent px-2 outline-none data-[highlighted]:bg-chosen data-[state=checked]:border-ink data-[state=checked]:font-bold max-[699px]:min-h-touch"
    >
      <Select.ItemText>{children}</Select.ItemText>
    </Select.Item>
  );
}
