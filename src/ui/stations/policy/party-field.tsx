'use client';

import { useId, useMemo } from 'react';
import { type Plan, vlansOf } from '@/core/plan';
import { allServices, zonesOf } from '@/core/model/policy';

interface Props {
  readonly plan: Plan;
  readonly label: string;
  readonly value: string;
  readonly onChange: (text: string) => void;
  readonly placeholder: string;
  readonly id?: string;
}

/** Zones, segments, devices or networks, typed with commas. */
export function PartyField({ plan, ...props }: Props) {
  const names = useMemo(
    () => [...new Set([...zonesOf(plan), ...vlansOf(plan), ...plan.device.values()].map(({ name }) => name))],
    [plan],
  );
  return <Suggested {...props} names={names} />;
}

/** Services by name, typed with commas. */
export function ServiceField({ plan, ...props }: Props) {
  const names = useMemo(() => allServices(plan).map(({ name }) => name), [plan]);
  return <Suggested {...props} names={names} />;
}

function Suggested({
  label,
  value,
  onChange,
  placeholder,
  id,
  names,
}: Omit<Props, 'plan'> & { names: readonly string[] }) {
  const list = useId();
  return (
    <label className="min-w-[120px] flex-1 text-[13px]">
      {label}
      <input
        id={id}
        className="field field-line"
        list={list}
        value={value}
        placeholder={placeholder}
        autoComplete="off"
        onChange={(event) => onChange(event.target.value)}
      />
      <datalist id={list}>
        {names.map((name) => (
          <option key={name} value={name} />
        ))}
      </datalist>
    </label>
  );
}
