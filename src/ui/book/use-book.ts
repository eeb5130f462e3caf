'use client';

import { useEffect, useState } from 'react';
import { log as logRoutes } from '@/contract/log';
import { type Book, type Sources, bookChapters, writeBook } from '@/core/book';
import { type LogEntry, logOf } from '@/core/log';
import { arrange, mapOf } from '@/core/model/map';
import type { Progress } from '@/core/plan';
import { elkOfPage } from '../map/elk-of-page';
import { ask } from '../session/api';
import type { SheetProps } from '../schedule/sheet';

/** Everything that was written down about a site, as the server has it. */
async function wholeLog(site: string): Promise<LogEntry[]> {
  const found: LogEntry[] = [];
  for (let since = 0, more = true; more;) {
    const part = await ask(logRoutes.entries, { site, query: { since } });
    found.push(...(part.entries as readonly LogEntry[]));
    ({ upTo: since, more } = part);
  }
  return found;
}

type Written = { readonly book: Book } | { readonly writing: Progress } | { readonly problem: string } | null;

/** The whole book of a site, written chapter by chapter so that the page answers meanwhile. */
export function useBook({ siteId, plan, revision, today }: SheetProps): Written {
  const [written, setWritten] = useState<Written>(null);
  useEffect(() => {
    let wanted = true;
    const write = async () => {
      const [entries, map] = await Promise.all([
        wholeLog(siteId),
        arrange(mapOf(plan), new Set(), elkOfPage()),
      ]);
      const sources: Sources = { plan, log: logOf(entries), revision, today, map };
      const work = writeBook(sources);
      for (let done = 1; wanted; done++) {
        const next = work.next();
        if (next.done) return setWritten({ book: next.value });
        setWritten({ writing: { done, of: bookChapters.length } });
        await new Promise((go) => setTimeout(go));
      }
    };
    write().catch((error: Error) => {
      if (wanted) setWritten({ problem: error.message });
    });
    return () => {
      wanted = false;
    };
  }, [siteId, plan, revision, today]);
  return written;
}
