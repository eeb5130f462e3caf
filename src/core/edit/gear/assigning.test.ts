import fc from 'fast-check';
import Papa from 'papaparse';
import { armed, portScheduleCsv, portScheduleOf } from '../../formats';
import { boxOf, type Plan } from '../../plan';
import { neededBeyond } from '../../model/switching';
import { carriedOf, innerPort, portsOf, numberings, placesOf } from '../../model/wiring';
import { buildGear, damagedGear, deviceNamed, portNamed, put, soundGear } from '../../testing/gear';
import { takenCall } from '../../testing/inputs';
import { done, tried } from '../../testing/plans';
import { siblingsOf, unlikeInside } from './controller-siblings';
import { managementSubnet } from './management';
import { readPortRows } from './port-rows';
import { runs } from '../../testing/runs';

const sound = soundGear();
const ids = (plan: Plan, name: string, numbers: readonly number[]) =>
  numbers.map((number) => portNamed(plan, name, number).id);

describe('a trunk of what is needed beyond', () => {
  test('lists the segments used on both sides of the link, and no more', () => {
    const all = done(sound, 'assignPorts', {
      ports: ids(sound, 'sw-a', [9]),
      role: 'trunk',
      vlan: null,
      taggedMode: 'all',
    });
    const plan = done(all, 'trunkWhatIsNeeded', { ports: ids(all, 'sw-a', [9]), vlan: null });
    const port = portNamed(plan, 'sw-a', 9);
    const codes = port.tagged.map((id) => plan.vlan.get(id)!.purpose).sort();
    // Beyond it live sw-b itself, a camera and, over a hub, a desk and a till.
    expect(codes).toEqual(['cameras', 'management', 'staff']);
    expect(port).toMatchObject({ role: 'trunk', taggedMode: 'list', untagged: null });
  });
  test('is refused where nobody is beyond', () =>
    expect(() => done(sound, 'trunkWhatIsNeeded', { ports: ids(sound, 'sw-a', [5]), vlan: null })).toThrow(
      'Beyond sw-a 5 no box uses a segment; lay its cable first, or list the segments.',
    ));
  test('is what carry would ask for, on any network', () => {
    fc.assert(
      fc.property(damagedGear, (damage) => {
        const plan = buildGear(damage, sound);
        const ports = ids(plan, 'sw-a', [9]);
        const next = tried(plan, 'trunkWhatIsNeeded', { ports, vlan: null });
        if (next === plan) return;
        const needed = neededBeyond(plan).get(ports[0]!) ?? [];
        expect(next.port.get(ports[0]!)!.tagged).toEqual([...needed].sort());
      }),
      { numRuns: runs(60) },
    );
  });
});

describe('profiles', () => {
  const kept = done(sound, 'saveProfile', { name: 'camera', port: portNamed(sound, 'sw-a', 3).id });
  const profile = [...kept.profile.values()][0]!.id;
  const applied = done(kept, 'applyProfile', { ports: ids(kept, 'sw-b', [5, 6]), profile });
  test('are renamed, but to no name another has', () => {
    expect(done(applied, 'renameProfile', { profile, name: 'eye' }).profile.get(profile)!.name).toBe('eye');
    const two = done(applied, 'saveProfile', { name: 'desk', port: portNamed(sound, 'sw-b', 2).id });
    expect(() => done(two, 'renameProfile', { profile, name: 'Desk' })).toThrow(
      'There is a port profile Desk already',
    );
    expect(() => done(two, 'renameProfile', { profile, name: ' ' })).toThrow('has no name');
  });
  test('detached or removed, ports keep what they carry', () => {
    const before = carriedOf(portNamed(applied, 'sw-b', 5));
    for (const plan of [
      done(applied, 'detachProfile', { ports: ids(applied, 'sw-b', [5]) }),
      done(applied, 'removeProfile', { profile }),
    ]) {
      expect(portNamed(plan, 'sw-b', 5).profile).toBeNull();
      expect(carriedOf(portNamed(plan, 'sw-b', 5))).toEqual(before);
    }
    expect(done(applied, 'removeProfile', { profile }).profile.size).toBe(0);
    expect(() => done(sound, 'detachProfile', { ports: ids(sound, 'sw-b', [5]) })).toThrow(
      'None of these ports follows a profile',
    );
  });
});

test('facts of many ports are set at once, and a wrong value names its field', () => {
  const set = { exposed: true, label: 'hall', speed: 100 };
  const plan = done(sound, 'setPortFacts', { ports: ids(sound, 'sw-a', [5, 6, 7]), set });
  for (const number of [5, 6, 7]) expect(portNamed(plan, 'sw-a', number)).toMatchObject(set);
  expect(() => done(sound, 'setPortFacts', { ports: ids(sound, 'sw-a', [5]), set: { poeClass: 9 } })).toThrow(
    'The PoE class is 9; write a whole number from 1 to 8',
  );
});

describe('boxes configured together', () => {
  const second = done(sound, 'addDevice', { name: 'ap-2', model: { shelf: 'ap-1' } });
  const controlled = ['ap', 'ap-2'].reduce(
    (plan, name) =>
      done(plan, 'setController', {
        box: boxOf(plan, deviceNamed(plan, name).id)!.id,
        controller: deviceNamed(plan, 'gw-1').id,
      }),
    second,
  );
  const ap = deviceNamed(controlled, 'ap');
  test('one change reaches all', () => {
    expect(siblingsOf(controlled, ap).map(({ name }) => name)).toEqual(['ap-2']);
    expect(unlikeInside(controlled, ap).map(({ name }) => name)).toEqual(['ap-2']);
    const plan = done(controlled, 'likeInside', { device: ap.id });
    expect(unlikeInside(plan, ap)).toEqual([]);
    expect(carriedOf(innerPort(plan, deviceNamed(plan, 'ap-2').id)!)).toEqual(
      carriedOf(innerPort(plan, ap.id)!),
    );
    expect(() => done(plan, 'likeInside', { device: ap.id })).toThrow('are like it already');
  });
  test('a box that configures itself has none', () => expect(siblingsOf(second, ap)).toEqual([]));
});

test('a box without an address gets the next free one of management, and drops what it had of another subnet', () => {
  const bare = done(sound, 'addDevice', { name: 'sw-c', model: { shelf: 'switch-8' }, managed: false });
  const plan = done(bare, 'addressBox', { device: deviceNamed(bare, 'sw-c').id });
  const address = [...plan.address.values()].find(({ id }) => !bare.address.get(id))!;
  expect(address).toMatchObject({ subnet: managementSubnet(plan)!.id, assignment: 'static' });
  expect(plan.interface.get(address.interface)!.device).toBe(deviceNamed(plan, 'sw-c').id);
});

describe('numbers on the case', () => {
  const at = (numbering: (typeof numberings)[number], fromRight: boolean) =>
    placesOf([{ count: 6, media: 'copper', speed: 1000, rows: 2, poeClass: null, numbering, fromRight }])
      .map(({ row, column }) => `${row}${column}`)
      .join(' ');
  test.each([
    ['odd-above', false, '00 10 01 11 02 12'],
    ['even-above', false, '10 00 11 01 12 02'],
    ['by-row', false, '00 01 02 10 11 12'],
    ['odd-above', true, '02 12 01 11 00 10'],
  ] as const)('%s, from the right %s', (numbering, fromRight, places) =>
    expect(at(numbering, fromRight)).toBe(places),
  );
  test('every order gives each port a place of its own', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 60 }),
        fc.constantFrom(1 as const, 2 as const),
        fc.constantFrom(...numberings),
        fc.boolean(),
        (count, rows, numbering, fromRight) => {
          const places = placesOf([
            { count, media: 'copper', speed: 1000, rows, poeClass: null, numbering, fromRight },
          ]);
          expect(new Set(places.map(({ row, column }) => `${row} ${column}`)).size).toBe(count);
          for (const { row, column } of places) {
            expect(row).toBeLessThan(rows);
            expect(column).toBeGreaterThanOrEqual(0);
            expect(column).toBeLessThan(Math.ceil(count / rows));
          }
        },
      ),
    );
  });
  test('a model of one’s own has combo ports between copper and fibre', () => {
    const own = {
      name: 'old box',
      kind: 'switch',
      copper: 4,
      combo: 2,
      fibre: 2,
      rows: 2,
      numbering: 'by-row',
      speed: 1000,
      poeClass: null,
      poeBudget: null,
      vlanAware: true,
      layer3: false,
    };
    const plan = done(sound, 'addDevice', { name: 'own', model: { own } });
    const media = portsOf(plan, deviceNamed(plan, 'own').id).map((port) => port.media);
    expect(media).toEqual([
      'inner',
      'copper',
      'copper',
      'copper',
      'copper',
      'combo',
      'combo',
      'fibre',
      'fibre',
    ]);
  });
});

describe('the port schedule', () => {
  test('has a block for each box by place, and shows names inside where they differ', () => {
    const place = (plan: Plan, name: string, location: string) =>
      put(plan, 'box', boxOf(plan, deviceNamed(plan, name).id)!, { location });
    const mapped = done(sound, 'mapPorts', { device: deviceNamed(sound, 'sw-b').id, name: 'ge{n}' });
    const plan = place(place(mapped, 'sw-b', 'attic'), 'sw-a', 'barn');
    const blocks = portScheduleOf(plan);
    expect(blocks).toHaveLength(plan.box.size);
    const placed = blocks.filter(({ box }) => box.location !== '');
    expect(placed.map(({ device, mapped: shown }) => [device.name, shown])).toEqual([
      ['sw-b', true],
      ['sw-a', false],
    ]);
    const [line] = placed[1]!.ports.filter(({ number }) => number === '9');
    expect(line).toMatchObject({ leadsTo: 'sw-b 9', cable: 'multi mode 40 m' });
    expect(line!.carries).toMatch(/^trunk \d+(, \d+)*, untagged none$/);
  });
  test('pasted back as it was written, all of it is as it is', () => {
    fc.assert(
      fc.property(damagedGear, fc.array(fc.nat(), { maxLength: 6 }), (damage, changes) => {
        const plan = changes.reduce(
          (now, seed) => {
            const call = takenCall(now, seed);
            return call ? done(now, call.operation, call.input) : now;
          },
          buildGear(damage, sound),
        );
        const { data } = Papa.parse<string[]>(portScheduleCsv(plan), { skipEmptyLines: true });
        const rows = readPortRows(
          plan,
          data.map((cells) => cells.map(armed)),
        );
        const ports = [...plan.port.values()].filter(({ device }) => boxOf(plan, device));
        expect(new Set(rows.flatMap((row) => row.of)).size).toBe(ports.length);
        expect(rows.filter(({ why, sets }) => why !== null || sets.length > 0)).toEqual([]);
      }),
      { numRuns: runs(60) },
    );
  });
  test('what a row says already keeps what else is set there', () => {
    const sw = deviceNamed(sound, 'sw-a');
    const [port] = portsOf(sound, sw.id).filter(({ role }) => role === 'access');
    const strict = put(sound, 'port', port!, { accepts: 'untagged', ingressFilter: true, label: '=F1-K2' });
    const call = { assign: { ports: [port!.id], role: 'access', vlan: port!.untagged }, label: '-K3' };
    const again = done(strict, 'importPorts', { rows: [call] });
    expect(again.port.get(port!.id)).toEqual({ ...strict.port.get(port!.id), label: '-K3' });
  });
});
