import { boxOf, subnetOf } from '../../plan';
import { carries, homesOf, innerPort, leadsTo, portsOf, placesOf, shelf, powerOf } from '../../model/wiring';
import { done, emptySite } from '../../testing/plans';
import { findInPlan } from '../../find';
import { named, port, vlan, assign, cable, cupboard } from '../../testing/cupboard';

describe('the shelf', () => {
  test.each(shelf.map((model) => [model.name, model] as const))(
    '%s has each port once, each at its place',
    (_, model) => {
      const places = placesOf(model.blocks);
      const total = model.blocks.reduce((sum, block) => sum + block.count, 0);
      expect(places.map((place) => place.number)).toEqual(Array.from({ length: total }, (_, i) => i + 1));
      expect(new Set(places.map(({ row, column }) => `${row} ${column}`)).size).toBe(total);
      for (const number of model.uplinks) expect(number).toBeLessThanOrEqual(total);
    },
  );
  test('a model of one’s own; one with no port or with thousands is refused', () => {
    const own = { name: 'old box', kind: 'switch', copper: 5, fibre: 1, rows: 1, speed: 100, poeClass: null };
    const rest = { poeBudget: null, vlanAware: false, layer3: false };
    const plan = done(emptySite(), 'addDevice', { model: { own: { ...own, ...rest } }, name: 'old' });
    expect(portsOf(plan, named(plan, 'old').id)).toHaveLength(7);
    expect(boxOf(plan, named(plan, 'old').id)!.vlanAware).toBe(false);
    const tryWith = (fields: object) => () =>
      done(emptySite(), 'addDevice', { model: { own: { ...own, ...rest, ...fields } }, name: 'old' });
    expect(tryWith({ copper: 0, fibre: 0 })).toThrow('A box with no ports has nothing to assign');
    expect(tryWith({ copper: 5000 })).toThrow(
      'The number of copper ports is 5000; write a whole number from 0 to 400',
    );
  });
});

test.each(shelf.map(({ id }) => id))('%s hears the segment in which it was given an address', (id) => {
  const plan = done(cupboard(), 'addDevice', { model: { shelf: id }, name: 'new' });
  const device = named(plan, 'new');
  const inner = innerPort(plan, device.id);
  for (const home of homesOf(plan, device.id))
    if (boxOf(plan, device.id)!.vlanAware) expect(carries(inner!, home.id)).toBe(true);
});

test('a device that has an address and is equipped afterwards lives where its address is', () => {
  const site = cupboard();
  const subnet = subnetOf(site, vlan(site, 'cameras').id, 4)!.id;
  const hosted = done(site, 'addHost', { subnet, name: 'recorder-9', kind: 'recorder' });
  const device = named(hosted, 'recorder-9').id;
  const plan = done(hosted, 'equipDevice', { device, model: { shelf: 'switch-8' } });
  expect(innerPort(plan, device)).toMatchObject({ role: 'access', untagged: vlan(plan, 'cameras').id });
});

test('the plug of a device that is equipped afterwards is the port of its number, with its cable', () => {
  const site = cupboard();
  const subnet = subnetOf(site, vlan(site, 'cameras').id, 4)!.id;
  const hosted = done(site, 'addHost', { subnet, name: 'recorder-9', kind: 'recorder' });
  const plugged = cable(hosted, 'sw-a 7 = recorder-9');
  const device = named(plugged, 'recorder-9').id;
  const [plug] = portsOf(plugged, device);
  const plan = done(plugged, 'equipDevice', { device, model: { shelf: 'switch-8' } });
  const numbers = portsOf(plan, device).map(({ number }) => number);
  expect(new Set(numbers).size).toBe(numbers.length);
  expect(port(plan, 'recorder-9', 1)).toMatchObject({ id: plug!.id, media: 'copper' });
  expect(leadsTo(plan, port(plan, 'sw-a', 7))).toBe('recorder-9 1');
});

describe('what ports carry', () => {
  test('roles are shorthand for the facts', () => {
    let plan = cupboard();
    const [cam, staff, voice] = [vlan(plan, 'cameras').id, vlan(plan, 'staff').id, vlan(plan, 'voice').id];
    plan = assign(plan, [port(plan, 'sw-a', 2)], 'access', { vlan: cam });
    expect(port(plan, 'sw-a', 2)).toMatchObject({
      pvid: cam,
      untagged: cam,
      tagged: [],
      accepts: 'untagged',
    });
    plan = assign(plan, [port(plan, 'sw-a', 2)], 'voice', { vlan: staff });
    expect(port(plan, 'sw-a', 2)).toMatchObject({ pvid: staff, tagged: [voice], voice, accepts: 'all' });
    plan = assign(plan, [port(plan, 'sw-a', 2)], 'trunk', {
      vlan: null,
      taggedMode: 'except',
      tagged: [cam],
    });
    expect(port(plan, 'sw-a', 2)).toMatchObject({
      pvid: null,
      taggedMode: 'except',
      tagged: [cam],
      accepts: 'tagged',
    });
    plan = assign(plan, [port(plan, 'sw-a', 2)], 'parked');
    expect(port(plan, 'sw-a', 2)).toMatchObject({ role: 'parked', pvid: vlan(plan, 'parking').id });
    expect(() => assign(plan, [port(plan, 'sw-a', 2)], 'access')).toThrow('needs a segment');
    const broken = done(plan, 'edit', {
      table: 'port',
      id: port(plan, 'sw-a', 3).id,
      set: { defective: true },
    });
    expect(() => assign(broken, [port(broken, 'sw-a', 3)], 'access', { vlan: cam })).toThrow(
      'marked defective',
    );
  });
  test('a profile reaches its ports until one is assigned by hand', () => {
    let plan = cupboard();
    const [cam, staff] = [vlan(plan, 'cameras').id, vlan(plan, 'staff').id];
    const [two, three] = [port(plan, 'sw-a', 2), port(plan, 'sw-a', 3)];
    plan = assign(plan, [two], 'access', { vlan: cam });
    plan = done(plan, 'saveProfile', { name: 'camera', port: two.id });
    const profile = [...plan.profile.values()][0]!;
    plan = done(plan, 'applyProfile', { ports: [three.id], profile: profile.id });
    expect(port(plan, 'sw-a', 3)).toMatchObject({ untagged: cam, profile: profile.id });
    plan = assign(plan, [two], 'access', { vlan: staff });
    expect(port(plan, 'sw-a', 2).profile).toBeNull();
    plan = done(plan, 'saveProfile', { name: 'Camera', port: two.id });
    expect(port(plan, 'sw-a', 3).untagged).toBe(staff);
  });
  test('a segment that goes leaves no port behind that speaks of it', () => {
    let plan = cupboard();
    const cam = vlan(plan, 'cameras').id;
    plan = assign(plan, [port(plan, 'sw-a', 2)], 'access', { vlan: cam });
    plan = done(plan, 'carryVlans', { ports: [port(plan, 'sw-a', 24).id], vlan: cam, carry: true });
    plan = done(plan, 'removeSegment', { vlan: cam });
    expect(port(plan, 'sw-a', 2).role).toBe('undecided');
    expect(JSON.stringify([...plan.port.values()])).not.toContain(`"${cam}"`);
  });
  test('members of a bundle act together', () => {
    let plan = cupboard();
    const cam = vlan(plan, 'cameras').id;
    plan = done(plan, 'bundlePorts', { ports: [port(plan, 'sw-a', 25).id, port(plan, 'sw-a', 26).id] });
    plan = assign(plan, [port(plan, 'sw-a', 25)], 'trunk', { tagged: [cam], vlan: null });
    expect(port(plan, 'sw-a', 26).tagged).toEqual([cam]);
    expect(() =>
      done(plan, 'bundlePorts', { ports: [port(plan, 'sw-a', 25).id, port(plan, 'sw-b', 1).id] }),
    ).toThrow('on two boxes');
    plan = done(plan, 'unbundle', { lag: port(plan, 'sw-a', 25).lag });
    expect(port(plan, 'sw-a', 26).lag).toBeNull();
  });
  test('names in the configuration come from a pattern', () => {
    const before = cupboard();
    const device = named(before, 'sw-a').id;
    const plan = done(before, 'mapPorts', { device, name: 'ge{n}', index: '{28-n}' });
    expect(port(plan, 'sw-a', 5)).toMatchObject({ name: 'ge5', index: 23 });
    expect(() => done(plan, 'mapPorts', { device: named(plan, 'sw-a').id, index: '{20-n}' })).toThrow(
      'does not work for port 21',
    );
  });
});

describe('power and finding', () => {
  test('watts are reserved by the class of what is plugged in, at most that of the port', () => {
    let plan = cupboard();
    plan = done(plan, 'addHost', { subnet: [...plan.subnet.values()][1]!.id, kind: 'camera', name: 'cam' });
    plan = done(plan, 'plugDevice', {
      device: named(plan, 'cam').id,
      into: { device: named(plan, 'sw-a').id, number: 3, side: 'front' },
    });
    plan = assign(plan, [port(plan, 'sw-a', 3)], 'access', { vlan: vlan(plan, 'cameras').id });
    const asks = (poeClass: number | null) =>
      powerOf(
        done(plan, 'edit', { table: 'port', id: port(plan, 'cam', 1).id, set: { poeClass } }),
        named(plan, 'sw-a').id,
      );
    expect(asks(null)).toMatchObject({ reserved: 0, left: 190 });
    expect(asks(3)).toMatchObject({ reserved: 15.4, left: 174.6 });
    expect(asks(8)).toMatchObject({ reserved: 30, left: 160 });
    const pulled = done(plan, 'plugDevice', { device: named(plan, 'cam').id, into: null });
    expect(pulled.cable.size).toBe(2);
  });
  test('a box is found by name, place or serial, a port by box and number', () => {
    let plan = cupboard();
    const box = boxOf(plan, named(plan, 'sw-a').id)!;
    plan = done(plan, 'edit', { table: 'box', id: box.id, set: { serial: 'X77-1', location: 'Attic' } });
    expect(findInPlan(plan, 'SW-A 7')[0]).toMatchObject({
      kind: 'gear',
      title: 'sw-a 7',
      port: port(plan, 'sw-a', 7).id,
    });
    expect(findInPlan(plan, 'x77')[0]).toMatchObject({
      kind: 'gear',
      device: named(plan, 'sw-a').id,
      port: null,
    });
    expect(findInPlan(plan, 'attic')[0]!.title).toBe('sw-a');
    expect(findInPlan(plan, 'sw-a 99').filter((hit) => hit.port !== null)).toEqual([]);
  });
});
