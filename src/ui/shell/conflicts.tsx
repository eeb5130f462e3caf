import type { Call } from '@/core/plan';
('use client');

import { useSession, useSite } from '../session/context';
import { useView } from '../session/view';

/** Edits that could not be applied to the newer plan: nothing typed is lost, each can be looked at again or let go. */
export function Conflicts() {
  const conflicts = useSite((state) => state.conflicts);
  const session = useSession();
  const set = useView((state) => state.set);
  if (conflicts.length === 0) return null;
  return (
    <section
      aria-label="Edits not applied"
      className="no-print border-b-[3px] border-stop bg-sheet px-4 py-2"
    >
      {conflicts.map((conflict) => (
        <div key={conflict.seed} role="alert" className="flex flex-wrap items-center gap-x-3 gap-y-1 py-1">
          <p>
            <b>Not applied: {conflict.label}.</b> {conflict.why}
            {conflict.between.length > 0 && (
              <span className="text-muted"> Between: {conflict.between.join('; ')}</span>
            )}
          </p>
          <button
            type="button"
            className="button"
            onClick={() => {
              set({
                review: { title: 'Apply again', call: withoutSeen(conflict.call), accept: 'Apply it now' },
              });
              session.dismiss(conflict);
            }}
          >
            Apply to the plan as it is now…
          </button>
          <button type="button" className="button" onClick={() => session.dismiss(conflict)}>
            Let it go
          </button>
        </div>
      ))}
    </section>
  );
}

/** The same edit without the value it was based on: the user has seen what it is now and decides. */
function withoutSeen(call: Call): Call {
  const { seen: _seen, ...input } = call.input as { readonly seen?: unknown };
  return { ...call, input } as Call;
}
