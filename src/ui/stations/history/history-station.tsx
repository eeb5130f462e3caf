'use client';

import Link from 'next/link';
import { useEffect, useState } from 'react';
import { authorName } from '../../session/author';
import { type AnswerOf, routes } from '@/contract';
import { ask } from '../../session/api';
import { useSession, useSite } from '../../session/context';
import { useView } from '../../session/view';
import { readersZone, timeText } from '../../parts/dates';
import { StationHead } from '../../parts/station-head';

type HistoryEntry = AnswerOf<typeof routes.journal.history>['entries'][number];

/** Who changed what and when, newest first. Going back is a change of its own, reviewed like any other. */
export function HistoryStation() {
  const session = useSession();
  const revision = useSite((state) => state.revision);
  const set = useView((state) => state.set);
  const [entries, setEntries] = useState<readonly HistoryEntry[]>([]);
  const [problem, setProblem] = useState('');
  const [again, setAgain] = useState(0);
  const site = session.siteId;

  useEffect(() => {
    let stale = false;
    ask(routes.journal.history, { site })
      .then((found) => !stale && setEntries(found.entries))
      .catch((error: Error) => !stale && setProblem(error.message));
    return () => {
      stale = true;
    };
  }, [site, revision, again]);

  const more = async () => {
    const last = entries.at(-1);
    if (!last) return;
    try {
      const found = await ask(routes.journal.history, { site, query: { below: last.revision } });
      setEntries([...entries, ...found.entries]);
    } catch (error) {
      setProblem((error as Error).message);
    }
  };
  const goBack = async (to: number) => {
    try {
      const call = await session.backTo(to);
      const intent = { kind: 'back', to } as const;
      set({ review: { title: `Back to change ${to}`, call, intent, accept: 'Go back' } });
    } catch (error) {
      setProblem((error as Error).message);
    }
  };
  return (
    <>
      <StationHead
        title="History"
        about="who changed what and when; go back to any change, or give one a name"
      />
      <p className="pb-3">
        <Link className="button" href={`/site/${site}/compare`}>
          Compare with another plan
        </Link>
      </p>
      {problem && <p role="alert">{problem}</p>}
      {entries.length === 0 ? (
        <p>No changes yet.</p>
      ) : (
        <table className="schedule max-w-[1000px]">
          <thead>
            <tr>
              {['Change', `When (${readersZone()})`, 'Who', 'What', 'Name', ''].map((head, i) => (
                <th key={i} scope="col">
                  {head || <span className="sr-only">Go back</span>}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {entries.map((entry) => (
              <tr key={entry.revision}>
                <th scope="row" className="mono px-1 text-right">
                  {entry.revision}
                </th>
                <td className="px-1 whitespace-nowrap">{timeText(entry.at)}</td>
                <td className="px-1">{entry.author}</td>
                <td className="max-w-[380px] truncate px-1 max-[699px]:whitespace-normal" title={entry.label}>
                  {entry.label}
                  {entry.undoes !== null && (
                    <span className="text-muted"> (reverts change {entry.undoes})</span>
                  )}
                </td>
                <td>
                  <NameOf entry={entry} site={site} onNamed={() => setAgain(again + 1)} />
                </td>
                <td>
                  {entry.revision < revision && (
                    <ToChange site={site} revision={entry.revision} onBack={goBack} />
                  )}
                </td>
              </tr>
            ))}
            {entries.at(-1)?.revision === 1 && (
              <tr>
                <th scope="row" className="mono px-1 text-right">
                  0
                </th>
                <td colSpan={4} className="px-1 text-muted">
                  the site as it was created
                </td>
                <td>
                  <ToChange site={site} revision={0} onBack={goBack} />
                </td>
              </tr>
            )}
          </tbody>
        </table>
      )}
      {(entries.at(-1)?.revision ?? 1) > 1 && (
        <button type="button" className="button mt-3" onClick={() => void more()}>
          Older changes
        </button>
      )}
    </>
  );
}

/** What can be done with how the plan was at an earlier change. */
function ToChange({
  site,
  revision,
  onBack,
}: {
  site: string;
  revision: number;
  onBack: (revision: number) => Promise<void>;
}) {
  return (
    <span className="flex flex-wrap gap-x-3">
      <Link
        className="link"
        href={`/site/${site}/compare?from=${revision}`}
        aria-label={`Compare change ${revision} with now`}
      >
        compare
      </Link>
      <button
        type="button"
        className="link"
        onClick={() => void onBack(revision)}
        aria-label={`Go back to change ${revision}`}
      >
        go back…
      </button>
    </span>
  );
}

function NameOf({ entry, site, onNamed }: { entry: HistoryEntry; site: string; onNamed: () => void }) {
  const [typed, setTyped] = useState<string | null>(null);
  const [problem, setProblem] = useState('');
  const save = async () => {
    if (typed === null || typed === (entry.name ?? '')) return setTyped(null);
    try {
      const body = { revision: entry.revision, name: typed, author: authorName() };
      await ask(routes.journal.name, { site, body });
      setTyped(null);
      setProblem('');
      onNamed();
    } catch (error) {
      setProblem((error as Error).message);
    }
  };
  return (
    <>
      <input
        className="field"
        aria-label={`Name of change ${entry.revision}`}
        placeholder="name it"
        value={typed ?? entry.name ?? ''}
        aria-invalid={problem !== ''}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={() => void save()}
        onKeyDown={(event) => {
          if (event.key === 'Enter') void save();
          if (event.key === 'Escape') setTyped(null);
        }}
      />
      {problem && (
        <p role="alert" className="text-[13px] text-stop">
          {problem}
        </p>
      )}
    </>
  );
}
