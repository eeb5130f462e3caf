import fc from 'fast-check';
import { gearDamages, deviceNamed, portNamed, put, soundGear, vlanFor } from '../../testing/gear';
import { done, tried } from '../../testing/plans';
import type { Plan, Port } from '../../plan';
import { typedCable } from '../../edit';
import { taggedText, typedTagged, typedVlan } from '../wiring';
import { partsOf, ringsOf } from './carry';
import { follow, followTo } from './follow';
import { moreThan, runs } from '../../testing/runs';

const sound = soundGear();
const cable = (plan: Plan, text: string) => done(plan, 'connect', typedCable(plan, text));
const trunk = (plan: Plan, ends: readonly (readonly [string, number])[]) =>
  done(plan, 'assignPorts', {
    ports: ends.map(([name, number]) => portNamed(plan, name, number).id),
    role: 'trunk',
    vlan: null,
    tagged: portNamed(sound, 'sw-a', 9).tagged,
  });
const add = (plan: Plan, name: string, model = 'switch-8') =>
  done(plan, 'addDevice', { name, model: { shelf: model } });

describe('a frame followed', () => {
  test('takes a shortest way round a ring', () => {
    let plan = sound;
    for (const name of ['r1', 'r2', 'r3']) plan = add(plan, name);
    for (const text of ['sw-a 10 = r1 1', 'r1 2 = r2 1', 'r2 2 = r3 1', 'r3 2 = sw-b 10'])
      plan = done(plan, 'connect', { ...typedCable(plan, text), media: 'multi-mode' });
    plan = trunk(plan, [
      ['sw-a', 10],
      ['sw-b', 10],
      ['r1', 1],
      ['r1', 2],
      ['r2', 1],
      ['r2', 2],
      ['r3', 1],
      ['r3', 2],
    ]);
    const names = (from: readonly [string, number], to: string) => {
      const { hops, why } = followTo(plan, portNamed(plan, ...from), deviceNamed(plan, to));
      return why ?? hops.map((hop) => plan.device.get(hop.device)!.name);
    };
    expect(names(['sw-b', 1], 'gw-1')).toEqual(['sw-b', 'sw-a', 'gw-1']);
    expect(names(['sw-b', 1], 'cam-1')).toEqual(['sw-b', 'sw-a']);
    expect(ringsOf(plan).map((ring) => ring.devices.map((id) => plan.device.get(id)!.name).sort())).toEqual([
      ['r1', 'r2', 'r3', 'sw-a', 'sw-b'],
    ]);
  });
  test('each hop goes on where the last one ended, with the tag it was sent with', () => {
    const damage = fc.array(
      fc.tuple(
        fc.constantFrom('dropVlan', 'native', 'pvid', 'everything', 'secondWay', 'wrongAccess'),
        fc.nat(500),
        fc.nat(500),
      ),
      { maxLength: 3 },
    );
    let arrived = 0;
    fc.assert(
      fc.property(damage, fc.nat(50), fc.nat(50), (steps, a, b) => {
        const plan = steps.reduce((now, [name, x, y]) => gearDamages[name]!(now, x, y), sound);
        const starts = [
          ['sw-a', 3],
          ['sw-a', 4],
          ['sw-b', 1],
          ['sw-b', 2],
          ['hub', 4],
        ] as const;
        const ends = [...plan.port.values()].filter((port) =>
          ['cam-1', 'cam-2', 'desk', 'till', 'phone'].includes(plan.device.get(port.device)!.name),
        );
        const [name, number] = starts[a % starts.length]!;
        const start = portNamed(plan, name, number);
        const end = ends[b % ends.length]!;
        const hops = follow(plan, start.id, 0, end.id);
        if (!hops) return;
        arrived++;
        expect(hops[0]).toMatchObject({ entered: { id: start.id }, tagIn: 0 });
        hops.slice(1).forEach((hop, i) => {
          expect(hop.tagIn).toBe(hops[i]!.tagOut);
          const joined = [...plan.cable.values()].some(
            ({ from, to }) => [from, to].includes(hop.entered!.id) && [from, to].includes(hops[i]!.left!.id),
          );
          expect(joined).toBe(true);
        });
        expect(new Set(hops.map((hop) => `${hop.device} ${hop.vid}`)).size).toBe(hops.length);
      }),
      { numRuns: runs(300) },
    );
    expect(arrived).toBeGreaterThan(moreThan(40));
  });
  test('says at which port it ends and why', () => {
    const why = (plan: Plan, from: readonly [string, number], to: string) =>
      followTo(plan, portNamed(plan, ...from), deviceNamed(plan, to)).why;
    expect(why(sound, ['sw-a', 8], 'gw-1')).toBe('No frame from here gets to gw-1: sw-a 8 is parked.');
    expect(why(sound, ['sw-b', 2], 'cam-1')).toMatch(
      /^No frame from here gets to cam-1: sw-a 3 does not carry VLAN \d+\.$/,
    );
    const lone = add(sound, 'lone', 'switch-8');
    expect(why(lone, ['sw-a', 3], 'lone')).toBe(
      'No frame from here gets to lone: No cable leads from sw-a to lone.',
    );
    expect(why(sound, ['cam-1', 1], 'gw-1')).toContain('frames start at a box');
    const set = (box: string, number: number, fields: Partial<Port>) =>
      put(sound, 'port', portNamed(sound, box, number), fields);
    const cases: readonly (readonly [Partial<Port>, RegExp])[] = [
      [{ defective: true }, /sw-b 9 is defective/],
      [{ enabled: false }, /sw-b 9 is off/],
      [{ role: 'uplink' }, /sw-b 9 faces a provider/],
      [{ tagged: [], taggedMode: 'list', untagged: null }, /sw-b 9 does not carry VLAN/],
    ];
    for (const [fields, expected] of cases)
      expect(why(set('sw-b', 9, fields), ['sw-b', 2], 'gw-1')).toMatch(expected);
  });
});

describe('rings and parts', () => {
  test('two links are a ring, a bundle of them is not', () => {
    let plan = done(sound, 'connect', { ...typedCable(sound, 'sw-a 10 = sw-b 10'), media: 'multi-mode' });
    plan = trunk(plan, [
      ['sw-a', 10],
      ['sw-b', 10],
    ]);
    expect(ringsOf(plan)).toHaveLength(1);
    const sides = ['sw-a', 'sw-b'].map((name) => [9, 10].map((number) => portNamed(plan, name, number).id));
    expect(ringsOf(done(plan, 'bundleLinks', { sides }))).toEqual([]);
  });
  test('two rings that share a box are two', () => {
    let plan = sound;
    for (const name of ['x', 'y', 'z']) plan = add(plan, name);
    for (const text of ['x 1 = y 1', 'x 2 = y 2', 'x 3 = z 3', 'x 4 = z 4']) plan = cable(plan, text);
    expect(ringsOf(plan).map((ring) => ring.devices.length)).toEqual([2, 2]);
  });
  test('a cable joins two parts, taking it out parts them again', () => {
    const lone = add(sound, 'far');
    const count = (plan: Plan) => new Set(partsOf(plan)).size;
    const joined = cable(lone, 'far 1 = sw-b 3');
    const open = done(joined, 'assignPorts', { ports: [portNamed(joined, 'sw-b', 3).id], role: 'undecided' });
    expect([count(sound), count(lone), count(joined), count(open)]).toEqual([1, 2, 2, 1]);
  });
});

describe('segments as typed', () => {
  test('by id, code or name; else the list of what there is', () => {
    const cameras = vlanFor(sound, 'cameras');
    for (const text of [String(cameras.vid), cameras.code.toLowerCase(), ' Cameras '])
      expect(typedVlan(sound, text)).toBe(cameras);
    expect(() => typedVlan(sound, 'attic')).toThrow(/“attic” is no segment of this site; there are 10 MG, /);
  });
  test('what a trunk carries is read back from its text', () => {
    const ids = [...sound.vlan.values()].map((vlan) => vlan.id);
    fc.assert(
      fc.property(fc.constantFrom('list', 'except', 'all'), fc.subarray(ids), (mode, some) => {
        // "All but none" is all.
        const taggedMode = mode === 'except' && some.length === 0 ? 'all' : mode;
        const carried = { taggedMode, tagged: taggedMode === 'all' ? [] : [...some].sort() } as const;
        expect(typedTagged(sound, taggedText(sound, carried as never))).toEqual(carried);
      }),
    );
  });
  test('a socket that is none is refused when a plug is moved', () => {
    const laid = [...sound.cable.values()].find((item) => item.from === portNamed(sound, 'sw-a', 3).id)!;
    const move = (port: string) => () =>
      done(sound, 'movePlug', { cable: laid.id, end: 'from', port, withPlan: true });
    expect(move(portNamed(sound, 'sw-a', 0).id)).toThrow('the inside of the box');
    expect(move(portNamed(sound, 'sw-a', 4).id)).toThrow('holds a cable to phone already');
    const panel = add(sound, 'panel', 'panel-24');
    const onPanel = portNamed(panel, 'panel', 1).id;
    expect(() =>
      done(panel, 'movePlug', { cable: laid.id, end: 'from', port: onPanel, withPlan: true }),
    ).toThrow('has no plan to take along');
    expect(
      tried(panel, 'movePlug', { cable: laid.id, end: 'from', port: onPanel, withPlan: false }),
    ).not.toBe(panel);
  });
});
