import type { Severity } from '@/core/findings';

/** Our own marks. Severity shows by shape as well as colour: octagon, triangle, square. */
const words: Readonly<Record<Severity, string>> = { stop: 'stop', fix: 'fix', note: 'note' };

export function SeverityMark({ severity, size = 15 }: { severity: Severity; size?: number }) {
  return (
    <svg
      width={size}
      height={size}
      viewBox="0 0 16 16"
      role="img"
      aria-label={words[severity]}
      className="shrink-0"
    >
      {severity === 'stop' && <path d="M5 .7h6L15.3 5v6L11 15.3H5L.7 11V5z" fill="var(--stop)" />}
      {severity === 'fix' && (
        <path d="M8 1.5 15.2 14.6H.8z" fill="var(--fix)" stroke="var(--ink)" strokeWidth="1.2" />
      )}
      {severity === 'note' && (
        <path d="M2 2h12v12H2z M5 6h6 M5 9.5h6" fill="none" stroke="var(--note)" strokeWidth="1.8" />
      )}
    </svg>
  );
}

export function Logo() {
  return (
    <svg width="34" height="20" viewBox="0 0 34 20" aria-hidden="true">
      <rect x="1" y="1" width="32" height="18" fill="var(--sheet)" stroke="var(--ink)" strokeWidth="2" />
      <rect x="1" y="1" width="7" height="18" fill="var(--ink)" />
      <rect x="9" y="2" width="11" height="16" fill="var(--hivis)" />
      <path d="M20.5 1v18M26 1v18" stroke="var(--ink)" strokeWidth="2" />
    </svg>
  );
}

export function GripMark() {
  return (
    <svg width="10" height="14" viewBox="0 0 10 14" aria-hidden="true">
      <path d="M1 3h8M1 7h8M1 11h8" stroke="var(--muted)" strokeWidth="1.6" />
    </svg>
  );
}
