'use client';

import dynamic from 'next/dynamic';

export { answerLook, faultLook, treeChosen, treeLook } from './layers';
export type { MapLook } from './look';
export { TreeChoice } from './tree-choice';

/** The map comes with a graph library, so it is loaded when it is first shown. */
export const SiteMap = dynamic(() => import('./site-map').then((map) => map.SiteMap), {
  ssr: false,
  loading: () => <p className="text-muted">Drawing the map…</p>,
});
