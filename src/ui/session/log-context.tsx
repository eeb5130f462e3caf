'use client';

import { type ReactNode, createContext, useContext, useEffect, useState } from 'react';
import { useStore } from 'zustand';
import { authorName } from './author';
import { useSession } from './context';
import { KeptLog } from './kept-log';
import { LogBook, type LogState } from './log-book';
import { news } from './news';

let kept: KeptLog | null = null;
const LogContext = createContext<LogBook | null>(null);

/** Opens the log of the site for everything below. */
export function LogProvider({ children }: { children: ReactNode }) {
  const { siteId } = useSession();
  const [book, setBook] = useState<LogBook | null>(null);
  useEffect(() => {
    const opened = new LogBook(siteId, { author: authorName, kept: (kept ??= new KeptLog()), news: news() });
    // It hears the news of the server, so it can only be opened by an effect.
    setBook(opened); // eslint-disable-line react-hooks/set-state-in-effect
    return () => opened.close();
  }, [siteId]);
  if (!book) return null;
  return <LogContext value={book}>{children}</LogContext>;
}

export function useLogBook(): LogBook {
  const book = useContext(LogContext);
  if (!book) throw new Error('no log is open here');
  return book;
}

export const useLog = <T,>(select: (state: LogState) => T): T => useStore(useLogBook().store, select);
