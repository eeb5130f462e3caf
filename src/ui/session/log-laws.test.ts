import 'fake-indexeddb/auto';
import fc from 'fast-check';
import { runs } from '@/core/testing/runs';
import type { LogBook } from './log-book';
import { FakeLog } from './log-testing';
import { REAL, pass } from './testing';

beforeEach(() => jest.useFakeTimers(REAL));
afterEach(() => jest.useRealTimers());

const saying = (text: string, photos: string[] = []) =>
  ({ kind: 'note', text, about: null, reading: '', photos }) as const;

/** Windows of one browser on one log, and what was written in them. */
class Play {
  readonly server = new FakeLog();
  readonly windows: LogBook[] = [this.server.open(), this.server.open()];
  readonly written: string[] = [];
  /** Somebody else wrote while nobody here could hear of it. */
  missed = false;
  private others = 0;

  constructor() {
    this.server.tells = true;
  }

  write(book: LogBook, withPhoto: boolean): void {
    const text = `mine ${this.written.length}`;
    const photos = withPhoto ? [book.addPhoto(new Blob([text]))] : [];
    book.add(saying(text, photos), 1);
    this.written.push(text);
  }
  another(): void {
    const id = `other000${this.others++}`;
    this.server.add({ id, author: 'Bo', at: '2026-05-04T10:20:30.456Z', revision: 1, body: saying(id) });
    if (this.server.away) this.missed = true;
    else this.server.tell();
  }
  reach(reached: boolean, noticed = true): void {
    this.server.away = !reached;
    if (noticed) for (const hear of this.server.hearers) hear({ open: reached });
  }
}

/** What may happen; a number says where and for how long. */
const happenings: Readonly<Record<string, (play: Play, at: number) => unknown>> = {
  write: (play, at) => play.windows.length > 0 && play.write(play.windows[at % play.windows.length]!, false),
  'write and close': (play, at) => {
    const [book] = play.windows.splice(at % Math.max(1, play.windows.length), 1);
    if (book) play.write(book, false);
    // What is kept is kept within a moment; a window that is gone sooner takes it along.
    return book && pass().then(() => book.close());
  },
  'write and close as the server goes': async (play, at) => {
    play.reach(false, false);
    await happenings['write and close']!(play, at);
  },
  photo: (play, at) => play.windows.length > 0 && play.write(play.windows[at % play.windows.length]!, true),
  'another writes': (play) => play.another(),
  'server away': (play) => play.reach(false),
  'server away, unnoticed': (play) => play.reach(false, false),
  'server back': (play) => play.reach(true),
  'server back, unnoticed': (play) => play.reach(true, false),
  'answers get lost': ({ server }) => void (server.loseAnswer = true),
  'answers come': ({ server }) => void (server.loseAnswer = false),
  open: ({ windows, server }) => void (windows.length < 3 && windows.push(server.open())),
  close: ({ windows }, at) =>
    pass().then(() => windows.splice(at % Math.max(1, windows.length), 1)[0]?.close()),
  time: (_play, at) => pass(at * 5),
};

const texts = (entries: readonly { readonly body: unknown }[]) =>
  entries.map(({ body }) => (body as { text: string }).text);

test('what is written comes to the server once, behind its photos, and every window comes to see all', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.array(fc.tuple(fc.constantFrom('write', 'photo', ...Object.keys(happenings)), fc.nat(1000)), {
        minLength: 4,
        maxLength: 25,
      }),
      async (path) => {
        const play = new Play();
        const { server, windows, written } = play;
        try {
          for (const [what, at] of path) {
            await happenings[what]!(play, at);
            if (at % 2) await pass();
          }
          server.loseAnswer = false;
          // A short failure need not break the stream of news.
          play.reach(true, play.missed);
          await pass(4000);
          // Without a window there is nobody who sends; the next one does.
          if (windows.length === 0) windows.push(server.open());
          await pass(4000);
          expect(
            texts(server.entries)
              .filter((text) => text.startsWith('mine'))
              .sort(),
          ).toEqual([...written].sort());
          expect(server.astray).toEqual([]);
          for (const { store } of windows) {
            const { log, unsent, trouble } = store.getState();
            expect([unsent, trouble, texts(log.entries)]).toEqual([0, '', texts(server.entries)]);
          }
        } finally {
          for (const book of windows) book.close();
        }
      },
    ),
    { numRuns: runs(400) },
  );
});
