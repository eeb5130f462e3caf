'use client';

import { Command as Palette, defaultFilter } from 'cmdk';
import { useRouter } from 'next/navigation';
import { type RefObject, useEffect, useRef, useState } from 'react';
import { type Hit, findInPlan } from '@/core/find';
import { usePlan, useSession } from '../session/context';
import { Toggle } from '../parts/tick';
import { useView } from '../session/view';
import { type Command, useOfferedCommands } from './commands';
import { type SiteHit, useFindEverywhere } from './find-everywhere';

type AnyHit = Hit & Partial<SiteHit>;
/** So many commands are shown beside what is found. */
const COMMANDS = 6;

/** Finds an address, prefix, MAC, VLAN id, name or code, a station, and everything that can be done on this page. */
export function FindBox({ inputRef }: { inputRef: RefObject<HTMLInputElement | null> }) {
  const [query, setQuery] = useState('');
  const [open, setOpen] = useState(false);
  const box = useRef<HTMLDivElement>(null);
  // The library takes its list for always open.
  useEffect(() => inputRef.current?.setAttribute('aria-expanded', String(open)), [inputRef, open]);
  const close = () => {
    setOpen(false);
    setQuery('');
    inputRef.current?.blur();
  };
  return (
    <Palette
      ref={box}
      label="Find"
      shouldFilter={false}
      loop
      className="relative w-full max-w-[300px] min-w-[120px]"
      onKeyDown={(event) => {
        if (event.key !== 'Escape') return;
        event.preventDefault();
        close();
      }}
      onBlur={(event) => box.current?.contains(event.relatedTarget) || setOpen(false)}
    >
      <div className="flex items-center border-b-2 border-ink">
        <Palette.Input
          ref={inputRef}
          aria-label="Find"
          className="min-h-8 w-full bg-transparent px-1 outline-none placeholder:text-muted focus-visible:bg-sheet"
          placeholder="address, port, name, MAC"
          value={query}
          onFocus={() => setOpen(true)}
          onValueChange={(text) => {
            setQuery(text);
            setOpen(true);
          }}
        />
        <span className="key" aria-hidden="true">
          /
        </span>
      </div>
      <Found open={open} query={open ? query.trim() : ''} onDone={close} />
    </Palette>
  );
}

/** It is there while it is closed too, empty: the field names the list it opens. */
function Found({ open, query, onDone }: { open: boolean; query: string; onDone: () => void }) {
  const plan = usePlan();
  const session = useSession();
  const router = useRouter();
  const { select, set } = useView();
  const [everywhere, setEverywhere] = useState(false);
  const remote = useFindEverywhere(everywhere ? query : '');
  const hits: readonly AnyHit[] = query === '' ? [] : everywhere ? remote.hits : findInPlan(plan, query);
  const matching = useMatching(query);
  const commands = open ? matching : [];
  const go = (hit: AnyHit) => {
    const station = { address: 'addresses', segment: 'segments', gear: 'gear' }[hit.kind];
    const asked = { vlan: hit.vlan, address: hit.address, device: hit.device, port: hit.port };
    const known = Object.entries(asked).filter((entry): entry is [string, string] => entry[1] !== null);
    onDone();
    if (hit.site && hit.site !== session.siteId)
      router.push(`/site/${hit.site}/${station}?${new URLSearchParams(known)}`);
    else {
      if (hit.kind === 'gear') set({ device: hit.device, ports: hit.port ? [hit.port] : [], asking: null });
      else select(hit.vlan, hit.address);
      router.push(`/site/${session.siteId}/${station}`);
    }
  };
  return (
    <div
      className={`absolute right-0 left-0 z-30 min-w-[320px] border-2 border-ink bg-sheet text-[14px] max-[699px]:min-w-0 ${open ? '' : 'hidden'}`}
      onMouseDown={(event) => event.preventDefault()}
    >
      <Palette.List label="Found" className="max-h-[60vh] overflow-y-auto">
        {hits.map((hit) => (
          <Palette.Item
            key={[hit.site, hit.vlan, hit.address, hit.device, hit.port].join()}
            value={[hit.site, hit.vlan, hit.address, hit.device, hit.port].join()}
            className="cursor-pointer px-2 py-1 data-[selected=true]:bg-chosen"
            onSelect={() => go(hit)}
          >
            <span className="mono font-bold">{hit.title}</span>
            <span className="block text-muted">{[hit.siteName, hit.detail].filter(Boolean).join(' · ')}</span>
          </Palette.Item>
        ))}
        {commands.map(({ key, name, run }) => (
          <Palette.Item
            key={`${key} ${name}`}
            value={`${key} ${name}`}
            className="flex cursor-pointer items-center gap-2 px-2 py-1 data-[selected=true]:bg-chosen"
            onSelect={() => {
              onDone();
              // The field lets go first, or what the command turns to would lose the focus again.
              requestAnimationFrame(() => run?.());
            }}
          >
            <span className="flex-1">{name}</span>
            <span className="key">{key === 'Escape' ? 'Esc' : key}</span>
          </Palette.Item>
        ))}
      </Palette.List>
      {query !== '' && hits.length === 0 && commands.length === 0 && (
        <p className="px-2 py-1">
          {everywhere && remote.problem
            ? remote.problem
            : `Nothing found ${everywhere ? 'in any site' : 'in this site'}.`}
        </p>
      )}
      {remote.more && (
        <button type="button" className="link px-2 py-1" onClick={remote.more}>
          more hits
        </button>
      )}
      <div className="border-t border-rule px-1">
        <Toggle label="in all sites" checked={everywhere} onChange={setEverywhere} />
      </div>
    </div>
  );
}

/** What can be done on this page, by what is typed: all of it while nothing is. */
function useMatching(query: string): readonly Command[] {
  const offered = useOfferedCommands().filter(({ run, key }) => run && key !== '/');
  if (query === '') return offered;
  return offered
    .map((command) => ({ command, score: defaultFilter(command.name, query) }))
    .filter(({ score }) => score > 0.3)
    .sort((a, b) => b.score - a.score)
    .slice(0, COMMANDS)
    .map(({ command }) => command);
}
