import fc from 'fast-check';
import { type Plan, applyChange, vlansOf } from '../plan';
import { perform } from '../edit';
import { nextSeed } from '../testing/plans';
import { buildPolicy, damagedPolicy, soundPolicy } from '../testing/policy';
import { moreThan, runs } from '../testing/runs';
import { probe } from './probe';
import type { ProbeQuestion, Receiver, Sender } from './question';

const sound = soundPolicy();
const TODAY = '2026-05-04';
const SERVICES = [
  { protocol: 'tcp', port: 443 },
  { protocol: 'tcp', port: 22 },
  { protocol: 'icmp', port: 8 },
] as const;

/** What passes from each segment to each segment and to the gateway. */
function passes(plan: Plan): Set<string> {
  const found = new Set<string>();
  const segments = vlansOf(plan).map(({ id }) => id);
  for (const from of segments)
    for (const to of [...segments, 'gateway'])
      for (const wanted of SERVICES) {
        const receiver: Receiver = to === 'gateway' ? { gateway: true } : { vlan: to };
        if (probe(plan, { from: { vlan: from }, to: receiver, wanted }, TODAY).delivered)
          found.add(`${from} ${to} ${wanted.protocol} ${wanted.port}`);
      }
  return found;
}

test('no remedy of the probe opens more than was asked, and none the gateway to a segment', () => {
  const drawn = fc.record({
    damage: damagedPolicy,
    from: fc.nat(20),
    to: fc.nat(20),
    service: fc.nat(SERVICES.length - 1),
  });
  let taken = 0;
  fc.assert(
    fc.property(drawn, ({ damage, from, to, service }) => {
      const plan = buildPolicy(damage, sound);
      const ends: Sender[] = [
        ...vlansOf(plan).map(({ id }) => ({ vlan: id })),
        ...[...plan.device.values()].map(({ id }) => ({ device: id })),
      ];
      const receivers = [...ends, { gateway: true as const }] as Receiver[];
      const question: ProbeQuestion = {
        from: ends[from % ends.length]!,
        to: receivers[to % receivers.length]!,
        wanted: SERVICES[service]!,
      };
      const answer = probe(plan, question, TODAY);
      const opening = answer.remedies.filter(({ operation }) => operation.startsWith('let'));
      if (opening.length === 0) return;
      const before = passes(plan);
      for (const remedy of opening) {
        const applied = applyChange(plan, perform(plan, remedy, nextSeed()));
        if (!applied.ok) throw new Error(`${remedy.label} does not apply`);
        taken++;
        const { protocol, port } = question.wanted;
        for (const opened of passes(applied.plan)) {
          if (before.has(opened)) continue;
          const [sender, receiver, ...what] = opened.split(' ');
          expect([remedy.label, what]).toEqual([remedy.label, [protocol, String(port)]]);
          expect(question.from).toEqual({ vlan: sender });
          // A segment is witnessed by the first device in it, which may be the one that was asked for.
          const asked = 'vlan' in question.to ? question.to.vlan : segmentOf(plan, question.to);
          expect(receiver).toBe(asked);
        }
      }
    }),
    { numRuns: runs(120), seed: 3 },
  );
  expect(taken).toBeGreaterThan(moreThan(20));
});

/** The segment of the first address of a device. */
function segmentOf(plan: Plan, to: Receiver): string | null {
  if (!('device' in to)) return null;
  for (const address of plan.address.values())
    if (plan.interface.get(address.interface)!.device === to.device)
      return plan.subnet.get(address.subnet)!.vlan;
  return null;
}
