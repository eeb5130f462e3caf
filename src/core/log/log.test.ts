import fc from 'fast-check';
import { commissionSite, drawnCommission } from '../testing/commission';
import { type Body, logCsv, logOf, newEntrySchema, paceOf, resultsOf, sumOf, tickKey, writtenAt } from '.';
import { leftAtFirst } from '../testing/log';

const AT = '2026-05-04T10:20:30.456Z';
let made = 0;
const entry = (body: Body, fields: object = {}) => ({
  id: `entry${String(++made).padStart(6, '0')}`,
  author: 'Ada',
  at: AT,
  revision: 3,
  body,
  ...fields,
});
const run = () => entry({ kind: 'run', name: 'rack', edits: [] });
const defect = () => entry({ kind: 'defect', text: 'no light', about: null, run: null, photos: [] });
const state = (of: string, to: 'mended' | 'accepted' | 'open') =>
  entry({ kind: 'defectState', defect: of, state: to, note: '', photos: [] });
const correction = (of: string) => entry({ kind: 'correction', of, text: 'by mistake' });
const sign = (role: 'installer' | 'customer', revision: number) =>
  entry(
    { kind: 'signOff', role, name: 'Ada', day: '2026-05-04', signature: 'M1 1L2 2', note: '' },
    { revision },
  );

test('what is taken back counts no more, and stays in the book', () => {
  const begun = run();
  const sat = entry({ kind: 'sit', run: begun.id, socket: 'p1' });
  const back = correction(sat.id);
  const log = logOf([begun, sat, back]);
  expect(log.runs[0]!.results).toEqual([]);
  expect(log.entries).toHaveLength(3);
  expect(log.corrections.get(sat.id)).toBe(back);
});

test('a defect is as it was said last; one said of a defect that is not there stays among the entries', () => {
  const open = defect();
  const mended = state(open.id, 'mended');
  const again = state(open.id, 'open');
  const states = (...entries: Parameters<typeof logOf>[0][number][]) =>
    logOf(entries).defects.map((one) => one.state);
  expect(states(open)).toEqual(['open']);
  expect(states(open, mended)).toEqual(['mended']);
  expect(states(open, mended, again)).toEqual(['open']);
  expect(states(open, mended, again, correction(again.id))).toEqual(['mended']);
  expect(states(mended)).toEqual([]);
});

test('a revision is as built when both signed that one', () => {
  const built = (...entries: ReturnType<typeof sign>[]) => logOf(entries).asBuilt;
  expect(built(sign('installer', 4))).toBeNull();
  expect(built(sign('installer', 4), sign('customer', 5))).toBeNull();
  expect(built(sign('customer', 4), sign('installer', 4))).toBe(4);
  expect(built(sign('installer', 4), sign('customer', 4), sign('installer', 9))).toBe(4);
  expect(built(sign('installer', 4), sign('customer', 4), sign('installer', 9), sign('customer', 9))).toBe(9);
});

test('the time of an entry is put right by how far the clock of the device was behind', () => {
  expect(writtenAt(run())).toBe(AT);
  expect(writtenAt({ ...run(), behind: 90_000 })).toBe('2026-05-04T10:22:00.456Z');
});

test('steps of every kind are taken as entries of the log and read back as they were', () => {
  const kinds = new Set<string>();
  fc.assert(
    fc.property(drawnCommission, (drawn) => {
      const { plan } = commissionSite(drawn);
      const steps = leftAtFirst(plan);
      for (const step of steps) kinds.add(step.setting.kind);
      const begun = run();
      for (let at = 0; at < steps.length; at += 500) {
        const said = entry({
          kind: 'result',
          run: begun.id,
          steps: steps.slice(at, at + 500),
          does: 'set it',
          outcome: 'done',
          reading: '',
          note: '',
          photos: [],
        });
        const kept = newEntrySchema.parse(JSON.parse(JSON.stringify(said)));
        const log = logOf([begun, kept]);
        expect(JSON.stringify(kept.body)).toBe(JSON.stringify(said.body));
        expect(resultsOf(log.runs[0]!.results)).toHaveLength(Math.min(500, steps.length - at));
        expect(log.runs[0]!.done).toBe(Math.min(500, steps.length - at));
      }
    }),
    { numRuns: 30, seed: 4 },
  );
  const all = ['check', 'management', 'pages', 'parachute', 'plug', 'port', 'save', 'vlans'];
  expect([...kinds].sort()).toEqual(all);
});

test('what is no entry is refused with the field and a remedy', () => {
  const told = (body: object) => newEntrySchema.shape.body.safeParse(body).error?.issues[0];
  expect(told({ kind: 'note', text: ' ', about: null, reading: '', photos: [] })).toMatchObject({
    path: ['text'],
    message: 'the note is empty; write at least one character',
  });
  expect(told({ kind: 'note', text: 'x\ud800', about: null, reading: '', photos: [] })).toMatchObject({
    message: 'holds half a character (a lone surrogate); write it again',
  });
  expect(
    told({ kind: 'signOff', role: 'customer', name: 'A', day: '2026-05-04', signature: '', note: '' }),
  ).toMatchObject({ path: ['signature'], message: 'the signature is empty; draw it once' });
  expect(
    told({
      kind: 'signOff',
      role: 'customer',
      name: 'A',
      day: '2026-05-04',
      signature: '"/><script>',
      note: '',
    }),
  ).toMatchObject({ path: ['signature'] });
  expect(
    told({ kind: 'run', name: 'rack', edits: [{ kind: 'move', at: -1, count: 1, to: 1 }] }),
  ).toMatchObject({ path: ['edits', 0, 'at'] });
});

test('the log as a table: a row for each entry, what was taken back marked, what nobody sent yet last', () => {
  const { plan } = commissionSite(fc.sample(drawnCommission, { seed: 1, numRuns: 1 })[0]!);
  const note = (text: string) =>
    entry({ kind: 'note', text, about: null, reading: '48 dB(A)', photos: [] }, { seq: 1, behind: 60_000 });
  const [first, wrong] = [note('fan, "loud"'), note('=1+1')];
  const rows = logCsv(plan, logOf([first, wrong, { ...correction(wrong.id) }])).split('\r\n');
  expect(rows[1]).toBe(
    '1,2026-05-04T10:21:30.456Z,2026-05-04T10:20:30.456Z,Ada,3,note,,"fan, ""loud""",48 dB(A),,,',
  );
  // No spreadsheet takes a note for a formula.
  expect(rows[2]).toContain(",note,,'=1+1,48 dB(A),,,yes");
  expect(rows[3]).toMatch(/^,2026-05-04T10:20:30\.456Z,.*,correction,,/);
  expect(rows).toHaveLength(5);
});

test('how long entries take is the middle of what was measured; pauses and what differed do not count', () => {
  const begun = entry({ kind: 'run', name: 'rack', edits: [] }, { at: '2026-05-04T10:00:00.000Z' });
  const save = (at: string, outcome: 'done' | 'differs' = 'done') =>
    entry(
      {
        kind: 'result',
        run: begun.id,
        steps: [{ device: 'd1', setting: { kind: 'save' } }],
        does: 'Save',
        outcome,
        reading: '',
        note: '',
        photos: [],
      },
      { at: `2026-05-04T${at}.000Z` },
    );
  const all = [save('10:00:20'), save('10:00:30'), save('10:05:00', 'differs')];
  expect(paceOf(logOf([begun, ...all])).size).toBe(0);
  // After lunch one more; the pause is none of it.
  const more = [...all, save('11:30:00'), save('11:30:40')];
  expect([...paceOf(logOf([begun, ...more]))]).toEqual([['save', 20]]);
});

test('a visit holds what was written while it lasted, and sums it up', () => {
  const at = (clock: string, body: Body, revision = 3) =>
    entry(body, { at: `2026-05-04T${clock}:00.000Z`, revision });
  const note = (reading: string): Body => ({ kind: 'note', text: 'fan', about: null, reading, photos: [] });
  const tick = (done: boolean, ...values: string[]): Body => ({
    kind: 'tick',
    device: 'd1',
    run: null,
    page: 'dhcp',
    lines: values.map((value) => ({ what: 'pool', value })),
    done,
  });
  const early = at('07:59', note('1'));
  const came = at('08:00', { kind: 'visit', with: 'Bo', note: 'storm' });
  const opened = at('09:00', { kind: 'defect', text: 'no light', about: null, run: null, photos: [] });
  const within = [
    opened,
    at('09:10', note('48 dB(A)')),
    at('09:20', note('')),
    at('09:30', tick(true, 'a', 'b', 'c'), 5),
    at('09:31', tick(false, 'c'), 5),
    at('09:40', { kind: 'defectState', defect: opened.id, state: 'mended', note: '', photos: [] }),
  ];
  const left = at('10:00', { kind: 'visitEnd', visit: came.id, note: '' });
  const late = at('10:01', note('2'));
  const log = logOf([early, came, ...within, left, late]);
  const [visit, ...none] = log.visits;
  expect(none).toEqual([]);
  expect(visit!.entries.map(({ id }) => id)).toEqual(within.map(({ id }) => id));
  expect(sumOf(visit!)).toEqual({
    settings: 2,
    tests: 0,
    differing: 0,
    measured: 1,
    opened: 1,
    mended: 1,
    from: 3,
    to: 5,
  });
  // As long as nobody left it goes on.
  expect(logOf([came, late]).visits[0]!.entries).toEqual([late]);
});

test('a line is ticked as it reads: by the last who said so, until it reads otherwise', () => {
  const line = { what: 'pool', value: '10.0.0.9' };
  const tick = (done: boolean) =>
    entry({ kind: 'tick', device: 'd1', run: null, page: 'dhcp', lines: [line], done });
  const isDone =
    (...entries: ReturnType<typeof tick>[]) =>
    (of: typeof line, device = 'd1') =>
      logOf(entries).ticks.get(tickKey(device, 'dhcp', of))?.body.done;
  const [first, again] = [tick(true), tick(false)];
  expect(isDone(first)(line)).toBe(true);
  expect(isDone(first, again)(line)).toBe(false);
  expect(isDone(first)({ ...line, value: '10.0.0.8' })).toBeUndefined();
  expect(isDone(first)(line, 'd2')).toBeUndefined();
  const back = entry({ kind: 'correction', of: again.id, text: 'by mistake' });
  expect(logOf([first, again, back as never]).ticks.get(tickKey('d1', 'dhcp', line))).toBe(first);
});
