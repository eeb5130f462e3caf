import fc from 'fast-check';
import { boxOf } from '../../plan';
import { portsOf } from '../../model/wiring';
import { hardenable } from '../../model/guards';
import { soundWireless } from '../../testing/wireless';
import { soundGuards } from '../../testing/guards';
import { soundPolicy } from '../../testing/policy';
import { soundTrees } from '../../testing/trees';
import { commissionSite, drawnCommission, plainDrawing } from '../../testing/commission';
import { done } from '../../testing/plans';
import { deviceNamed, put } from '../../testing/gear';
import { runs } from '../../testing/runs';
import { settingsOf } from '../steps';
import { presentState } from '../present';
import { plannedState } from '../state';
import { settingsSheets } from './index';

const TODAY = '2026-05-04';
const textOf = (sheets: ReturnType<typeof settingsSheets>, page: string): string[] =>
  sheets.flatMap(({ pages }) =>
    pages
      .filter((one) => one.page === page)
      .flatMap(({ lines }) => lines.map(({ what, value }) => `${what}: ${value}`)),
  );

test('whatever the order sets stands on the settings of its box, and nothing is there for one as planned', () => {
  let ports = 0;
  fc.assert(
    fc.property(drawnCommission, (drawn) => {
      const { plan: bare, comes } = commissionSite(drawn);
      const devices = [...bare.box.values()].map(({ device }) => device);
      const asPlanned = devices.filter((device) => !comes.has(device));
      const plan =
        asPlanned.length > 0
          ? done(bare, 'setPresent', { devices: asPlanned, set: { state: 'as-planned' } })
          : bare;
      const sheets = settingsSheets(plan, TODAY);
      const own = (device: string) => sheets.filter((sheet) => sheet.devices.some(({ id }) => id === device));
      for (const device of asPlanned) expect(own(device)).toEqual([]);
      for (const { device, setting } of settingsOf(presentState(plan), plannedState(plan))) {
        if (setting.kind !== 'port' || setting.part !== 'set') continue;
        const { number } = plan.port.get(setting.port)!;
        const said = textOf(own(device), 'ports').filter((text) => {
          const [, list = ''] = /^Ports? ([^:(]+)/.exec(text) ?? [];
          return list.split(',').some((run) => {
            const [from = NaN, to = from] = run.trim().split('-').map(Number);
            return from <= number && number <= to;
          });
        });
        expect([number, said.length]).toEqual([number, 1]);
        ports++;
      }
    }),
    { numRuns: runs(60), seed: 5 },
  );
  expect(ports).toBeGreaterThan(100);
});

test('what like boxes share stands once, and what one has besides stands with it', () => {
  const { plan } = commissionSite(plainDrawing);
  const [shared, first, second, ...none] = settingsSheets(plan, TODAY);
  expect(none).toEqual([]);
  expect(shared!.devices.map(({ name }) => name)).toEqual(['box-0', 'box-1']);
  expect(textOf([shared!], 'vlans')).toEqual([
    'VLAN 10: Segment 10',
    'VLAN 20: Segment 20',
    'VLAN 30: Segment 30',
  ]);
  for (const [i, sheet] of [first!, second!].entries()) {
    expect(textOf([sheet], 'identity')).toContain(`Name: box-${i}`);
    expect(textOf([sheet], 'management')).toEqual([
      `Management address: 10.20.10.${10 + i}, mask 255.255.255.0`,
    ]);
    expect(textOf([sheet], 'vlans')).toEqual([]);
  }
});

test.each([
  ['policy', soundPolicy()],
  ['trees', soundTrees()],
  ['guards', soundGuards()],
  ['wireless', soundWireless()],
])('every box of the site of %s has its pages, none is empty, no line stands twice', (_, plan) => {
  const sheets = settingsSheets(plan, TODAY);
  const alone = sheets.flatMap(({ devices }) => (devices.length === 1 ? devices : []));
  expect(alone).toEqual(hardenable(plan));
  for (const { id, name } of alone) {
    const own = sheets.filter(({ devices }) => devices.some((one) => one.id === id));
    const pages = own.flatMap((sheet) => sheet.pages);
    for (const { lines } of pages) expect(lines.length).toBeGreaterThan(0);
    expect(textOf(own, 'identity')).toContain(`Name: ${name}`);
    expect(textOf(own, 'save').length).toBeGreaterThan(0);
    const numbered = textOf(own, 'ports').filter((text) => text.startsWith('Port'));
    expect(new Set(numbered).size).toBe(numbered.length);
  }
});

test('a box that filters is told its lines by the numbers of the rule schedule, others are not', () => {
  const plan = soundPolicy();
  const sheets = settingsSheets(plan, TODAY);
  for (const { devices, pages } of sheets) {
    if (devices.length > 1) continue;
    const filters = (boxOf(plan, devices[0]!.id)?.filter ?? 'none') !== 'none';
    const rules = pages.filter(({ page }) => page === 'rules').flatMap(({ lines }) => lines);
    if (!filters) expect(rules).toEqual([]);
    else expect(rules.at(-1)!.value).toBe('deny anybody → anybody: everything');
  }
  expect(textOf(sheets, 'rules').length).toBeGreaterThan(3);
});

test('no secret and no place for one: only where it is kept', () => {
  const text = [soundGuards(), soundWireless()].flatMap((plan) =>
    settingsSheets(plan, TODAY).flatMap(({ pages }) =>
      pages.flatMap(({ lines }) => lines.map(({ what, value }) => `${what}: ${value}`)),
    ),
  );
  const secrets = text.filter((line) => /\b(key|secret|login)\b/i.test(line));
  expect(secrets.length).toBeGreaterThan(0);
  for (const line of secrets) expect(line).toMatch(/kept|keeps|one key|without a key/);
});

test('a box as planned is left out, and what it was before comes back', () => {
  const plan = soundTrees();
  const { id } = deviceNamed(plan, 'sw-a');
  const then = done(plan, 'setPresent', { devices: [id], set: { state: 'as-planned' } });
  const names = (sheets: ReturnType<typeof settingsSheets>) =>
    sheets.flatMap(({ devices }) => devices.map(({ name }) => name));
  expect(names(settingsSheets(then, TODAY))).not.toContain('sw-a');
  const back = done(then, 'setPresent', { devices: [id], set: { state: 'as-it-comes' } });
  expect(settingsSheets(back, TODAY)).toEqual(settingsSheets(plan, TODAY));
});

test('a box that was set up once is told what is otherwise since, and what goes', () => {
  const plan = soundTrees();
  const { id } = deviceNamed(plan, 'sw-a');
  const devices = [...plan.box.values()].flatMap(({ device, vlanAware }) => (vlanAware ? [device] : []));
  const recorded = done(plan, 'setPresent', { devices, set: { state: 'as-planned', asOf: 3 } });
  const formers = new Map([[3, plan]]);
  const own = (site: typeof plan) =>
    settingsSheets(site, TODAY, formers)
      .filter(({ devices }) => devices.some((one) => one.id === id))
      .flatMap(({ pages }) => pages);
  expect(own(recorded)).toEqual([]);
  const [port] = portsOf(recorded, id).filter(({ number, label }) => number > 0 && label === '');
  const labelled = put(recorded, 'port', port!, { label: 'loading bay' });
  const [ports, save, ...rest] = own(labelled);
  const label = { what: `Label of port ${port!.number}`, value: 'loading bay' };
  expect([ports, rest]).toEqual([{ page: 'ports', lines: [label] }, []]);
  expect(save!.lines[0]!.what).toBe('Save');
  // What was there and is planned no more goes; where something came in its place, that says enough.
  const back = new Map([[3, labelled]]);
  const lines = settingsSheets(recorded, TODAY, back)
    .filter(({ devices }) => devices.some((one) => one.id === id))
    .flatMap(({ pages }) => pages.flatMap((page) => page.lines));
  expect(lines[0]).toEqual({ what: `No longer: Label of port ${port!.number}`, value: 'loading bay' });
  const renamed = done(recorded, 'edit', { table: 'device', id, set: { name: 'sw-new' } });
  const [identity] = own(renamed);
  expect(identity).toEqual({ page: 'identity', lines: [{ what: 'Name', value: 'sw-new' }] });
  // Another box stands there now: all of it is to be set.
  const box = boxOf(recorded, id)!;
  const replaced = put(recorded, 'box', box, { model: 'another model' });
  const asNew = done(put(plan, 'box', box, { model: 'another model' }), 'setPresent', {
    devices: devices.filter((one) => one !== id),
    set: { state: 'as-planned' },
  });
  expect(own(replaced)).toEqual(own(asNew));
  expect(own(asNew).length).toBeGreaterThan(3);
  const { management } = presentState(replaced, undefined, formers).boxes.find(
    ({ bridge }) => bridge.device === id,
  )!;
  expect(management).toMatchObject({ address: null, vid: 1 });
});
