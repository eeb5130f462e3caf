/** A dimension line as on a drawing: the sum under it is what it measures. */
export function DimensionLine({ from, to, text }: { from: string; to: string; text: string }) {
  return (
    <span className="absolute top-0 block" style={{ left: from, width: `calc(${to} - ${from})` }}>
      <svg className="block h-[10px] w-full overflow-visible" aria-hidden="true">
        <line x1="0" x2="100%" y1="5" y2="5" stroke="var(--ink)" />
        <line x1="0.5" x2="0.5" y1="0" y2="10" stroke="var(--ink)" />
        <line x1="100%" x2="100%" y1="0" y2="10" stroke="var(--ink)" />
      </svg>
      <span className="mono block text-center text-[12px] leading-tight whitespace-nowrap">{text}</span>
    </span>
  );
}
