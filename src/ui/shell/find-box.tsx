'use client';

import { useRouter } from 'next/navigation';
import { type KeyboardEvent, type RefObject, useEffect, useState } from 'react';
import { type Hit, findInPlan } from '@/core/find';
import { type AnswerOf, routes } from '@/contract';
import { ask } from '../session/api';
import { usePlan, useSession } from '../session/context';
import { useView } from '../session/view';

type SiteHit = AnswerOf<typeof routes.sites.find>['hits'][number];

/** Finds an address, prefix, MAC, VLAN id, name or code; in this site at once, in all sites on request. */
export function FindBox({ inputRef }: { inputRef: RefObject<HTMLInputElement | null> }) {
  const plan = usePlan();
  const session = useSession();
  const router = useRouter();
  const { select, set } = useView();
  const [query, setQuery] = useState('');
  const [open, setOpen] = useState(false);
  const [everywhere, setEverywhere] = useState(false);
  const [remote, setRemote] = useState<readonly SiteHit[]>([]);
  const [chosen, setChosen] = useState(0);
  const [problem, setProblem] = useState('');
  /** Where more hits of all sites begin; null at the end. */
  const [more, setMore] = useState<number | null>(null);

  useEffect(() => {
    if (!everywhere || !query.trim()) return;
    let stale = false;
    ask(routes.sites.find, { query: { q: query } })
      .then(({ hits, next }) => {
        if (stale) return;
        setRemote(hits);
        setMore(next);
        setProblem('');
      })
      .catch((error: Error) => {
        if (stale) return;
        setRemote([]);
        setMore(null);
        setProblem(error.message);
      });
    return () => {
      stale = true;
    };
  }, [everywhere, query]);

  const hits: readonly (Hit & Partial<SiteHit>)[] =
    !open || !query.trim() ? [] : everywhere ? remote : findInPlan(plan, query);
  const showMore = async () => {
    if (more === null) return;
    const found = await ask(routes.sites.find, { query: { q: query, after: more } });
    setRemote([...remote, ...found.hits]);
    setMore(found.next);
  };
  const go = (hit: Hit & Partial<SiteHit>) => {
    const station = { address: 'addresses', segment: 'segments', gear: 'gear' }[hit.kind];
    const asked = { vlan: hit.vlan, address: hit.address, device: hit.device, port: hit.port };
    const known = Object.entries(asked).filter((entry): entry is [string, string] => entry[1] !== null);
    setOpen(false);
    setQuery('');
    if (hit.site && hit.site !== session.siteId)
      router.push(`/site/${hit.site}/${station}?${new URLSearchParams(known)}`);
    else {
      if (hit.kind === 'gear') set({ device: hit.device, ports: hit.port ? [hit.port] : [], asking: null });
      else select(hit.vlan, hit.address);
      router.push(`/site/${session.siteId}/${station}`);
    }
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === 'ArrowDown') setChosen(Math.min(chosen + 1, hits.length - 1));
    else if (event.key === 'ArrowUp') setChosen(Math.max(chosen - 1, 0));
    else if (event.key === 'Enter' && hits[chosen]) go(hits[chosen]);
    else if (event.key === 'Escape') {
      setOpen(false);
      inputRef.current?.blur();
    } else return;
    event.preventDefault();
  };
  return (
    <div className="relative w-full max-w-[300px] min-w-[120px]">
      <div className="flex items-center border-b-2 border-ink">
        <input
          ref={inputRef}
          role="combobox"
          aria-label="Find"
          aria-expanded={hits.length > 0}
          aria-controls="find-hits"
          aria-activedescendant={hits[chosen] ? `find-hit-${chosen}` : undefined}
          className="min-h-8 w-full bg-transparent px-1 outline-none placeholder:text-muted focus-visible:bg-sheet"
          placeholder="address, port, name, MAC"
          value={query}
          onFocus={() => setOpen(true)}
          onBlur={() => setTimeout(() => setOpen(false), 150)}
          onChange={(event) => {
            setQuery(event.target.value);
            setChosen(0);
            setOpen(true);
          }}
          onKeyDown={onKeyDown}
        />
        <span className="key" aria-hidden="true">
          /
        </span>
      </div>
      {open && query.trim() && (
        <div
          className="absolute right-0 left-0 z-30 min-w-[320px] border-2 border-ink bg-sheet text-[14px]"
          onMouseDown={(event) => event.preventDefault()}
        >
          <ul id="find-hits" role="listbox" aria-label="Found" className="max-h-[60vh] overflow-y-auto">
            {hits.map((hit, i) => (
              <li
                key={[hit.site, hit.vlan, hit.address, hit.device, hit.port].join()}
                id={`find-hit-${i}`}
                role="option"
                aria-selected={i === chosen}
                className={`cursor-pointer px-2 py-1 ${i === chosen ? 'bg-chosen' : ''}`}
                onClick={() => go(hit)}
              >
                <span className="mono font-bold">{hit.title}</span>
                <span className="block text-muted">
                  {[hit.siteName, hit.detail].filter(Boolean).join(' · ')}
                </span>
              </li>
            ))}
          </ul>
          {hits.length === 0 && (
            <p className="px-2 py-1">
              {everywhere && problem
                ? problem
                : `Nothing found ${everywhere ? 'in any site' : 'in this site'}.`}
            </p>
          )}
          {everywhere && more !== null && (
            <button type="button" className="link px-2 py-1" onClick={() => void showMore()}>
              more hits
            </button>
          )}
          <label className="flex items-center gap-2 border-t border-rule px-2 py-1">
            <input
              type="checkbox"
              checked={everywhere}
              onChange={(event) => setEverywhere(event.target.checked)}
            />
            in all sites
          </label>
        </div>
      )}
    </div>
  );
}
