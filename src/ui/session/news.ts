import { routes } from '@/contract';

/** What there is to hear: a site is at a revision (-1: deleted), its log came so far, or the stream is open or broken. */
export type Heard =
  | { readonly site: string; readonly revision: number }
  | { readonly site: string; readonly log: number }
  | { readonly open: boolean };

const LOCK = 'dianome.news';

/**
 * One event stream for all windows of a browser: the window that holds the lock has it and tells the others. A browser opens few
 * connections to one server, and streams of their own would leave none to save on.
 */
export class News {
  private readonly hearers = new Set<(heard: Heard) => void>();
  private readonly channel = new BroadcastChannel(LOCK);
  private again: ReturnType<typeof setTimeout> | undefined;

  constructor() {
    this.channel.onmessage = ({ data }: MessageEvent<Heard>) => this.tell(data);
    if (navigator.locks)
      void navigator.locks.request(LOCK, () => {
        this.listen();
        // The browser lets it go with the window.
        return new Promise<never>(() => {});
      });
    else this.listen();
  }

  /** Hears everything from now on; returns how to hear no more. */
  hear(hearer: (heard: Heard) => void): () => void {
    this.hearers.add(hearer);
    return () => this.hearers.delete(hearer);
  }

  private listen(): void {
    const stream = new EventSource(routes.journal.events.path);
    stream.onopen = () => this.pass({ open: true });
    for (const event of ['at', 'log'])
      stream.addEventListener(event, ({ data }: MessageEvent<string>) =>
        this.pass(JSON.parse(data) as Heard),
      );
    stream.onerror = () => {
      stream.close();
      this.pass({ open: false });
      clearTimeout(this.again);
      this.again = setTimeout(() => this.listen(), 2000);
    };
  }

  private pass(heard: Heard): void {
    this.channel.postMessage(heard);
    this.tell(heard);
  }

  private tell(heard: Heard): void {
    for (const hearer of this.hearers) hearer(heard);
  }
}

let shared: News | null = null;
/** The news of this window. */
export const news = (): News => (shared ??= new News());
