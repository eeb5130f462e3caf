'use client';

import type { Call, WireCall } from '@/core/plan';
import { useSession, useSite } from '../session/context';
import { useNotices } from '../session/notices';
import type { Conflict } from '../session/pending';
import { useView } from '../session/view';

/** Edits that could not be applied to the newer plan: nothing typed is lost, each can be looked at again or let go. */
export function Conflicts() {
  const conflicts = useSite((state) => state.conflicts);
  const session = useSession();
  const set = useView((state) => state.set);
  const tell = useNotices((state) => state.tell);
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
              const call = withoutSeen(conflict.call);
              set({ review: { title: 'Apply again', call, conflict, accept: 'Apply it now' } });
            }}
          >
            Apply to the plan as it is now…
          </button>
          <button
            type="button"
            className="button"
            onClick={() => void navigator.clipboard.writeText(textOf(conflict)).then(() => tell('Copied.'))}
          >
            Copy it as text
          </button>
          <button type="button" className="button" onClick={() => session.dismiss(conflict)}>
            Let it go
          </button>
        </div>
      ))}
    </section>
  );
}

/** What somebody wanted, to put elsewhere: the label, why it was not done, and what was typed. */
const textOf = ({ label, why, call }: Conflict): string =>
  `${label}\n${why}\n${JSON.stringify(call.input, null, 2)}\n`;

/** The same edit without the value it was based on: the user has seen what it is now and decides. */
function withoutSeen(call: WireCall): Call {
  const { seen: _seen, ...input } = call.input as { readonly seen?: unknown };
  return { ...call, input } as Call;
}
