'use client';

import { usePathname, useSearchParams } from 'next/navigation';
import { useEffect, useRef } from 'react';
import { useSession } from '../session/context';
import { useView } from '../session/view';
import { isStep, readView, writeView } from '../session/view-address';
import { useStation } from './findings-panel';

/**
 * Keeps what is chosen and the address of the page at one. The address is written past the router, which would ask the server for
 * the page again.
 */
export function ViewInAddress() {
  const session = useSession();
  const station = useStation();
  const pathname = usePathname();
  const query = useSearchParams();
  const view = useView();
  /** The address was read just now; what is chosen follows with the next turn. */
  const reading = useRef(false);
  const went = useRef(false);
  const { set } = view;

  useEffect(() => {
    const read = () => {
      const text = window.location.search.slice(1);
      // A plain link to a station keeps what is chosen; Back to an empty address does not.
      if (text === '' && !went.current) return;
      went.current = false;
      reading.current = true;
      set(readView(station, new URLSearchParams(text), session.plan));
    };
    const back = () => {
      went.current = true;
      // Where the station is another, the effect runs again for it.
      if (window.location.pathname === pathname) read();
    };
    read();
    window.addEventListener('popstate', back);
    return () => window.removeEventListener('popstate', back);
  }, [session, station, pathname, query, set]);

  useEffect(() => {
    if (reading.current) {
      reading.current = false;
      return;
    }
    if (window.location.pathname !== pathname) return;
    const now = new URLSearchParams(window.location.search);
    const next = writeView(station, view);
    if (next === now.toString()) return;
    const write = isStep(station, now, new URLSearchParams(next)) ? 'pushState' : 'replaceState';
    const { state } = window.history;
    History.prototype[write].call(window.history, state, '', next ? `${pathname}?${next}` : pathname);
  }, [view, station, pathname]);
  return null;
}
