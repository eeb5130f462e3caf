/** Does it work? A filled square, an open one struck through, or a dashed one: told apart without colour. */
export function WorksMark({ works }: { works: boolean | null }) {
  return (
    <svg width="14" height="14" viewBox="0 0 14 14" aria-hidden="true" className="shrink-0">
      {works === true && <path d="M1 1h12v12H1z" fill="var(--ink)" />}
      {works === true && (
        <path d="M3.5 7.2 6 9.8l4.5-5.4" fill="none" stroke="var(--sheet)" strokeWidth="2" />
      )}
      {works === false && (
        <path d="M1.5 1.5h11v11h-11z M3 11 11 3" fill="none" stroke="var(--stop)" strokeWidth="2" />
      )}
      {works === null && (
        <path
          d="M1.5 1.5h11v11h-11z"
          fill="none"
          stroke="var(--ink)"
          strokeWidth="1.6"
          strokeDasharray="3 2"
        />
      )}
    </svg>
  );
}
