'use client';

import { Check, Minus } from 'lucide-react';
import { Checkbox } from 'radix-ui';
import { useRef } from 'react';

/** A box to tick. `through` tells that Shift was held, where that means all in between. */
export function Tick({
  label,
  checked,
  mixed = false,
  onChange,
}: {
  /** Where no label element is around it. */
  label?: string;
  checked: boolean;
  /** Some of what it stands for is on, and some is off. */
  mixed?: boolean;
  onChange: (checked: boolean, through: boolean) => void;
}) {
  const shift = useRef(false);
  return (
    <Checkbox.Root
      aria-label={label}
      checked={mixed ? 'indeterminate' : checked}
      onClickCapture={(event) => {
        shift.current = event.shiftKey;
      }}
      onCheckedChange={(next) => onChange(next === true, shift.current)}
      className="relative flex size-[18px] shrink-0 items-center justify-center border-2 max-[699px]:after:absolute max-[699px]:after:-inset-[13px] max-[699px]:after:content-[''] border-ink bg-sheet data-[state=checked]:bg-ink data-[state=checked]:text-sheet"
    >
      <Checkbox.Indicator>
        {mixed ? (
          <Minus size={14} strokeWidth={3} aria-hidden="true" />
        ) : (
          <Check size={14} strokeWidth={3} aria-hidden="true" />
        )}
      </Checkbox.Indicator>
    </Checkbox.Root>
  );
}

/** The same with its words. */
export function Toggle({
  label,
  ...tick
}: {
  label: string;
  checked: boolean;
  mixed?: boolean;
  onChange: (checked: boolean) => void;
}) {
  return (
    <label className="flex min-h-7 items-center gap-2 px-1 max-[699px]:min-h-touch">
      <Tick {...tick} />
      <span>{label}</span>
    </label>
  );
}
