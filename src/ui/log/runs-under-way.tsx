'use client';

import Link from 'next/link';
import { useSession } from '../session/context';
import { useLog } from '../session/log-context';

/** The ways back to the runs that are not ended. */
export function RunsUnderWay() {
  const { siteId } = useSession();
  const runs = useLog((state) => state.log.runs);
  return runs
    .filter(({ ended }) => !ended)
    .map(({ id, begun }) => (
      <Link key={id} className="button" href={`/site/${siteId}/run?run=${id}`}>
        Go on with “{begun.body.name}”
      </Link>
    ));
}
