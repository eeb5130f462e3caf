import fc from 'fast-check';
import { type IpAddress, contains, parseAddress } from '../../address';
import { type Plan, addressesOn, interfacesOf, subnetsOf, vlansOf } from '../../plan';
import { buildPolicy, damagedPolicy, soundPolicy } from '../../testing/policy';
import { moreThan, runs } from '../../testing/runs';
import { type PacketSide, type Wanted, decide, vlanOfAddress } from './decide';
import { filterOf, routersFor } from './enforce';
import { type ListLine, portListOf } from './port-list';
import { onLine, serviceAt } from './traffic';
import type { Span } from './traffic-range';

const TODAY = '2026-05-04';
const sound = soundPolicy();

const within = (span: Span | null, at: bigint): boolean => span === null || (span[0] <= at && at <= span[1]);
/** What a box makes of a packet by a list: the first line that names it, else it is dropped. */
function passesBy(lines: readonly ListLine[], from: IpAddress, to: IpAddress, wanted: Wanted): boolean {
  const service = serviceAt(wanted.protocol, wanted.port);
  const line = lines.find(
    (one) =>
      !one.answers &&
      within(one.from, onLine(from)) &&
      within(one.to, onLine(to)) &&
      (one.services === null || one.services.some((span) => within(span, service))),
  );
  return line?.passes ?? false;
}

const addressesOf = (plan: Plan, device: string): IpAddress[] =>
  interfacesOf(plan, device).flatMap(({ id }) => addressesOn(plan, id).map(({ address }) => address));
/** The router of a segment, and where it takes an address to be. */
function sideOf(plan: Plan, router: string, to: IpAddress): PacketSide {
  if (addressesOf(plan, router).includes(to)) return { gateway: true };
  const vlan = vlanOfAddress(plan, to);
  if (vlan !== null) return { vlan };
  for (const { id, remote } of plan.tunnel.values())
    if (remote.some((prefix) => contains(prefix, to))) return { tunnel: id };
  return { outside: true };
}
const WANTED: readonly Wanted[] = [
  { protocol: 'tcp', port: 443 },
  { protocol: 'tcp', port: 554 },
  { protocol: 'tcp', port: 22 },
  { protocol: 'udp', port: 53 },
  { protocol: 'udp', port: 67 },
  { protocol: 'icmp', port: 8 },
];

test('lets a segment begin what its router lets it begin, and nothing else', () => {
  let [passed, dropped] = [0, 0];
  fc.assert(
    fc.property(damagedPolicy, fc.nat(), (damage, seed) => {
      const plan = buildPolicy(damage, sound);
      const others = [
        ...[...plan.address.values()].map(({ address }) => address),
        ...['198.51.100.7', '203.0.113.9', '2001:db8:ffff::9'].map((text) => parseAddress(text)!),
      ];
      vlansOf(plan).forEach(({ id }, i) => {
        const router = routersFor(plan, id)[0];
        const own = subnetsOf(plan, id).map(({ prefix }) => prefix);
        if (!router || filterOf(plan, router) === 'none') return;
        const lines = portListOf(plan, id, TODAY);
        const senders = [...plan.address.values()].filter(
          ({ subnet, interface: card }) =>
            plan.subnet.get(subnet)!.vlan === id && plan.interface.get(card)!.device !== router.id,
        );
        for (const { address: from } of senders.slice(0, 4))
          for (const to of others) {
            if (typeof to !== typeof from) continue;
            const side = sideOf(plan, router.id, to);
            // Within the segment no router is asked.
            if (!('gateway' in side) && own.some((prefix) => contains(prefix, to))) continue;
            const wanted = WANTED[(seed + i) % WANTED.length]!;
            const { passes } = decide(
              plan,
              router,
              { from, to, wanted },
              { from: { vlan: id }, to: side },
              TODAY,
            );
            if (passesBy(lines, from, to, wanted) !== passes)
              throw new Error(`${id}: ${from} to ${to}, ${JSON.stringify(wanted)} should be ${passes}`);
            if (passes) passed++;
            else dropped++;
          }
      });
    }),
    { numRuns: runs(60) },
  );
  expect(passed).toBeGreaterThan(moreThan(500));
  expect(dropped).toBeGreaterThan(moreThan(500));
});

test('leaves what stays in the segment alone', () => {
  for (const { id } of vlansOf(sound))
    for (const { prefix } of subnetsOf(sound, id)) {
      if (typeof prefix.address !== 'number') continue;
      const [from, to] = [prefix.address + 200, prefix.address + 201];
      for (const wanted of WANTED) {
        expect(passesBy(portListOf(sound, id, TODAY), from, to, wanted)).toBe(true);
        expect(passesBy(portListOf(sound, id, TODAY), from, parseAddress('255.255.255.255')!, wanted)).toBe(
          true,
        );
      }
    }
});
