'use client';

import { useId } from 'react';

/** A line that is read as it is typed, with what there is to choose from. */
export function TypedLine({
  label,
  value,
  onType,
  placeholder,
  known,
  mono = true,
  width = 170,
}: {
  label: string;
  value: string;
  onType: (text: string) => void;
  placeholder: string;
  known?: readonly string[];
  mono?: boolean;
  width?: number;
}) {
  const list = useId();
  return (
    <label className="text-[13px]" style={{ width }}>
      {label}
      <input
        className={`field field-line max-[699px]:min-h-touch ${mono ? 'mono' : ''}`}
        value={value}
        placeholder={placeholder}
        autoComplete="off"
        spellCheck={false}
        onChange={(event) => onType(event.target.value)}
        {...(known ? { list } : {})}
      />
      {known && <Known id={list} names={known} />}
    </label>
  );
}

/** What can be chosen while typing into the line that names this list. */
export function Known({ id, names }: { id: string; names: readonly string[] }) {
  return (
    <datalist id={id}>
      {names.map((name) => (
        <option key={name} value={name} />
      ))}
    </datalist>
  );
}
