'use client';

import Link from 'next/link';
import { useState } from 'react';
import { type Change, type Plan, applySteps, invertSteps } from '@/core/plan';
import { isTold } from '../session/attempt';
import { usePlan, useSession } from '../session/context';
import { Differences } from '../parts/differences';
import { Problem } from '../parts/problem';

/** The plan beside what was built: what has changed since both signed. */
export function SinceBuilt({ asBuilt }: { asBuilt: number }) {
  const session = useSession();
  const plan = usePlan();
  const [shown, setShown] = useState<{
    readonly now: Plan;
    readonly built: Plan;
    readonly change: Change;
  } | null>(null);
  const [problem, setProblem] = useState('');
  const look = async () => {
    try {
      const { label, steps } = session.preview(await session.backTo(asBuilt));
      const back = applySteps(session.plan, steps);
      setProblem('');
      if (back.ok)
        setShown({ now: session.plan, built: back.plan, change: { label, steps: invertSteps(steps) } });
    } catch (error) {
      if (!isTold(error)) throw error;
      setProblem(error.message);
    }
  };
  // What has changed meanwhile is looked at anew.
  const current = shown?.now === plan ? shown : null;
  return (
    <div className="pb-2">
      {current ? (
        <section aria-label="Changed since it was built">
          <Differences plan={current.built} change={current.change} />
        </section>
      ) : (
        <span className="flex flex-wrap items-center gap-3">
          <button type="button" className="button" onClick={() => void look()}>
            What has changed since
          </button>
          <Link className="link" href={`/site/${session.siteId}/compare?from=${asBuilt}`}>
            to print
          </Link>
        </span>
      )}
      <Problem text={problem} />
    </div>
  );
}
