'use client';

/** Whether a result is still of the plan as it is. */
export function Stale({
  revision,
  stale,
  onAgain,
}: {
  revision: number;
  stale: boolean;
  onAgain: () => void;
}) {
  return (
    <p className="flex items-center gap-2 text-[14px] text-muted">
      {stale ? (
        <>
          <b className="text-stop">Of change {revision}; the plan has changed since.</b>
          <button type="button" className="button" onClick={onAgain}>
            Run it again
          </button>
        </>
      ) : (
        `Of change ${revision}.`
      )}
    </p>
  );
}
