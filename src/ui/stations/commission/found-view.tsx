'use client';

import { useMemo } from 'react';
import { create } from 'zustand';
import { type FoundAt, foundAgainst } from '@/core/commission';
import type { Plan } from '@/core/plan';
import { useSession } from '../../session/context';
import { SentLine } from '../../log/sent-line';
import { FoundLists } from './found-lists';
import { FoundRows } from './found-rows';

/** What was pasted for a site, while this page is open. */
const useFound = create<{ readonly site: string; readonly lists: readonly FoundAt[] }>(() => ({
  site: '',
  lists: [],
}));
const NONE: readonly FoundAt[] = [];

/** What the site shows, put beside what is planned. */
export function FoundView({ plan }: { plan: Plan }) {
  const { siteId: site } = useSession();
  const lists = useFound((state) => (state.site === site ? state.lists : NONE));
  const rows = useMemo(() => foundAgainst(plan, lists), [plan, lists]);
  const set = (next: readonly FoundAt[]) => useFound.setState({ site, lists: next });
  return (
    <>
      <SentLine />
      <FoundLists plan={plan} lists={lists} onLists={set} />
      {lists.length > 0 && <FoundRows rows={rows} />}
    </>
  );
}
