import type { LogEntry, NewEntry } from '@/core/log';
import { KeptLog } from './kept-log';
import { LogBook } from './log-book';
import type { Heard } from './news';

/** A server with one log: adds like the real one, and is all that the windows of a new browser reach. */
export class FakeLog {
  entries: LogEntry[] = [];
  photos: string[] = [];
  posts = 0;
  away = false;
  loseAnswer = false;
  /** Does who sent an entry hear of it too, sooner than the answer comes? */
  tells = false;
  /** Entries with this text are not taken. */
  bad = '';
  /** Entries that are not told, by id. */
  readonly hidden = new Set<string>();
  readonly hearers = new Set<(heard: Heard) => void>();
  /** Photos that were not here yet when an entry with them came. */
  readonly astray: string[] = [];

  constructor() {
    indexedDB = new IDBFactory();
    Object.assign(globalThis, {
      fetch: async (path: string, init?: RequestInit) => {
        // No network answers at once.
        await Promise.resolve();
        return this.answer(path, typeof init?.body === 'string' ? init.body : null);
      },
    });
  }

  /** Opens a window on the log. */
  open(kept = new KeptLog()): LogBook {
    const hear = (hearer: (heard: Heard) => void) => {
      this.hearers.add(hearer);
      return () => this.hearers.delete(hearer);
    };
    return new LogBook('site', { author: () => 'Ada', kept, news: { hear } });
  }

  add(entry: NewEntry): LogEntry {
    const there = this.entries.find(({ id }) => id === entry.id);
    if (there) return there;
    const added = { ...entry, seq: this.entries.length + 1, received: entry.at, behind: 0 };
    this.entries.push(added);
    return added;
  }
  tell(): void {
    for (const hear of this.hearers) hear({ site: 'site', log: this.entries.length });
  }
  answer(path: string, text: string | null): Response {
    if (this.away) throw new TypeError('failed to fetch');
    const url = new URL(path, 'http://localhost');
    if (text === null) {
      const since = Number(url.searchParams.get('since'));
      const entries = this.entries.slice(since, since + 3);
      return Response.json({
        entries: entries.filter(({ id }) => !this.hidden.has(id)),
        upTo: entries.at(-1)?.seq ?? since,
        more: since + 3 < this.entries.length,
      });
    }
    const body = JSON.parse(text) as { id: string; entries: NewEntry[] };
    if (url.pathname.endsWith('/photos')) {
      this.photos.push(body.id);
      return Response.json({ id: body.id });
    }
    this.posts++;
    if (this.bad && body.entries.some((entry) => JSON.stringify(entry.body).includes(this.bad)))
      return Response.json({ title: 'Wrong input', status: 422, detail: 'no' }, { status: 422 });
    for (const { body: said } of body.entries)
      if ('photos' in said) this.astray.push(...said.photos.filter((id) => !this.photos.includes(id)));
    const had = this.entries.length;
    const entries = body.entries.map((entry) => this.add(entry));
    if (this.tells && this.entries.length > had) this.tell();
    if (this.loseAnswer) throw new TypeError('failed to fetch');
    return Response.json({ entries });
  }
}
