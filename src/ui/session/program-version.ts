'use client';

import { create } from 'zustand';
import { onVersion } from './api';

const own = process.env.NEXT_PUBLIC_DIANOME_BUILD ?? '';

/** Was the program updated under this page? Known once the server answers as another build than the page is of. */
export const useUpdated = create<{ readonly updated: boolean }>(() => ({ updated: false }));
onVersion((version) => {
  if (own && version !== own) useUpdated.setState({ updated: true });
});
