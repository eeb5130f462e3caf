import fc from 'fast-check';
import { boxOf, type Plan, withRecord, type BridgeRecord, vlansOf } from '../plan';
import { typedCable } from '../edit';
import { questionFields } from '../rehearse';
import { bridgeRecordOf, settingsOf } from '../model/tree';
import { deviceNamed, gearDamages, portNamed, put, soundGear, vlanFor } from './gear';
import { type Damage, done, tried } from './plans';
import { switches } from './switches';

/** Sites with a ring of switches for property tests: as it should be, then what people do to trees and rings. */

export const RING = ['sw-a', 'sw-b', 'sw-c'];
/** The ports of the ring: box and number. */
export const RING_PORTS: readonly (readonly [string, number])[] = [
  ['sw-a', 9],
  ['sw-a', 10],
  ['sw-b', 9],
  ['sw-b', 10],
  ['sw-c', 9],
  ['sw-c', 10],
];

/** Three switches in a ring that carries everything, the one beside the gateway its root, the next takes over. */
export function soundTrees(base: Plan = soundGear()): Plan {
  let plan = base;
  plan = done(plan, 'addDevice', { name: 'sw-c', model: { shelf: 'switch-8p' } });
  for (const text of ['sw-b 10 = sw-c 9', 'sw-c 10 = sw-a 10'])
    plan = done(plan, 'connect', { ...typedCable(plan, text), media: 'multi-mode', length: 40 });
  const carried = ['management', 'cameras', 'staff', 'guest', 'voice'].map(
    (purpose) => vlanFor(plan, purpose).id,
  );
  plan = done(plan, 'assignPorts', {
    ports: RING_PORTS.map(([name, number]) => portNamed(plan, name, number).id),
    role: 'trunk',
    vlan: null,
    tagged: carried,
  });
  plan = done(plan, 'assignPorts', {
    ports: [1, 2, 3, 4, 5, 6, 7, 8].map((number) => portNamed(plan, 'sw-c', number).id),
    role: 'parked',
  });
  const box = boxOf(plan, deviceNamed(plan, 'sw-c').id)!;
  plan = done(plan, 'edit', { table: 'box', id: box.id, set: { loginChanged: '2026-01-05' } });
  RING.forEach((name, i) => {
    const own = boxOf(plan, deviceNamed(plan, name).id)!;
    plan = put(plan, 'box', own, { baseMac: `00:00:5E:00:53:A${i}` });
  });
  plan = done(plan, 'addQuestion', {
    ...questionFields({
      from: { device: deviceNamed(plan, 'desk').id },
      to: { device: deviceNamed(plan, 'cam-1').id },
      wanted: { protocol: 'tcp', port: 554 },
    }),
    expected: 'delivered',
    why: 'the desk watches the door',
  });
  return done(plan, 'placeRoots', {
    primary: deviceNamed(plan, 'sw-a').id,
    secondary: deviceNamed(plan, 'sw-b').id,
  });
}

const ringBox = (plan: Plan, n: number) => deviceNamed(plan, RING[n % RING.length]!)?.id;
const ringPort = (plan: Plan, n: number) => {
  const [name, number] = RING_PORTS[n % RING_PORTS.length]!;
  return deviceNamed(plan, name) && portNamed(plan, name, number);
};
/** Writes settings of a box as a person could who is not stopped by anything. */
const bridge =
  (fields: (b: number, plan: Plan, device: string) => Partial<BridgeRecord>): Damage =>
  (plan, a, b) => {
    const device = ringBox(plan, a);
    const box = device && boxOf(plan, device);
    if (!box) return plan;
    const known = bridgeRecordOf(plan, device);
    const id = known?.id ?? `tb${RING[a % RING.length]!.replace('-', '')}`;
    return withRecord(plan, 'bridge', id, {
      ...settingsOf(plan, box),
      ...fields(b, plan, device),
      id,
      device,
    });
  };
const of = <T>(items: readonly T[], n: number): T => items[n % items.length]!;
const allBridges =
  (fields: Partial<BridgeRecord>): Damage =>
  (plan) =>
    RING.reduce((next, _, i) => bridge(() => fields)(next, i, 0), plan);

export const treeDamages: Readonly<Record<string, Damage>> = {
  priority: bridge((b) => ({ priority: of([0, 4096, 5000, 8192, 8192, 32_768, 32_768, 61_440], b) })),
  equal: allBridges({ priority: 32_768 }),
  noSecond: (plan, a) =>
    bridge(() => ({ priority: 4096 }))(allBridges({ priority: 32_768 })(plan, 0, 0), a, 0),
  feeds: (plan, a, b) => {
    const device = ringBox(plan, a);
    const box = device && boxOf(plan, device);
    return box ? put(plan, 'box', box, { powerFeeds: 1 + (b % 2) }) : plan;
  },
  noMac: (plan, a) => {
    const device = ringBox(plan, a);
    const box = device && boxOf(plan, device);
    return box ? put(plan, 'box', box, { baseMac: null }) : plan;
  },
  mode: bridge((b) => ({ mode: of(['rstp', 'mst', 'rstp-per-vlan', 'none'] as const, b), region: 'yard' })),
  allMst: allBridges({ mode: 'mst', region: 'yard' }),
  region: bridge((b) => ({ mode: 'mst', region: of(['yard', 'Yard', ''], b), revision: b % 2 })),
  vids: (plan, a, b) => {
    const device = ringBox(plan, a);
    const vid = of(vlansOf(plan), b)?.vid;
    return device && vid
      ? tried(plan, 'setInstance', { devices: [device], number: 1 + (b % 2), vids: String(vid) })
      : plan;
  },
  scale: bridge((b) => ({ costScale: of(['short', 'long'] as const, b) })),
  timers: bridge((b) => ({
    hello: of([1, 2, 5, 10], b),
    maxAge: of([6, 20, 40], b),
    forwardDelay: of([4, 15, 30], b >> 2),
  })),
  edge: (plan, a, b) => {
    const port = ringPort(plan, a);
    return port ? tried(plan, 'setStpPort', { ports: [port.id], set: { edge: b % 3 > 0 } }) : plan;
  },
  guard: (plan, a, b) => {
    const port = ringPort(plan, a);
    return port
      ? tried(plan, 'setStpPort', {
          ports: [port.id],
          set: { guard: of(['root', 'bpdu', 'filter', 'none'], b) },
        })
      : plan;
  },
  rootGuards: (plan, a) =>
    tried(plan, 'setStpPort', {
      ports: RING_PORTS.flatMap(([name, number]) =>
        name === RING[a % RING.length] && deviceNamed(plan, name) ? [portNamed(plan, name, number).id] : [],
      ),
      set: { guard: 'root' },
    }),
  ring: (plan, a, b) =>
    RING.reduce(
      (next, name, i) =>
        bridge((_, current) => ({
          mode: 'ring',
          ringManager: i === a % RING.length || (b % 3 === 0 && i === b % RING.length),
          ringPorts: RING_PORTS.flatMap(([box, number]) =>
            box === name && deviceNamed(current, box) ? [portNamed(current, box, number).id] : [],
          ),
        }))(next, i, 0),
      plan,
    ),
  bare: (plan, a) => {
    const port = ringPort(plan, a);
    return port ? put(plan, 'port', port, { taggedMode: 'list', tagged: [] }) : plan;
  },
  unplug: (plan, a) => {
    const port = ringPort(plan, a);
    const cable = port && [...plan.cable.values()].find(({ from, to }) => from === port.id || to === port.id);
    return cable ? tried(plan, 'disconnect', { cable: cable.id }) : plan;
  },
  dropVlan: gearDamages.dropVlan!,
};

export const damagedTrees = fc.array(
  fc.tuple(fc.constantFrom(...Object.keys(treeDamages)), fc.nat(30), fc.nat(30)),
  { minLength: 1, maxLength: 5 },
);
export const buildTrees = (damage: readonly (readonly [string, number, number])[], sound: Plan): Plan =>
  damage.reduce((plan, [name, a, b]) => treeDamages[name]!(plan, a, b), sound);

const LONG = 16;
/** A long ring whose root lets its messages live for a few links only. */
export const longRing = (maxAge: number, root: number): Plan => {
  const name = (i: number) => `s${String(i % LONG).padStart(2, '0')}`;
  return switches(
    Object.fromEntries(
      Array.from({ length: LONG }, (_, i) => [
        name(i),
        i === root % LONG ? { bridge: { priority: 4096, maxAge, forwardDelay: 15 } } : {},
      ]),
    ),
    Array.from({ length: LONG }, (_, i) => [name(i), 1, name(i + 1), 2] as const),
  );
};
