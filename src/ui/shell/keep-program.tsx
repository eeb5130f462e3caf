'use client';

import { useEffect } from 'react';
import { useSession } from '../session/context';
import { stations, views } from './stations';

/** Has the program kept in this browser, with every station of this site, so that it opens without a server. */
export function KeepProgram() {
  const { siteId } = useSession();
  useEffect(() => {
    if (process.env.NODE_ENV !== 'production' || !('serviceWorker' in navigator)) return;
    const paths = [...[...stations, ...views].map(({ path }) => path), 'run'];
    const pages = ['/', ...paths.map((path) => `/site/${siteId}/${path}`)];
    void navigator.serviceWorker
      .register('/sw.js')
      .then(() => navigator.serviceWorker.ready)
      .then(({ active }) => active?.postMessage({ pages }))
      // Without it everything works but opening a page while the server is away.
      .catch(() => {});
  }, [siteId]);
  return null;
}
