'use client';

import { useEffect, useState } from 'react';
import { type AnswerOf, routes } from '@/contract';
import { ask } from '../session/api';

export type SiteHit = AnswerOf<typeof routes.sites.find>['hits'][number];
interface Found {
  readonly query: string;
  readonly hits: readonly SiteHit[];
  /** Where more hits begin; null at the end. */
  readonly next: number | null;
  readonly problem: string;
}
const NOTHING: Found = { query: '', hits: [], next: null, problem: '' };

/** What is found in all sites, page by page; nothing while the query is empty. */
export function useFindEverywhere(query: string) {
  const [state, setState] = useState<Found>(NOTHING);
  useEffect(() => {
    if (query === '') return;
    let stale = false;
    ask(routes.sites.find, { query: { q: query } })
      .then(({ hits, next }) => stale || setState({ query, hits, next, problem: '' }))
      .catch((error: Error) => stale || setState({ ...NOTHING, query, problem: error.message }));
    return () => {
      stale = true;
    };
  }, [query]);
  const found = query === '' ? NOTHING : state;
  const more = async () => {
    const { hits, next } = await ask(routes.sites.find, {
      query: { q: found.query, after: found.next ?? undefined },
    });
    setState({ ...found, hits: [...found.hits, ...hits], next });
  };
  return { ...found, more: found.next === null ? null : () => void more() };
}
