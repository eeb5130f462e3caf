import { type StoreApi, createStore } from 'zustand/vanilla';
import { LOG_PART, log } from '@/contract/log';
import { type Body, type Log, type LogEntry, type NewEntry, type Written, logOf } from '@/core/log';
import { ApiProblem, Offline, ask } from './api';
import { newSeed } from './author';
import type { KeptLog } from './kept-log';
import type { News } from './news';

const RETRY = 3000;
/** Answers that mean that an entry is not taken, whenever it is sent. */
const REFUSED: ReadonlySet<number> = new Set([400, 413, 422]);

export interface LogState {
  /** False until what this browser keeps was read. */
  readonly ready: boolean;
  readonly log: Log;
  /** How many entries the server does not have yet. */
  readonly unsent: number;
  readonly away: boolean;
  /** What is wrong, in words; empty where nothing is. */
  readonly trouble: string;
}

interface Surroundings {
  readonly author: () => string;
  readonly kept: Pick<KeptLog, 'read' | 'write' | 'confirm' | 'writePhoto' | 'readPhoto' | 'dropPhoto'>;
  readonly news: Pick<News, 'hear'>;
}

/**
 * The log of a site in one window. An entry is there at once, kept in this browser, and sent in its turn when there is a network;
 * it has an id of its own, so that one sent twice is one.
 */
export class LogBook {
  readonly store: StoreApi<LogState> = createStore<LogState>(() => ({
    ready: false,
    log: logOf([]),
    unsent: 0,
    away: false,
    trouble: '',
  }));
  private readonly confirmed = new Map<number, LogEntry>();
  private queue: readonly NewEntry[] = [];
  /** Entries the server will not take, with why. */
  private readonly refused = new Map<string, string>();
  /** Photos that were taken in this window and are not sent yet. */
  private readonly photos = new Map<string, Blob>();
  /** Up to where all is here. */
  private since = 0;
  /** What this browser had no room for, by id. */
  private readonly unheld = new Set<string>();
  private sending: Promise<void> | null = null;
  private again = false;
  private closed = false;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private readonly stopHearing: () => void;
  private readonly channel =
    typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel('dianome.log');

  constructor(
    readonly siteId: string,
    private readonly around: Surroundings,
  ) {
    this.stopHearing = around.news.hear((heard) => {
      if ('open' in heard ? heard.open : 'log' in heard && heard.site === siteId && heard.log > this.since)
        void this.pump();
      if ('open' in heard) this.store.setState({ away: !heard.open });
    });
    // What another window of this browser wrote is in its keeping.
    if (this.channel)
      this.channel.onmessage = ({ data }) => {
        if (data === siteId) void this.readKept().then(() => this.sendLater());
      };
    void this.open();
  }

  close(): void {
    this.closed = true;
    clearTimeout(this.timer);
    this.stopHearing();
    this.channel?.close();
  }

  /** Writes something down. Returns the id of the entry. */
  add(body: Body, revision: number): string {
    const entry: NewEntry = {
      id: newSeed(),
      author: this.around.author(),
      at: new Date().toISOString(),
      revision,
      body,
    };
    this.queue = [...this.queue, entry];
    this.look();
    void this.around.kept.write(this.siteId, entry).then((held) => {
      if (!held) this.unheld.add(entry.id);
      else this.channel?.postMessage(this.siteId);
      this.look();
      void this.pump();
    });
    return entry.id;
  }

  /** Keeps a photo for an entry to come. Returns its id. */
  addPhoto(photo: Blob): string {
    const id = newSeed();
    this.photos.set(id, photo);
    void this.around.kept.writePhoto(id, photo).then((held) => {
      if (!held) this.unheld.add(id);
      this.look();
    });
    return id;
  }

  /** A photo that this browser has still to send. */
  photo = async (id: string): Promise<Blob | null> =>
    this.photos.get(id) ?? (await this.around.kept.readPhoto(id));

  private async open(): Promise<void> {
    await this.readKept();
    this.store.setState({ ready: true });
    this.look();
    await this.pump();
  }

  private async readKept(): Promise<void> {
    const { entries, unsent } = await this.around.kept.read(this.siteId);
    for (const entry of entries) this.confirmed.set(entry.seq, entry);
    while (this.confirmed.has(this.since + 1)) this.since++;
    const known = new Set(unsent.map(({ id }) => id));
    this.queue = [...unsent, ...this.queue.filter(({ id }) => !known.has(id))];
  }

  /** Who wrote it sends it; where that window is closed before it could, this one does. */
  private sendLater(): void {
    this.look();
    clearTimeout(this.timer);
    if (!this.closed) this.timer = setTimeout(() => void this.pump(), RETRY);
  }

  /** Sends what is unsent and fetches what others wrote. */
  private pump(): Promise<void> {
    this.again = true;
    return (this.sending ??= this.pumped().finally(() => {
      this.sending = null;
      // Who called when the last round had just ended would wait for nothing.
      if (this.again && !this.closed) void this.pump();
    }));
  }
  private async pumped(): Promise<void> {
    clearTimeout(this.timer);
    try {
      while (this.again && !this.closed) {
        this.again = false;
        for (let next = this.unsent(); next.length > 0; next = this.unsent()) await this.send(next);
        await this.fetch();
      }
      this.store.setState({ away: false });
    } catch (error) {
      const gone = error instanceof ApiProblem && error.status === 404;
      this.store.setState({ away: error instanceof Offline });
      this.look(error instanceof Offline ? '' : (error as Error).message);
      if (!gone && !this.closed) this.timer = setTimeout(() => void this.pump(), RETRY);
    }
  }

  private unsent(): readonly NewEntry[] {
    return this.queue.filter(({ id }) => !this.refused.has(id));
  }

  private async send(entries: readonly NewEntry[]): Promise<void> {
    const part = entries.slice(0, LOG_PART);
    try {
      await this.sendPart(part);
    } catch (error) {
      if (!(error instanceof ApiProblem) || !REFUSED.has(error.status)) throw error;
      // One of them is not taken: which, is told by sending them one by one.
      if (part.length === 1) this.refused.set(part[0]!.id, error.message);
      else for (const entry of part) await this.send([entry]);
      this.look();
    }
  }

  private async sendPart(entries: readonly NewEntry[]): Promise<void> {
    for (const { body } of entries)
      for (const id of 'photos' in body ? body.photos : []) await this.sendPhoto(id);
    const body = { sent: new Date().toISOString(), entries: [...entries] };
    const answer = await ask(log.add, { site: this.siteId, body });
    await this.take(answer.entries as readonly LogEntry[]);
  }

  /** The photos of an entry go before it: where a connection breaks, both are sent again. */
  private async sendPhoto(id: string): Promise<void> {
    const photo = await this.photo(id);
    if (!photo) return;
    await ask(log.addPhoto, { site: this.siteId, body: { id, jpeg: await base64Of(photo) } });
    this.photos.delete(id);
    await this.around.kept.dropPhoto(id);
  }

  private async fetch(): Promise<void> {
    for (let more = true; more;) {
      const answer = await ask(log.entries, {
        site: this.siteId,
        query: { since: String(this.since) },
      });
      await this.take(answer.entries as readonly LogEntry[]);
      this.since = Math.max(this.since, answer.upTo);
      more = answer.more;
    }
  }

  private async take(entries: readonly LogEntry[]): Promise<void> {
    for (const entry of entries) this.confirmed.set(entry.seq, entry);
    while (this.confirmed.has(this.since + 1)) this.since++;
    const ids = new Set(entries.map(({ id }) => id));
    this.queue = this.queue.filter(({ id }) => !ids.has(id));
    this.look();
    await this.around.kept.confirm(this.siteId, entries).catch(() => {});
  }

  /** Says anew what there is. */
  private look(trouble = ''): void {
    const confirmed: Written[] = [...this.confirmed.values()].sort((a, b) => a.seq - b.seq);
    const [why] = this.refused.values();
    const isFull = [...this.queue.map(({ id }) => id), ...this.photos.keys()].some((id) =>
      this.unheld.has(id),
    );
    const full = isFull
      ? 'This browser has no room left. What you write now is kept only as long as this page stays open: go where there is a network before you close it.'
      : '';
    const known = new Set(confirmed.map(({ id }) => id));
    const own = this.queue.filter(({ id }) => !known.has(id));
    this.store.setState({
      log: logOf([...confirmed, ...own]),
      unsent: own.length,
      trouble: full || trouble || (why ? `The server does not take an entry: ${why}` : ''),
    });
  }
}

async function base64Of(photo: Blob): Promise<string> {
  const bytes = new Uint8Array(await photo.arrayBuffer());
  let text = '';
  // A call takes only so many arguments.
  for (let at = 0; at < bytes.length; at += 32_768)
    text += String.fromCharCode(...bytes.subarray(at, at + 32_768));
  return btoa(text);
}
