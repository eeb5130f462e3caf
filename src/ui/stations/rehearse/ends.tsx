'use client';

import { useId, useMemo } from 'react';
import type { Plan } from '@/core/plan';
import { suggestedEnds, suggestedServices } from '@/core/rehearse';

/** A line to type an end or a service into, with what there is to choose from. */
export function TypedLine({
  plan,
  label,
  value,
  onType,
  placeholder,
  of = 'ends',
  width = 170,
}: {
  plan: Plan;
  label: string;
  value: string;
  onType: (text: string) => void;
  placeholder: string;
  of?: 'ends' | 'services';
  width?: number;
}) {
  const known = useMemo(
    () => (of === 'ends' ? suggestedEnds(plan, value) : suggestedServices(plan)),
    [plan, of, value],
  );
  const list = useId();
  return (
    <label className="text-[13px]" style={{ width }}>
      {label}
      <input
        className="field field-line mono max-[699px]:min-h-11"
        value={value}
        list={list}
        placeholder={placeholder}
        autoComplete="off"
        spellCheck={false}
        onChange={(event) => onType(event.target.value)}
      />
      <datalist id={list}>
        {known.map((item) => (
          <option key={item} value={item} />
        ))}
      </datalist>
    </label>
  );
}
