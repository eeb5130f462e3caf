import type { ReactNode } from 'react';

/** A row of the details: label left, value right. */
export function Property({ label, children }: { label: string; children: ReactNode }) {
  return (
    <div className="grid grid-cols-[6.6rem_1fr] items-center border-b border-rule text-[14px]">
      <span className="text-muted">{label}</span>
      <div className="min-w-0 border-l border-rule pl-1">{children}</div>
    </div>
  );
}

export function Toggle({
  label,
  checked,
  mixed = false,
  onChange,
}: {
  label: string;
  checked: boolean;
  /** Some of what it stands for is on, and some is off. */
  mixed?: boolean;
  onChange: (checked: boolean) => void;
}) {
  return (
    <label className="flex min-h-7 items-center gap-2 px-1 max-[699px]:min-h-11">
      <input
        type="checkbox"
        className="size-4 accent-ink"
        checked={checked}
        ref={(box) => {
          if (box) box.indeterminate = mixed;
        }}
        onChange={(event) => onChange(event.target.checked)}
      />
      <span>{label}</span>
    </label>
  );
}
