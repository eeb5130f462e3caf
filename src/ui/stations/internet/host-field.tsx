'use client';

import { useId, useMemo } from 'react';
import type { Plan } from '@/core/plan';

/** A device with an address, by its name. */
export function HostField({
  plan,
  label,
  value,
  onChange,
}: {
  plan: Plan;
  label: string;
  value: string;
  onChange: (name: string) => void;
}) {
  const list = useId();
  const names = useMemo(() => {
    const devices = new Set(
      [...plan.address.values()].map((address) => plan.interface.get(address.interface)!.device),
    );
    return [...devices]
      .map((id) => plan.device.get(id)!.name)
      .sort((a, b) => a.localeCompare(b, undefined, { numeric: true }));
  }, [plan]);
  return (
    <label className="w-[170px] text-[13px]">
      {label}
      <input
        className="field field-line"
        list={list}
        value={value}
        placeholder="host name"
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
