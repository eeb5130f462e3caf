'use client';

import { useEffect, useReducer, useState } from 'react';
import { type SiteSummary, routes } from '@/contract';
import { ask } from '../session/api';

const LOOK_AGAIN = 1500;

/** Which sites are wanted, and how many parts of the list. */
interface Wish {
  readonly named: string;
  readonly archived: boolean;
  readonly parts: number;
}
interface Listed {
  readonly sites: readonly SiteSummary[];
  /** How many are archived. */
  readonly archived: number;
  readonly more: boolean;
}

async function listed({ named, archived, parts }: Wish): Promise<Listed> {
  const query = { named: named.trim() || undefined, archived: archived ? 'yes' : 'no' };
  let answer = await ask(routes.sites.list, { query });
  let found = answer.sites;
  for (let part = 1; part < parts && answer.next !== null; part++) {
    answer = await ask(routes.sites.list, { query: { ...query, after: answer.next } });
    found = [...found, ...answer.sites];
  }
  return { sites: found, archived: answer.archived, more: answer.next !== null };
}

/** The sites of this server as far as they are shown; null until they are known. */
export function useSites() {
  const [wish, setWish] = useState<Wish>({ named: '', archived: false, parts: 1 });
  const [list, setList] = useState<Listed | null>(null);
  const [problem, setProblem] = useState('');
  const [times, lookAgain] = useReducer((n: number) => n + 1, 0);
  useEffect(() => {
    let stale = false;
    let timer: ReturnType<typeof setTimeout> | undefined;
    listed(wish)
      .then((found) => {
        if (stale) return;
        setList(found);
        setProblem('');
        return found.sites.every(({ counted, exercise }) => counted || exercise === 'open');
      })
      .catch((error: Error) => {
        if (!stale) setProblem(error.message);
        return false;
      })
      // Findings are counted while nobody waits; the list looks again until they are, and while the server is away.
      .then((finished) => {
        if (!stale && !finished) timer = setTimeout(lookAgain, LOOK_AGAIN);
      });
    return () => {
      stale = true;
      clearTimeout(timer);
    };
  }, [wish, times]);
  return {
    list,
    wish,
    problem,
    lookAgain,
    /** Other sites: from their first part. */
    choose: (other: Partial<Omit<Wish, 'parts'>>) => setWish({ ...wish, ...other, parts: 1 }),
    more: () => setWish({ ...wish, parts: wish.parts + 1 }),
  };
}
