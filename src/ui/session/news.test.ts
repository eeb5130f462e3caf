import { type Heard, News } from './news';

/** Windows of one browser: their channels hear one another, one of them at a time holds the lock, and each may open streams. */
class Channel {
  static all: Channel[] = [];
  onmessage: ((event: { data: unknown }) => void) | null = null;
  constructor(readonly name: string) {
    Channel.all.push(this);
  }
  postMessage(data: unknown) {
    for (const other of Channel.all)
      if (other !== this && other.name === this.name) other.onmessage?.({ data });
  }
}
class Stream {
  static open: Stream[] = [];
  onopen: (() => void) | null = null;
  onerror: (() => void) | null = null;
  private readonly ears = new Map<string, (event: { data: string }) => void>();
  constructor(readonly url: string) {
    Stream.open.push(this);
  }
  addEventListener(event: string, ear: (event: { data: string }) => void) {
    this.ears.set(event, ear);
  }
  say(event: string, data: Heard) {
    this.ears.get(event)!({ data: JSON.stringify(data) });
  }
  close() {
    Stream.open = Stream.open.filter((other) => other !== this);
  }
}
const waiting: (() => Promise<void>)[] = [];
let held = false;
const grant = () => {
  const holder = held ? undefined : waiting.shift();
  if (!holder) return;
  held = true;
  void holder();
};
const locks = {
  request: (_: string, holder: () => Promise<void>) => {
    waiting.push(holder);
    grant();
    return Promise.resolve();
  },
};
const browser = (supports: object) =>
  Object.defineProperty(globalThis, 'navigator', { value: supports, configurable: true });
Object.assign(globalThis, { BroadcastChannel: Channel, EventSource: Stream });

const window = () => {
  const opened = new News();
  const heard: Heard[] = [];
  const deaf = opened.hear((one) => heard.push(one));
  return { heard, deaf };
};
/** The window with the stream is closed: the browser lets go of what it held. */
const closeHolder = () => {
  Stream.open[0]!.close();
  Channel.all.shift();
  held = false;
  grant();
};
beforeEach(() => {
  jest.useFakeTimers();
  browser({ locks });
  Channel.all = [];
  Stream.open = [];
  waiting.length = 0;
  held = false;
});
afterEach(() => jest.useRealTimers());

const change = { site: 's1', revision: 7 };

test('one window has the stream, and all hear what comes', () => {
  const [first, second] = [window(), window()];
  expect(Stream.open.map(({ url }) => url)).toEqual(['/api/events']);
  Stream.open[0]!.onopen!();
  Stream.open[0]!.say('at', change);
  Stream.open[0]!.say('log', { site: 's1', log: 3 });
  const all = [{ open: true }, change, { site: 's1', log: 3 }];
  expect(first.heard).toEqual(all);
  expect(second.heard).toEqual(all);
});

test('when it is closed, the next window goes on', () => {
  const [first, second, third] = [window(), window(), window()];
  closeHolder();
  expect(Stream.open).toHaveLength(1);
  Stream.open[0]!.say('at', change);
  expect(second.heard).toEqual([change]);
  expect(third.heard).toEqual([change]);
  expect(first.heard).toEqual([]);
});

test('a stream that breaks is told, and opened again once, a little later', () => {
  const { heard } = window();
  const [stream] = Stream.open;
  stream!.onerror!();
  stream!.onerror!();
  expect(Stream.open).toEqual([]);
  jest.advanceTimersByTime(1999);
  expect(Stream.open).toEqual([]);
  jest.advanceTimersByTime(1);
  expect(Stream.open).toHaveLength(1);
  Stream.open[0]!.onopen!();
  expect(heard).toEqual([{ open: false }, { open: false }, { open: true }]);
});

test('who hears no more is told nothing', () => {
  const { heard, deaf } = window();
  deaf();
  Stream.open[0]!.say('at', change);
  expect(heard).toEqual([]);
});

test('a browser without locks has a stream in each window', () => {
  browser({});
  window();
  window();
  expect(Stream.open).toHaveLength(2);
});
