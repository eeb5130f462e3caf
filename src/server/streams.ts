import { logsOf } from '../db/log';
import { revisionsOf } from '../db/sites';
import type { Pool } from 'mysql2/promise';

/** How often the database is asked for news, in milliseconds. It is the only bus, so any process may have written. */
const POLL = 300;
/** Polls between two comments that keep a connection from being taken for dead. */
const KEEP_ALIVE = 50;

/** Says that a site is at a revision; -1 when it was deleted. */
type Hear = (line: string) => void;
const said = (site: string, revision: number) => `event: at\ndata: ${JSON.stringify({ site, revision })}\n\n`;

/** Is a line about a site, or about none? */
export const isAbout = (line: string, site: string): boolean =>
  line.startsWith(':') || line.includes(`"site":${JSON.stringify(site)}`);

/** The event streams that are open in this process. One look at the database serves them all. */
export class Streams {
  private readonly open = new Map<Hear, () => void>();
  private known: ReadonlyMap<string, number> | null = null;
  /** How far the logs had come at the last look. */
  private logs: ReadonlyMap<string, number> = new Map();
  private timer: NodeJS.Timeout | undefined;
  private polls = 0;
  private first: Promise<void> = Promise.resolve();

  constructor(private readonly pool: Pool) {}

  /** Adds a stream; returns how it is taken away again. `end` closes it when the process ends. */
  add(hear: Hear, end: () => void): () => void {
    this.open.set(hear, end);
    hear(': here\n\n');
    if (this.open.size === 1) this.first = this.poll();
    return () => {
      this.open.delete(hear);
      if (this.open.size > 0) return;
      clearTimeout(this.timer);
      this.known = null;
    };
  }

  /** Resolves once the database was looked at: whatever is saved from then on is told. */
  looked(): Promise<void> {
    return this.first;
  }

  get size(): number {
    return this.open.size;
  }

  /** Ends all of them, so that a process that shuts down does not wait for them. */
  close(): void {
    for (const end of [...this.open.values()]) end();
  }

  private say(line: string): void {
    for (const hear of this.open.keys()) hear(line);
  }

  private async poll(): Promise<void> {
    try {
      const [now, logs] = await Promise.all([revisionsOf(this.pool), logsOf(this.pool)]);
      if (this.known) {
        for (const [site, log] of logs)
          if (this.logs.get(site) !== log) this.say(`event: log\ndata: ${JSON.stringify({ site, log })}\n\n`);
        for (const [site, revision] of now)
          if (this.known.get(site) !== revision) this.say(said(site, revision));
        for (const site of this.known.keys()) if (!now.has(site)) this.say(said(site, -1));
      }
      this.known = now;
      this.logs = logs;
      if (this.polls++ % KEEP_ALIVE === 0) this.say(': here\n\n');
    } catch {
      // The database is away for a moment; the next look finds what was missed.
    }
    clearTimeout(this.timer);
    if (this.open.size > 0) this.timer = setTimeout(() => void this.poll(), POLL);
  }
}
