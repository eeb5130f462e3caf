import 'fake-indexeddb/auto';
import { type Call, type Plan, vlansOf } from '@/core/plan';
import { done, emptySite } from '@/core/testing/plans';
import { type Answer, type FakeServer, REAL, TestBrowser, type Window, pass } from './testing';

jest.mock('./worker-client');

const start = done(done(emptySite(), 'addSegment', { purpose: 'staff' }), 'addSegment', {
  purpose: 'cameras',
});
const [staff, cameras] = vlansOf(start).map(({ id }) => id) as [string, string];
const rename = (plan: Plan, id: string, name: string): Call => ({
  operation: 'edit',
  input: { table: 'vlan', id, set: { name }, seen: { name: plan.vlan.get(id)!.name } },
});

let browser: TestBrowser;
let server: FakeServer;
beforeEach(() => {
  jest.useFakeTimers(REAL);
  browser = new TestBrowser(start);
  server = browser.server;
});
afterEach(() => jest.useRealTimers());

const windowOf = () => browser.window();
async function opened(): Promise<Window> {
  const made = windowOf();
  await pass();
  expect(made.session.store.getState().status).toBe('ready');
  return made;
}
const state = ({ session }: Window) => session.store.getState();
const nameIn = (plan: Plan, id: string) => plan.vlan.get(id)!.name;
const refusal = (status: number): Answer => ({
  status,
  body: { title: 'No', detail: `refused with ${status}` },
});

describe('a change', () => {
  test('is there at once, and saved when the server has it', async () => {
    const here = await opened();
    here.session.perform(rename(start, staff, 'Crew'));
    expect([nameIn(here.session.plan, staff), state(here).saving]).toEqual(['Crew', 'saving']);
    await pass();
    expect([nameIn(server.plan, staff), state(here).saving, state(here).revision]).toEqual([
      'Crew',
      'saved',
      1,
    ]);
    expect(state(here).unsaved).toBe(0);
  });

  test('made on a plan that others changed is saved beside theirs', async () => {
    const here = await opened();
    server.commit(rename(start, cameras, 'Eyes'), 'Bob');
    here.session.perform(rename(start, staff, 'Crew'));
    await pass();
    expect([nameIn(server.plan, staff), nameIn(server.plan, cameras)]).toEqual(['Crew', 'Eyes']);
    expect([nameIn(here.session.plan, cameras), state(here).conflicts]).toEqual(['Eyes', []]);
    expect([state(here).saving, state(here).revision]).toEqual(['saved', 2]);
  });

  test('of the same field as somebody else’s is shown as a conflict, which a reload does not lose', async () => {
    const here = await opened();
    server.commit(rename(start, staff, 'People'), 'Bob');
    const call = rename(start, staff, 'Crew');
    here.session.perform(call);
    await pass();
    expect(nameIn(here.session.plan, staff)).toBe('People');
    expect(state(here).conflicts).toMatchObject([
      { call, between: ['Bob: Staff (VLAN 10): name Staff → People'] },
    ]);
    here.close();
    const again = await opened();
    expect(state(again).conflicts).toMatchObject([{ call }]);
    again.session.dismiss(state(again).conflicts[0]!);
    await pass();
    again.close();
    expect(state(await opened()).conflicts).toEqual([]);
  });

  test('waits while the server cannot be reached, in order, and over a reload', async () => {
    const here = await opened();
    server.away = true;
    here.session.perform(rename(start, staff, 'Crew'));
    here.session.perform(rename(here.session.plan, staff, 'Crew of two'));
    await pass();
    expect([state(here).saving, state(here).unsaved, server.journal.length]).toEqual(['offline', 2, 0]);
    here.close();
    server.away = false;
    const again = await opened();
    await pass(5000);
    expect([nameIn(again.session.plan, staff), nameIn(server.plan, staff)]).toEqual([
      'Crew of two',
      'Crew of two',
    ]);
    expect(server.journal).toHaveLength(2);
  });

  test('left by a window that was closed is saved by the next one, and by one only', async () => {
    const here = await opened();
    const other = await opened();
    server.away = true;
    here.session.perform(rename(start, staff, 'Crew'));
    await pass();
    here.close();
    server.away = false;
    // The other window was open all the while and does not take what is not its own.
    await pass(5000);
    expect(server.journal).toHaveLength(0);
    const [third, fourth] = [windowOf(), windowOf()];
    await pass(5000);
    expect([server.journal.length, nameIn(server.plan, staff)]).toEqual([1, 'Crew']);
    for (const each of [other, third, fourth]) expect(state(each).conflicts).toEqual([]);
  });

  test('left by a window that was closed outlives a server that goes away while the next one begins', async () => {
    const here = await opened();
    server.away = true;
    here.session.perform(rename(start, staff, 'Crew'));
    await pass();
    here.close();
    server.away = false;
    const answer = server.answer.bind(server);
    let reached = false;
    server.answer = (path, text) => (text !== null && !reached ? 'offline' : answer(path, text));
    const again = windowOf();
    await pass(500);
    expect([nameIn(again.session.plan, staff), state(again).unsaved]).toEqual(['Crew', 1]);
    again.close();
    reached = true;
    const third = windowOf();
    await pass(5000);
    expect([nameIn(server.plan, staff), server.journal.length, state(third).conflicts]).toEqual([
      'Crew',
      1,
      [],
    ]);
  });

  test.each(['removeSegment', 'addSegment', 'edit'])(
    'whose answer was lost is not made twice and is no conflict: %s',
    async (operation) => {
      const calls: Record<string, Call> = {
        removeSegment: { operation: 'removeSegment', input: { vlan: staff } },
        addSegment: { operation: 'addSegment', input: { purpose: 'guest' } },
        edit: rename(start, staff, 'Crew'),
      };
      const here = await opened();
      server.answers.push('arrives, answer lost');
      here.session.perform(calls[operation]!);
      await pass();
      // Before it comes to know, the page is loaded again.
      here.close();
      const again = await opened();
      await pass(5000);
      expect([server.journal.length, state(again).saving, state(again).conflicts]).toEqual([1, 'saved', []]);
      expect(server.received).toHaveLength(1);
    },
  );

  test('whose answer was lost is told apart from those after it without a reload', async () => {
    const here = await opened();
    server.answers.push('arrives, answer lost');
    here.session.perform({ operation: 'removeSegment', input: { vlan: staff } });
    here.session.perform(rename(start, cameras, 'Eyes'));
    await pass(5000);
    expect([server.journal.length, state(here).saving, state(here).conflicts]).toEqual([2, 'saved', []]);
  });

  test('of a plan that was open once can be made without a server, and is saved when it is back', async () => {
    const first = await opened();
    server.commit(rename(start, cameras, 'Eyes'), 'Bob');
    await pass();
    first.close();
    server.away = true;
    const here = await opened();
    expect([state(here).saving, nameIn(here.session.plan, cameras)]).toEqual(['offline', 'Eyes']);
    here.session.perform(rename(start, staff, 'Crew'));
    await pass(3000);
    expect(state(here).saving).toBe('offline');
    server.away = false;
    await pass(3000);
    expect([nameIn(server.plan, staff), state(here).saving, state(here).unsaved]).toEqual([
      'Crew',
      'saved',
      0,
    ]);
  });
});

describe('undo', () => {
  test('takes back what is saved, by its seed', async () => {
    const here = await opened();
    here.session.perform(rename(start, staff, 'Crew'));
    await pass();
    void here.session.undo('undo');
    await pass();
    expect([nameIn(server.plan, staff), server.received.at(-1)!.kind]).toEqual(['Staff', 'undo']);
    void here.session.undo('redo');
    await pass();
    expect(nameIn(server.plan, staff)).toBe('Crew');
  });

  test('without a server takes back the last change that waits, at once and once', async () => {
    const here = await opened();
    server.away = true;
    here.session.perform(rename(start, staff, 'Crew'));
    here.session.perform(rename(start, cameras, 'Eyes'));
    await pass();
    void here.session.undo('undo');
    await pass();
    expect([nameIn(here.session.plan, staff), nameIn(here.session.plan, cameras)]).toEqual([
      'Crew',
      'Cameras',
    ]);
    server.away = false;
    await pass(5000);
    expect([nameIn(server.plan, staff), nameIn(server.plan, cameras)]).toEqual(['Crew', 'Cameras']);
    expect(server.journal.map(({ kind }) => kind)).toEqual(['change', 'change', 'undo']);
  });

  test('without a server and with nothing that waits says so, and never fires later', async () => {
    const here = await opened();
    here.session.perform(rename(start, staff, 'Crew'));
    await pass();
    server.away = true;
    server.tell({ open: false });
    void here.session.undo('undo');
    await pass(3000);
    expect(state(here).lastChange).toContain('Nothing was undone');
    server.away = false;
    server.tell({ open: true });
    await pass(5000);
    expect([nameIn(server.plan, staff), server.journal.length]).toEqual(['Crew', 1]);
  });
});

describe('a change that the server will not take', () => {
  test.each([400, 413, 415, 422])(
    'leaves the queue at %i, is shown with its reason, and holds nothing back',
    async (status) => {
      const here = await opened();
      server.answers.push(refusal(status));
      const call = rename(start, staff, 'Crew');
      here.session.perform(call);
      here.session.perform(rename(here.session.plan, cameras, 'Eyes'));
      await pass();
      expect(state(here).conflicts).toMatchObject([{ call, why: `refused with ${status}` }]);
      expect([nameIn(here.session.plan, staff), nameIn(here.session.plan, cameras)]).toEqual([
        'Staff',
        'Eyes',
      ]);
      expect([nameIn(server.plan, cameras), state(here).saving]).toEqual(['Eyes', 'saved']);
    },
  );

  test('is tried three times where the server fails, then shown', async () => {
    const here = await opened();
    server.answers.push(refusal(500), refusal(500), refusal(500));
    here.session.perform(rename(start, staff, 'Crew'));
    here.session.perform(rename(here.session.plan, cameras, 'Eyes'));
    await pass(3000);
    expect([state(here).saving, state(here).trouble, state(here).conflicts]).toEqual([
      'trouble',
      'refused with 500',
      [],
    ]);
    await pass(5000);
    expect(state(here).conflicts).toMatchObject([{ why: 'refused with 500' }]);
    expect([nameIn(server.plan, cameras), state(here).saving, state(here).trouble]).toEqual([
      'Eyes',
      'saved',
      '',
    ]);
  });

  test.each([429, 503])('stays in the queue at %i, which means later', async (status) => {
    const here = await opened();
    server.answers.push(...Array.from({ length: 5 }, () => refusal(status)));
    here.session.perform(rename(start, staff, 'Crew'));
    await pass(20_000);
    expect([nameIn(server.plan, staff), state(here).conflicts, server.received.length]).toEqual([
      'Crew',
      [],
      6,
    ]);
  });

  test('because the site is gone says so', async () => {
    const here = await opened();
    server.answers.push(refusal(404));
    here.session.perform(rename(start, staff, 'Crew'));
    await pass();
    expect(state(here).saving).toBe('deleted');
  });

  test('because a reviewed result would be another is shown to be looked at again', async () => {
    const here = await opened();
    const call: Call = { operation: 'addSegment', input: { purpose: 'guest' } };
    server.commit({ operation: 'addSegment', input: { purpose: 'voice' } }, 'Bob');
    here.session.perform(call, { reviewed: true });
    await pass(3000);
    expect(state(here).conflicts).toMatchObject([{ call, why: expect.stringContaining('Look at it again') }]);
    expect(server.journal).toHaveLength(1);
  });
});

test('a long text is saved whole, under a label that is made to fit', async () => {
  const here = await opened();
  const notes = 'Behind the panel, second shelf 🔌. '.repeat(110);
  const call: Call = {
    operation: 'edit',
    input: { table: 'site', id: 'site', set: { notes: notes.trim() } },
  };
  const { label } = here.session.perform(call);
  expect([label.length <= 500, label.endsWith('…'), label.isWellFormed()]).toEqual([true, true, true]);
  await pass();
  expect(state(here).saving).toBe('saved');
  expect(server.plan.site.get('site')!.notes).toBe(notes.trim());
});
