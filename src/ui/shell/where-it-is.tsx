'use client';

import Link from 'next/link';
import { useEffect } from 'react';
import { useSession, useSite } from '../session/context';
import { useUpdated } from '../session/program-version';
import type { SiteState } from '../session/state';

const changes = (count: number) => (count === 1 ? 'One change waits' : `${count} changes wait`);

function words({ saving, unsaved, trouble }: SiteState): string {
  const kept = unsaved > 0 ? ` ${changes(unsaved)} in this browser and will be saved then.` : '';
  if (saving === 'offline')
    return `The server cannot be reached. Go on: what you type is kept here until it is back.${kept}`;
  if (saving === 'trouble') return `Not saved: ${trouble}${kept}`;
  if (saving === 'deleted')
    return unsaved > 0
      ? `This site was deleted by somebody. ${changes(unsaved)} in this browser; copy what you need.`
      : 'This site was deleted by somebody.';
  return '';
}

/** Where what was typed is while it is not on the server, what that means, and the way out. */
export function WhereItIs() {
  const session = useSession();
  const state = useSite((now) => now);
  const updated = useUpdated((now) => now.updated);
  const { saving, unsaved, findingsFailed } = state;
  useEffect(() => {
    if (unsaved === 0 || saving === 'saving') return;
    const ask = (event: BeforeUnloadEvent) => event.preventDefault();
    window.addEventListener('beforeunload', ask);
    return () => window.removeEventListener('beforeunload', ask);
  }, [saving, unsaved]);
  const text = words(state);
  return (
    <>
      {text && (
        <Strip severe text={text}>
          {saving === 'deleted' && (
            <Link className="button" href="/">
              All sites
            </Link>
          )}
        </Strip>
      )}
      {updated && (
        <Strip text="The program was updated. Load the page again to work with the new one; what you typed is kept.">
          <button type="button" className="button" onClick={() => window.location.reload()}>
            Load again
          </button>
        </Strip>
      )}
      {findingsFailed && (
        <Strip severe text={`The findings are not worked out: ${findingsFailed}. Everything else goes on.`}>
          <button type="button" className="button" onClick={() => session.findAgain()}>
            Work them out again
          </button>
        </Strip>
      )}
    </>
  );
}

function Strip({
  text,
  severe = false,
  children,
}: {
  text: string;
  severe?: boolean;
  children?: React.ReactNode;
}) {
  return (
    <div
      role="status"
      className={`no-print flex flex-wrap items-center gap-x-3 border-b-[3px] bg-sheet px-4 py-1 ${severe ? 'border-stop' : 'border-ink'}`}
    >
      <p>{text}</p>
      {children}
    </div>
  );
}
