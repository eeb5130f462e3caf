import fc from 'fast-check';
import { type Plan, type Device, type Port, devicesNamed, vlansOf, boxOf } from '../../plan';
import {
  missingPorts,
  neededBeyond,
  sparePorts,
  follow,
  pluggedInto,
  islandsOf,
  membersOfVlan,
} from '../../model/switching';
import { plugIn } from '../../rehearse';
import {
  linksOf,
  portsOf,
  fillPattern,
  describePorts,
  portsIn,
  rangeText,
  placesOf,
  shelf,
  powerOf,
} from '../../model/wiring';
import { done, emptySite, tried } from '../../testing/plans';
import { findInPlan } from '../../find';
import { readPortRows, typedCarried } from './port-rows';
import { typedCable } from './typed-cable';
import { runs } from '../../testing/runs';

const named = (plan: Plan, name: string): Device => devicesNamed(plan, name)[0]!;
const port = (plan: Plan, name: string, number: number): Port =>
  portsOf(plan, named(plan, name).id).find((candidate) => candidate.number === number)!;
const vlan = (plan: Plan, purpose: string) => vlansOf(plan).find((item) => item.purpose === purpose)!;
const add = (plan: Plan, model: string, name: string) =>
  done(plan, 'addDevice', { model: { shelf: model }, name });
const cable = (plan: Plan, text: string) => done(plan, 'connect', typedCable(plan, text));
const assign = (plan: Plan, ports: Port[], role: string, fields: object = {}) =>
  done(plan, 'assignPorts', { ports: ports.map((item) => item.id), role, ...fields });

/** A gateway, two switches and a camera segment; sw-a 24 to sw-b 24, gw-1 2 to sw-a 1. */
function cupboard(): Plan {
  let plan = emptySite();
  for (const purpose of ['management', 'cameras', 'staff', 'voice', 'parking'])
    plan = done(plan, 'addSegment', { purpose });
  plan = done(plan, 'equipDevice', { device: named(plan, 'gw-1').id, model: { shelf: 'gateway-6' } });
  plan = add(add(plan, 'switch-24p', 'sw-a'), 'switch-24p', 'sw-b');
  plan = cable(cable(plan, 'gw-1 2 = sw-a 1'), 'SW-A 24 = sw-b 24');
  const trunks = [
    port(plan, 'gw-1', 2),
    port(plan, 'sw-a', 1),
    port(plan, 'sw-a', 24),
    port(plan, 'sw-b', 24),
  ];
  plan = assign(plan, trunks, 'trunk', { vlan: null, tagged: [vlan(plan, 'management').id] });
  return plan;
}

describe('port numbers as people type them', () => {
  const one = add(emptySite(), 'switch-24p', 'sw');
  const ports = portsOf(one, named(one, 'sw').id);
  test('a list of ranges, in order, each once, and what it means', () => {
    const chosen = portsIn('9, 1-4,3,12', ports);
    expect(chosen.map((item) => item.number)).toEqual([1, 2, 3, 4, 9, 12]);
    expect(rangeText(chosen)).toBe('1-4, 9, 12');
    expect(describePorts(chosen, ports)).toBe('6 ports, none of the fibre ones, with PoE');
    expect(describePorts(portsIn('24-26', ports), ports)).toBe('3 ports, 2 of them fibre, 1 with PoE');
  });
  test.each([
    ['1-4,x', '“x” in “1-4,x” is not a port or a range'],
    ['', 'is not a port or a range'],
    ['4-1', '“4-1” runs backwards; write 1-4'],
    ['29', 'There is no port 29; this box has ports 1–28'],
    ['0', 'There is no port 0'],
  ])('%s is refused with the place', (text, why) => expect(() => portsIn(text, ports)).toThrow(why));
  test('what rangeText writes, portsIn reads', () => {
    fc.assert(
      fc.property(fc.subarray(ports.slice(1), { minLength: 1 }), (some) => {
        expect(portsIn(rangeText(some), ports)).toEqual(some);
      }),
    );
  });
  test.each([
    ['ge{n}', 7, 'ge7'],
    ['{24-n}', 7, '17'],
    ['0/{n-1}', 1, '0/0'],
    ['{n+100}', 3, '103'],
    ['{x}', 1, null],
    ['{n-5}', 1, null],
    ['a}', 1, null],
  ])('the pattern %s at port %i gives %s', (pattern, number, filled) =>
    expect(fillPattern(pattern, number)).toBe(filled),
  );
});

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

describe('cables', () => {
  const plan = cupboard();
  test.each([
    ['sw-a 2 = sw-a 2', 'cannot be joined to itself'],
    ['sw-a 2', 'has no two ends'],
    ['sw-a 99 = sw-b 1', 'There is no port 99 on sw-a; it has ports 1–28'],
    ['sw-x 1 = sw-b 1', 'There is no device “sw-x”'],
    ['sw-a 1 = sw-b 1', 'sw-a 1 holds a cable to gw-1 2 already; take that out first'],
    ['sw-a 2 rear = sw-b 1', 'sw-a 2 has no rear'],
    ['sw-a = sw-b 1', 'write which, like sw-a 1'],
  ])('%s is refused: %s', (text, why) => expect(() => cable(plan, text)).toThrow(why));
  test('through an outlet and a panel the ends meet', () => {
    let next = add(add(plan, 'panel-24', 'panel'), 'outlet-2', 'c-11');
    next = done(next, 'addHost', { subnet: [...next.subnet.values()][1]!.id, kind: 'camera', name: 'cam' });
    for (const text of ['sw-a 5 = panel 7', 'panel 7 rear = c-11 1 rear', 'c-11 1 = cam'])
      next = cable(next, text);
    const [link] = linksOf(next).get(port(next, 'sw-a', 5).id)!;
    expect(next.port.get(link!.to)!.device).toBe(named(next, 'cam').id);
    expect(link!.cables).toHaveLength(3);
    expect(pluggedInto(next, named(next, 'cam').id)).toBe(port(next, 'sw-a', 5));
  });
  test('between two fibre sockets fibre is laid, of the kind the site has most of; copper between any others', () => {
    const light = (of: Plan, name: string, at: number) =>
      portsOf(of, named(of, name).id).filter(({ media }) => media === 'fibre')[at]!;
    const laid = (of: Plan, text: string) => [...cable(of, text).cable.values()].at(-1)!.media;
    const both = (at: number) =>
      `sw-a ${light(plan, 'sw-a', at).number} = sw-b ${light(plan, 'sw-b', at).number}`;
    expect(laid(plan, both(0))).toBe('multi-mode');
    expect(laid(plan, 'sw-a 5 = sw-b 6')).toBe('copper');
    expect(laid(plan, `sw-a ${light(plan, 'sw-a', 0).number} = sw-b 6`)).toBe('copper');
    const end = (name: string) => ({ device: named(plan, name).id, number: light(plan, name, 1).number });
    const far = done(plan, 'connect', { from: end('sw-a'), to: end('sw-b'), media: 'single-mode' });
    expect(laid(far, both(0))).toBe('single-mode');
  });
  test('a plug moved takes its plan with it when asked', () => {
    let next = assign(plan, [port(plan, 'sw-a', 5)], 'access', { vlan: vlan(plan, 'cameras').id });
    next = done(next, 'addHost', { subnet: [...next.subnet.values()][1]!.id, kind: 'camera', name: 'cam' });
    next = cable(next, 'sw-a 5 = cam');
    const laid = [...next.cable.values()].find((item) => item.from === port(next, 'sw-a', 5).id)!;
    next = done(next, 'movePlug', {
      cable: laid.id,
      end: 'from',
      port: port(next, 'sw-b', 6).id,
      withPlan: true,
    });
    expect(port(next, 'sw-b', 6).untagged).toBe(vlan(plan, 'cameras').id);
    expect(port(next, 'sw-a', 5).role).toBe('parked');
    expect(pluggedInto(next, named(next, 'cam').id)).toBe(port(next, 'sw-b', 6));
  });
  test('removing a device takes its ports and cables; a gateway stays', () => {
    const next = done(plan, 'removeDevice', { device: named(plan, 'sw-b').id });
    expect(devicesNamed(next, 'sw-b')).toEqual([]);
    expect(next.cable.size).toBe(1);
    expect(() => done(plan, 'removeDevice', { device: named(plan, 'gw-1').id })).toThrow(
      'is the gateway of a segment',
    );
  });
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

describe('carry, prune and plug in', () => {
  const start = (() => {
    const plan = cupboard();
    return assign(plan, [port(plan, 'sw-b', 5)], 'access', { vlan: vlan(plan, 'cameras').id });
  })();
  const cam = vlan(start, 'cameras').id;

  test('a VLAN missing on the way is carried on exactly the ports between its users', () => {
    expect(islandsOf(start, cam).length).toBeGreaterThan(1);
    expect(plugIn(start, { port: port(start, 'sw-b', 5).id })).toMatchObject({ works: false });
    expect(plugIn(start, { port: port(start, 'sw-b', 5).id }).sentence).toContain(
      'do not reach the gateway gw-1',
    );
    const plan = done(start, 'carryNeeded', { vlan: cam });
    const changed = [...plan.port.values()].filter((item) => start.port.get(item.id) !== item);
    expect(changed.map((item) => `${plan.device.get(item.device)!.name} ${item.number}`).sort()).toEqual([
      'gw-1 2',
      'sw-a 1',
      'sw-a 24',
      'sw-b 24',
    ]);
    expect(islandsOf(plan, cam)).toHaveLength(1);
    const found = plugIn(plan, { port: port(plan, 'sw-b', 5).id });
    expect(found.works).toBe(true);
    expect(found.sentence).toMatch(/^you land in Cameras, .* and have 10\.20\.\d+\.1 on gw-1 as gateway$/);
    expect(() => done(plan, 'carryNeeded', { vlan: cam })).toThrow('carried everywhere it is needed');
  });
  test('prune takes it off again where nobody is beyond', () => {
    const carried = done(start, 'carryNeeded', { vlan: cam });
    const alone = assign(carried, [port(carried, 'sw-b', 5)], 'parked');
    const spare = sparePorts(alone, cam).map(
      (item) => `${alone.device.get(item.device)!.name} ${item.number}`,
    );
    expect(spare.sort()).toEqual(['gw-1 2', 'sw-a 1', 'sw-a 24', 'sw-b 24']);
    const pruned = done(alone, 'pruneVlan', { vlan: cam });
    expect(sparePorts(pruned, cam)).toEqual([]);
  });
  test('follow names each box with the tag in and out', () => {
    const plan = done(start, 'carryNeeded', { vlan: cam });
    const inner = portsOf(plan, named(plan, 'gw-1').id)[0]!;
    const hops = follow(plan, port(plan, 'sw-b', 5).id, 0, inner.id)!;
    const vid = vlan(plan, 'cameras').vid;
    expect(
      hops.map((hop) => [
        plan.device.get(hop.device)!.name,
        hop.entered!.number,
        hop.tagIn,
        hop.vid,
        hop.tagOut,
      ]),
    ).toEqual([
      ['sw-b', 5, 0, vid, vid],
      ['sw-a', 24, vid, vid, vid],
      ['gw-1', 2, vid, vid, vid],
    ]);
  });
  test('ports say plainly why nothing comes', () => {
    const sentence = (role: string, fields = {}) =>
      plugIn(assign(start, [port(start, 'sw-a', 9)], role, fields), { port: port(start, 'sw-a', 9).id })
        .sentence;
    expect(sentence('parked')).toBe('nothing happens: the port is parked');
    expect(sentence('uplink')).toContain('faces a provider');
    expect(sentence('trunk', { vlan: null, tagged: [cam] })).toContain('takes tagged frames only');
    expect(sentence('undecided')).toContain('VLAN 1, which is no segment');
  });

  /** Switches in a random graph, access ports of one VLAN on some of them. */
  const graph = fc.record({
    edges: fc.array(fc.tuple(fc.nat(7), fc.nat(7)), { minLength: 4, maxLength: 14 }),
    users: fc.uniqueArray(fc.nat(7), { minLength: 2, maxLength: 4 }),
  });
  const built = ({ edges, users }: { edges: [number, number][]; users: number[] }) => {
    let plan = done(emptySite(), 'addSegment', { purpose: 'cameras' });
    for (let i = 0; i < 8; i++) plan = add(plan, 'switch-24', `s${i}`);
    const next = new Array(8).fill(2);
    for (const [a, b] of edges)
      if (a !== b) plan = tried(plan, 'connect', typedCable(plan, `s${a} ${next[a]++} = s${b} ${next[b]++}`));
    const ports = users.map((i) => port(plan, `s${i}`, 1));
    return assign(plan, ports, 'access', { vlan: vlan(plan, 'cameras').id });
  };
  const components = (plan: Plan, without: string | null = null) => {
    const parent = new Map<string, string>();
    const root = (id: string): string => (parent.get(id) === undefined ? id : root(parent.get(id)!));
    for (const item of plan.cable.values()) {
      if (item.id === without) continue;
      const [a, b] = [root(plan.port.get(item.from)!.device), root(plan.port.get(item.to)!.device)];
      if (a !== b) parent.set(a, b);
    }
    return root;
  };
  test('after carry, users joined by cables hear each other, and whatever single cable breaks, those still joined do', () => {
    fc.assert(
      fc.property(graph, (drawn) => {
        let plan = built(drawn);
        const id = vlan(plan, 'cameras').id;
        plan = tried(plan, 'carryNeeded', { vlan: id });
        expect(missingPorts(plan, id)).toEqual([]);
        const check = (now: Plan) => {
          const root = components(now);
          const groups = new Set(
            membersOfVlan(now, id)
              .filter((user) => user.port.number > 0)
              .map((user) => root(user.port.device)),
          );
          const islands = islandsOf(now, id).filter((island) =>
            island.users.some((user) => user.port.number > 0),
          );
          expect(islands).toHaveLength(groups.size);
        };
        check(plan);
        for (const laid of plan.cable.values()) check(done(plan, 'disconnect', { cable: laid.id }));
      }),
      { numRuns: runs(40) },
    );
  });
  test('carry asks for no trunk that is on no way between two users', () => {
    fc.assert(
      fc.property(graph, (drawn) => {
        const plan = built(drawn);
        const id = vlan(plan, 'cameras').id;
        const users = new Set(
          membersOfVlan(plan, id)
            .filter((user) => user.port.number > 0)
            .map((user) => user.port.device),
        );
        const isNeeded = (port: string) => neededBeyond(plan).get(port)?.includes(id) ?? false;
        const needed = [...plan.cable.values()]
          .filter(({ from, to }) => isNeeded(from) && isNeeded(to))
          .map(({ from, to }) => [from, to].sort().join(' '));
        // By brute force: every simple path between two users, edge by edge.
        const expected = new Set<string>();
        const cables = [...plan.cable.values()];
        const walk = (at: string, seen: string[], used: string[]) => {
          if (seen.length > 1 && users.has(at)) used.forEach((key) => expected.add(key));
          for (const item of cables) {
            const [a, b] = [plan.port.get(item.from)!, plan.port.get(item.to)!];
            const other = a.device === at ? b.device : b.device === at ? a.device : null;
            if (other === null || seen.includes(other)) continue;
            walk(other, [...seen, other], [...used, [a.id, b.id].sort().join(' ')]);
          }
        };
        for (const user of users) walk(user, [user], []);
        expect(needed.sort()).toEqual([...expected].sort());
      }),
      { numRuns: runs(60) },
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

describe('pasted rows of ports', () => {
  const plan = cupboard();
  const read = (...lines: string[][]) => readPortRows(plan, lines);
  const vid = (purpose: string) => String(vlan(plan, purpose).vid);
  test('what a port is to carry, in the ways people write it', () => {
    const cam = vlan(plan, 'cameras').id;
    const management = vlan(plan, 'management').id;
    expect(typedCarried(plan, vid('cameras'))).toEqual({ role: 'access', vlan: cam });
    expect(typedCarried(plan, `access ${vid('cameras')} CM`)).toEqual({ role: 'access', vlan: cam });
    expect(typedCarried(plan, `Voice ${vid('cameras')}`)).toEqual({ role: 'voice', vlan: cam });
    expect(
      typedCarried(plan, `trunk ${vid('cameras')}+${vid('staff')} untagged ${vid('management')}`),
    ).toEqual({
      role: 'trunk',
      vlan: management,
      taggedMode: 'list',
      tagged: [cam, vlan(plan, 'staff').id].sort(),
    });
    expect(typedCarried(plan, 'trunk all')).toEqual({
      role: 'trunk',
      vlan: null,
      taggedMode: 'all',
      tagged: [],
    });
    expect(typedCarried(plan, 'parked')).toEqual({ role: 'parked' });
    expect(() => typedCarried(plan, 'access 999')).toThrow('“999” is no segment of this site');
  });
  test('good rows are offered beside the refused ones, each with its reason', () => {
    const rows = read(
      ['Label', 'Box', 'Ports', 'VLAN'],
      ['desks', 'SW-A', '5-7', vid('staff')],
      ['', 'sw-a', '5-7,x', vid('staff')],
      ['', 'sw-z', '1', vid('staff')],
      ['', 'sw-a', '8', '4000'],
      ['', 'sw-a', '', ''],
    );
    expect(rows.map((row) => row.why)).toEqual([
      null,
      expect.stringContaining('“x” in “5-7,x”'),
      'There is no box “sw-z”.',
      expect.stringContaining('“4000” is no segment'),
      'The column ports is empty.',
    ]);
    const next = done(plan, 'importPorts', { rows: [{ assign: rows[0]!.assign, label: rows[0]!.label }] });
    expect(port(next, 'sw-a', 6)).toMatchObject({
      role: 'access',
      untagged: vlan(plan, 'staff').id,
      label: 'desks',
    });
  });
  test('a table with half the columns says which is missing', () => {
    expect(read(['Box', 'Port'], ['sw-a', '5'])[0]!.why).toBe('The column carries is missing.');
    expect(read(['sw-a', '5'])[0]!.why).toBe('The column carries is empty.');
  });
});
