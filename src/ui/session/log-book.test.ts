import 'fake-indexeddb/auto';
import { KeptLog } from './kept-log';
import type { LogBook } from './log-book';
import { FakeLog } from './log-testing';
import { REAL, pass } from './testing';

let server: FakeLog;
beforeEach(() => {
  jest.useFakeTimers(REAL);
  server = new FakeLog();
});
afterEach(() => jest.useRealTimers());

const open = (kept?: KeptLog): LogBook => server.open(kept);
const note = (book: LogBook, text: string, photos: string[] = []) =>
  book.add({ kind: 'note', text, about: null, reading: '', photos }, 1);
const texts = (entries: readonly { body: unknown }[]) =>
  entries.map(({ body }) => (body as { text: string }).text);
const shown = (book: LogBook) => texts(book.store.getState().log.entries);

test('an entry is there at once, and at the server in its turn', async () => {
  const book = open();
  note(book, 'one');
  note(book, 'two');
  expect(shown(book)).toEqual(['one', 'two']);
  await pass();
  expect(texts(server.entries)).toEqual(['one', 'two']);
  expect(book.store.getState()).toMatchObject({ unsent: 0, away: false, trouble: '', ready: true });
  book.close();
});

test('with the network gone work goes on, through closing and opening again, and is sent once it is back', async () => {
  server.away = true;
  const first = open();
  note(first, 'one');
  note(first, 'two');
  await pass();
  expect(first.store.getState()).toMatchObject({ unsent: 2, away: true });
  first.close();
  const second = open();
  await pass();
  note(second, 'three');
  expect(shown(second)).toEqual(['one', 'two', 'three']);
  server.away = false;
  await pass(3000);
  expect(texts(server.entries)).toEqual(['one', 'two', 'three']);
  expect(second.store.getState()).toMatchObject({ unsent: 0, away: false });
  second.close();
  // What the server confirmed is here without it.
  server.away = true;
  const third = open();
  await pass();
  expect(shown(third)).toEqual(['one', 'two', 'three']);
  expect(third.store.getState().unsent).toBe(0);
  third.close();
});

test('an answer that got lost doubles nothing', async () => {
  const book = open();
  await pass();
  server.loseAnswer = true;
  note(book, 'one');
  await pass();
  expect(book.store.getState().unsent).toBe(1);
  server.loseAnswer = false;
  await pass(3000);
  expect(server.posts).toBe(2);
  expect(texts(server.entries)).toEqual(['one']);
  expect(shown(book)).toEqual(['one']);
  expect(book.store.getState().unsent).toBe(0);
  book.close();
});

test('two see each other’s entries, in the order of the server', async () => {
  const book = open();
  await pass();
  for (const text of ['a', 'b', 'c', 'd'])
    server.add({
      id: `other${text}000`,
      author: 'Bo',
      at: '2026-05-04T10:20:30.456Z',
      revision: 1,
      body: { kind: 'note', text, about: null, reading: '', photos: [] },
    });
  note(book, 'mine');
  await pass();
  expect(shown(book)).toEqual(['a', 'b', 'c', 'd', 'mine']);
  server.add({ ...server.entries[0]!, id: 'other0009' });
  server.tell();
  await pass();
  expect(shown(book)).toHaveLength(6);
  book.close();
});

test('an entry that is not taken is named, kept, and holds up no other', async () => {
  server.away = true;
  const book = open();
  for (const text of ['one', 'bad', 'three']) note(book, text);
  await pass();
  server.away = false;
  server.bad = 'bad';
  await pass(3000);
  expect(texts(server.entries)).toEqual(['one', 'three']);
  expect(shown(book)).toEqual(['one', 'three', 'bad']);
  expect(book.store.getState()).toMatchObject({
    unsent: 1,
    trouble: 'The server does not take an entry: no',
  });
  book.close();
});

test('photos go before the entry they hang on, and are sent again where the connection broke', async () => {
  const book = open();
  await pass();
  const photo = book.addPhoto(new Blob(['picture']));
  server.loseAnswer = true;
  note(book, 'one', [photo]);
  await pass();
  expect(server.photos).toEqual([photo]);
  server.loseAnswer = false;
  await pass(3000);
  expect(server.photos).toEqual([photo]);
  expect(texts(server.entries)).toEqual(['one']);
  expect(await book.photo(photo)).toBeNull();
  book.close();
});

test('a browser without room says so, and the run goes on', async () => {
  const kept = new KeptLog();
  Object.assign(kept, { write: async () => false });
  server.away = true;
  const book = open(kept);
  await pass();
  note(book, 'one');
  await pass();
  expect(shown(book)).toEqual(['one']);
  expect(book.store.getState().trouble).toMatch(/^This browser has no room left\./);
  server.away = false;
  await pass(3000);
  expect(texts(server.entries)).toEqual(['one']);
  expect(book.store.getState()).toMatchObject({ unsent: 0, trouble: '' });
  book.close();
});

test('who is not told all entries asks for each part once, and goes on behind what is kept from them', async () => {
  const other = open();
  for (let at = 1; at <= 7; at++) note(other, `n${at}`);
  await pass();
  other.close();
  for (const { id, seq } of server.entries) if (seq % 3 !== 0) server.hidden.add(id);
  indexedDB = new IDBFactory();
  let asked = 0;
  const answer = server.answer.bind(server);
  server.answer = (path, text) => {
    if (text === null) asked++;
    return answer(path, text);
  };
  const book = open(new KeptLog());
  await pass();
  expect(shown(book)).toEqual(['n3', 'n6']);
  expect(asked).toBe(3);
  // What is told of later comes without asking for the rest again.
  server.add({
    ...server.entries[0]!,
    id: 'later0001',
    body: { ...server.entries[0]!.body, text: 'n8' } as never,
  });
  server.tell();
  await pass();
  expect(shown(book)).toEqual(['n3', 'n6', 'n8']);
  expect(asked).toBe(4);
  book.close();
});
