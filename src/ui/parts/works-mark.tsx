/** Does it get through? An arrow that arrives, a line that ends at a bar, or a dashed one: told apart without colour. */
export function WorksMark({ works }: { works: boolean | null }) {
  return (
    <svg width="18" height="14" viewBox="0 0 18 14" aria-hidden="true" className="shrink-0">
      {works === true && (
        <path d="M0 7h9M8 1.5 17 7l-9 5.5z" fill="var(--ink)" stroke="var(--ink)" strokeWidth="2" />
      )}
      {works === false && <path d="M0 7h10M12.5 1v12" fill="none" stroke="var(--stop)" strokeWidth="3" />}
      {works === null && (
        <path d="M0 7h17" fill="none" stroke="var(--ink)" strokeWidth="2.4" strokeDasharray="3.4 2.6" />
      )}
    </svg>
  );
}
