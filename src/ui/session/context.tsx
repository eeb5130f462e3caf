'use client';

import { type ReactNode, createContext, useContext, useEffect, useState } from 'react';
import { useStore } from 'zustand';
import { authorName, browserId, newSeed } from './author';
import { KeptHere } from './kept-here';
import { news } from './news';
import { SiteSession, type Surroundings } from './session';
import type { SiteState } from './state';

/** What a session of this window stands in. */
const surroundings = (): Surroundings => ({
  author: authorName,
  browser: browserId,
  kept: new KeptHere(newSeed()),
  news: news(),
});

const SessionContext = createContext<SiteSession | null>(null);

/** Opens the session of a site for everything below, and closes it when the site is left. */
export function SessionProvider({ siteId, children }: { siteId: string; children: ReactNode }) {
  const [session, setSession] = useState<SiteSession | null>(null);
  useEffect(() => {
    const opened = new SiteSession(siteId, surroundings());
    // The session owns a worker and an event stream, so it can only be opened by an effect.
    setSession(opened); // eslint-disable-line react-hooks/set-state-in-effect
    return () => opened.close();
  }, [siteId]);
  if (!session) return null;
  return <SessionContext value={session}>{children}</SessionContext>;
}

export function useSession(): SiteSession {
  const session = useContext(SessionContext);
  if (!session) throw new Error('no site is open here');
  return session;
}

export const useSite = <T,>(select: (state: SiteState) => T): T => useStore(useSession().store, select);
export const usePlan = () => useSite((state) => state.plan);
