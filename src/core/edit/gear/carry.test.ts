import fc from 'fast-check';
import type { Plan } from '../../plan';
import {
  missingPorts,
  neededBeyond,
  sparePorts,
  follow,
  islandsOf,
  membersOfVlan,
} from '../../model/switching';
import { plugIn } from '../../rehearse';
import { portsOf } from '../../model/wiring';
import { done, emptySite, tried } from '../../testing/plans';
import { typedCable } from './typed-cable';
import { runs } from '../../testing/runs';
import { named, port, vlan, add, assign, cupboard } from '../../testing/cupboard';

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
