import fc from 'fast-check';
import type { Plan, Port } from '../../plan';
import { drawnNetwork, network, plainBox, plainPort } from '../../testing/networks';
import { egress, ingress, portFacts, type Heard, fabricOf, flood, isPassive } from '../wiring';
import { moreThan, runs } from '../../testing/runs';

/**
 * A frame at a time, straight from the records and as slowly as it comes: every copy of the frame is looked at on
 * every port of every box, and a port that has sent a VLAN once does not send it again.
 */
function slowFlood(plan: Plan, start: string, tag: number): string[] {
  const vid = (vlan: string | null) => (vlan === null ? null : plan.vlan.get(vlan)!.vid);
  const boxOf = (port: Port) => [...plan.box.values()].find((box) => box.device === port.device);
  const decided = (port: Port) => {
    if (port.role !== 'undecided')
      return {
        pvid: vid(port.pvid),
        untagged: vid(port.untagged),
        carries: (v: number) =>
          port.taggedMode === 'all' ||
          port.tagged.some((vlan) => vid(vlan) === v) === (port.taggedMode === 'list'),
        accepts: port.accepts,
        filter: port.ingressFilter,
      };
    const every = boxOf(port)!.factory === 'every-vlan';
    return { pvid: 1, untagged: 1, carries: () => every, accepts: 'all', filter: false };
  };
  const open = (port: Port) => port.enabled && !['parked', 'uplink'].includes(port.role);
  const far = (port: Port): Port[] => {
    const found: Port[] = [];
    const go = (at: Port, side: string, used: string[]) => {
      for (const cable of plan.cable.values()) {
        if (used.includes(cable.id)) continue;
        for (const [a, aSide, b, bSide] of [
          [cable.from, cable.fromSide, cable.to, cable.toSide],
          [cable.to, cable.toSide, cable.from, cable.fromSide],
        ] as const) {
          if (a !== at.id || aSide !== side) continue;
          const other = plan.port.get(b)!;
          if (isPassive(plan.device.get(other.device)!.kind))
            go(other, bSide === 'front' ? 'rear' : 'front', [...used, cable.id]);
          else found.push(other);
        }
      }
    };
    go(port, 'front', []);
    return found;
  };
  const heard = new Set<string>();
  const arrived = new Set<string>();
  const frames: { port: Port; tag: number }[] = [{ port: plan.port.get(start)!, tag }];
  while (frames.length > 0) {
    const frame = frames.shift()!;
    const { port } = frame;
    const box = boxOf(port);
    if (!box) {
      heard.add(`${port.id} ${frame.tag}`);
      continue;
    }
    if (!open(port)) continue;
    let inside = frame.tag;
    if (box.vlanAware) {
      const rule = decided(port);
      if (frame.tag === 0 && (rule.accepts === 'tagged' || rule.pvid === null)) continue;
      if (frame.tag !== 0 && rule.accepts === 'untagged') continue;
      inside = frame.tag === 0 ? rule.pvid! : frame.tag;
      if (rule.filter && rule.untagged !== inside && !rule.carries(inside)) continue;
    }
    if (arrived.has(`${port.id} ${inside}`)) continue;
    arrived.add(`${port.id} ${inside}`);
    for (const out of plan.port.values()) {
      if (out.device !== port.device || out.id === port.id || !open(out)) continue;
      let wire = inside;
      if (box.vlanAware) {
        const rule = decided(out);
        if (rule.untagged === inside) wire = 0;
        else if (!rule.carries(inside)) continue;
      }
      if (out.number === 0) heard.add(`${out.id} ${wire}`);
      else for (const next of far(out)) frames.push({ port: next, tag: wire });
    }
  }
  return [...heard].sort();
}

const written = (heard: readonly Heard[]) => heard.map(({ port, tag }) => `${port} ${tag}`).sort();

describe('who hears a broadcast', () => {
  test('agrees with a flood frame by frame on random networks with random mistakes', () => {
    let deliveries = 0;
    let tagged = 0;
    fc.assert(
      fc.property(drawnNetwork, fc.nat(30), fc.constantFrom(0, 0, 1, 10, 20, 30), (drawn, at, tag) => {
        const plan = network(drawn);
        const ports = [...plan.port.values()].filter(
          (port) => port.device.startsWith('b') && port.number > 0,
        );
        const start = ports[at % ports.length]!.id;
        const fast = written(flood(fabricOf(plan), { port: start, tag }).heard);
        deliveries += fast.length;
        tagged += fast.filter((item) => !item.endsWith(' 0')).length;
        expect(fast).toEqual(slowFlood(plan, start, tag));
      }),
      { numRuns: runs(1500) },
    );
    // The networks drawn must be ones in which frames get somewhere, with a tag and without.
    expect(deliveries).toBeGreaterThan(moreThan(1500));
    expect(tagged).toBeGreaterThan(moreThan(200));
  });
});

describe('one port', () => {
  const box = plainBox({ id: 'x', device: 'd' });
  const vidOf = (vlan: string) => Number(vlan.slice(1));
  const facts = (fields: Partial<Port>) =>
    portFacts(plainPort({ id: 'p', device: 'd', number: 1, ...fields }), box, vidOf)!;

  test('an untagged frame gets the PVID, a tagged one keeps its VLAN', () => {
    const port = facts({ pvid: 'v10', untagged: 'v10', tagged: ['v20'] });
    expect(ingress(port, 0)).toEqual({ vid: 10 });
    expect(ingress(port, 20)).toEqual({ vid: 20 });
    expect(egress(port, 10)).toBe(0);
    expect(egress(port, 20)).toBe(20);
    expect(egress(port, 30)).toBeNull();
  });
  test('accepted frames and ingress filtering refuse, each with its reason', () => {
    expect(ingress(facts({ pvid: 'v10', untagged: 'v10', accepts: 'untagged' }), 20)).toEqual({
      refused: 'tagged-refused',
    });
    expect(ingress(facts({ pvid: 'v10', accepts: 'tagged', tagged: ['v20'] }), 0)).toEqual({
      refused: 'untagged-refused',
    });
    expect(ingress(facts({ pvid: null, tagged: ['v20'] }), 0)).toEqual({ refused: 'no-pvid' });
    expect(ingress(facts({ pvid: 'v10', untagged: 'v10' }), 20)).toEqual({ refused: 'not-a-member' });
    expect(ingress(facts({ pvid: 'v10', untagged: 'v10', ingressFilter: false }), 20)).toEqual({ vid: 20 });
  });
  test('PVID and untagged VLAN may differ: then each direction is another VLAN', () => {
    const port = facts({ pvid: 'v10', untagged: 'v20', ingressFilter: false });
    expect(ingress(port, 0)).toEqual({ vid: 10 });
    expect(egress(port, 20)).toBe(0);
    expect(egress(port, 10)).toBeNull();
  });
  test('all and all-except', () => {
    expect(egress(facts({ taggedMode: 'all' }), 4000)).toBe(4000);
    const except = facts({ taggedMode: 'except', tagged: ['v30'] });
    expect(egress(except, 30)).toBeNull();
    expect(egress(except, 31)).toBe(31);
  });
  test('no frame passes a port that is parked, off, defective or faces a provider', () => {
    for (const fields of [
      { role: 'parked' },
      { role: 'uplink' },
      { enabled: false },
      { defective: true },
    ] as const)
      expect(portFacts(plainPort({ id: 'p', device: 'd', number: 1, ...fields }), box, vidOf)).toBeNull();
  });
  test('an undecided port is as the factory left it, and at worst what its neighbour makes it', () => {
    const port = plainPort({ id: 'p', device: 'd', number: 1, role: 'undecided' });
    const every = { ...box, factory: 'every-vlan' as const };
    const self = { ...box, factory: 'by-neighbour' as const };
    expect(egress(portFacts(port, box, vidOf)!, 20)).toBeNull();
    expect(ingress(portFacts(port, box, vidOf)!, 0)).toEqual({ vid: 1 });
    expect(egress(portFacts(port, every, vidOf)!, 20)).toBe(20);
    expect(egress(portFacts(port, self, vidOf)!, 20)).toBeNull();
    expect(egress(portFacts(port, self, vidOf, 'leaks')!, 20)).toBe(20);
  });
});
