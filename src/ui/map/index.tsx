'use client';

import dynamic from 'next/dynamic';

export { answerLook, faultLook, treeChosen, treeKey, treeLook, treeTitle } from './layers';
export type { MapLook } from './look';

/** The map comes with a graph library, so it is loaded when it is first shown. */
export const SiteMap = dynamic(() => import('./site-map').then((map) => map.SiteMap), {
  ssr: false,
  loading: () => <p className="text-muted">Drawing the map…</p>,
});
