/** What stands where the plans are not here that boxes were set up by. */
export function FormersAwaited({ problem }: { problem: string }) {
  if (!problem) return <p role="status">Asking what the boxes were set up by…</p>;
  return (
    <p role="alert" className="border-l-4 border-stop px-3">
      What the boxes were set up by is not here: {problem} Open this once with a network; it is kept then.
    </p>
  );
}
