import { portsOf } from '../model/wiring';
import { deviceNamed, soundGear } from '../testing/gear';
import { without } from '../testing/plans';
import { type Body, aboutText, entryText, logCsv, logOf } from '.';

const plan = soundGear();
const camera = deviceNamed(plan, 'cam-1');
const [port] = portsOf(plan, camera.id);
let made = 0;
const entry = (body: Body) => ({
  id: `entry${String(++made).padStart(6, '0')}`,
  author: 'Ada',
  at: '2026-05-04T10:20:30.456Z',
  revision: 3,
  body,
});
const run = entry({ kind: 'run', name: 'rack', edits: [] });
const defect = entry({ kind: 'defect', text: 'no light', about: null, run: null, photos: [] });
const note = entry({ kind: 'note', text: 'door is locked', about: null, reading: '', photos: [] });
const tick = (lines: number, done: boolean): Body => ({
  kind: 'tick',
  device: camera.id,
  run: null,
  page: 'addresses',
  lines: Array.from({ length: lines }, (_, i) => ({ what: `line ${i + 1}`, value: i === 0 ? '' : `${i}` })),
  done,
});
const done = { reading: '', note: '', photos: [] };

test.each<[string, Body]>([
  ['began the run “rack”', run.body],
  ['sat down at cam-1', { kind: 'sit', run: run.id, socket: port!.id }],
  [
    'done: put in the cable',
    { kind: 'result', run: run.id, steps: [], does: 'put in the cable', outcome: 'done', ...done },
  ],
  [
    'something else seen: put in the cable',
    { kind: 'result', run: run.id, steps: [], does: 'put in the cable', outcome: 'differs', ...done },
  ],
  [
    'left out: put in the cable',
    { kind: 'result', run: run.id, steps: [], does: 'put in the cable', outcome: 'skipped', ...done },
  ],
  [
    'as expected at sw-a 3: plug in',
    {
      kind: 'test',
      key: 'k',
      at: 'sw-a 3',
      does: 'plug in',
      expects: 'VLAN 20',
      outcome: 'as-expected',
      ...done,
    },
  ],
  [
    'differs at sw-a 3: plug in',
    {
      kind: 'test',
      key: 'k',
      at: 'sw-a 3',
      does: 'plug in',
      expects: 'VLAN 20',
      outcome: 'differs',
      ...done,
    },
  ],
  ['ended the run “rack”', { kind: 'runEnd', run: run.id, note: '' }],
  ['ended the run “a run”', { kind: 'runEnd', run: 'entryunknown', note: '' }],
  ['set at cam-1, Addresses: line 1; line 2 1', tick(2, true)],
  ['not set after all at cam-1, Addresses: 4 lines', tick(4, false)],
  ['came to the site', { kind: 'visit', with: '', note: '' }],
  ['came to the site with Bo: late', { kind: 'visit', with: 'Bo', note: 'late' }],
  ['left the site', { kind: 'visitEnd', visit: run.id, note: '' }],
  ['left the site: all is well', { kind: 'visitEnd', visit: run.id, note: 'all is well' }],
  ['door is locked', note.body],
  ['defect: no light', defect.body],
  [
    'defect mended: no light',
    { kind: 'defectState', defect: defect.id, state: 'mended', note: '', photos: [] },
  ],
  [
    'defect accepted as it is: taken back',
    { kind: 'defectState', defect: note.id, state: 'accepted', note: '', photos: [] },
  ],
  [
    'Ada signed as installer, 2026-05-04',
    { kind: 'signOff', role: 'installer', name: 'Ada', day: '2026-05-04', signature: 'M1 1', note: '' },
  ],
  [
    'Bo signed as customer, 2026-05-04: but the roof',
    {
      kind: 'signOff',
      role: 'customer',
      name: 'Bo',
      day: '2026-05-04',
      signature: 'M1 1',
      note: 'but the roof',
    },
  ],
  ['takes back “door is locked”. It was open.', { kind: 'correction', of: note.id, text: 'It was open.' }],
  ['takes back an entry that is not here. Gone.', { kind: 'correction', of: 'entryunknown', text: 'Gone.' }],
])('%s', (words, body) => expect(entryText(plan, logOf([run, defect, note]), entry(body))).toBe(words));

test('entries that take back one another, or themselves, are told all the same', () => {
  const correction = (id: string, of: string) => ({
    ...entry({ kind: 'correction', of, text: `not ${of}` }),
    id,
  });
  const log = logOf([
    correction('entryaaaa', 'entrybbbb'),
    correction('entrybbbb', 'entryaaaa'),
    correction('entrycccc', 'entrycccc'),
  ]);
  expect(log.entries.map((one) => entryText(plan, log, one))).toEqual([
    'takes back “not entryaaaa”. not entrybbbb',
    'takes back “not entrybbbb”. not entryaaaa',
    'takes back “not entrycccc”. not entrycccc',
  ]);
  expect(logCsv(plan, log).split('\n').length).toBeGreaterThan(3);
});

test('what an entry is about is named as it is in the plan now', () => {
  expect(aboutText(plan, null)).toBe('');
  expect(aboutText(plan, { table: 'device', id: camera.id })).toBe('cam-1');
  expect(aboutText(plan, { table: 'port', id: port!.id })).toBe('cam-1');
  const gone = without(plan, { table: 'device', id: camera.id });
  expect(aboutText(gone, { table: 'device', id: camera.id })).toBe('no longer planned');
});
