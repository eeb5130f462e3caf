import {
  type Hardening,
  type HardeningItem,
  type Plan,
  addressesOn,
  boxOf,
  dnsOf,
  interfacesOf,
  vlansOf,
} from '../../plan';
import { hardeningFor, tickOf } from '../../model/guards';
import { type Answer, probe } from '../probe';
import type { Receiver } from '../question';

/** The hardening list of a box, with what the plan and the rehearsal say of each point. */
export interface HardeningPoint {
  readonly item: HardeningItem;
  readonly tick: Hardening | null;
  /** What is known of it; empty where only a look at the box tells. */
  readonly evidence: string;
  /** It cannot be as it should, whatever is ticked. */
  readonly wrong: boolean;
}
type Known = Pick<HardeningPoint, 'evidence' | 'wrong'>;
const known = (evidence: string, wrong = false): Known => ({ evidence, wrong });

/** The first way that works, or why none does. */
function firstWay(
  plan: Plan,
  device: string,
  port: number,
  ways: readonly (readonly [string, Receiver])[],
  today: string | null,
): Known {
  let stopped: Answer | null = null;
  for (const [name, to] of ways) {
    const answer = probe(plan, { from: { device }, to, wanted: { protocol: 'udp', port } }, today);
    if (answer.works !== false) return known(`${name}: passes`);
    stopped ??= answer;
  }
  return stopped ? known(`UDP ${port}: ${stopped.summary}`, true) : known('no server is known there', true);
}

const subnetsAt = (plan: Plan, device: string) =>
  interfacesOf(plan, device).flatMap((card) =>
    addressesOn(plan, card.id).map(({ subnet }) => plan.subnet.get(subnet)!),
  );

/** Names: from the servers of its subnet, or from outside where it is told none. */
function reach(plan: Plan, device: string, today: string | null): Known {
  const servers = subnetsAt(plan, device).flatMap((subnet) => dnsOf(plan, subnet));
  const ways = servers.map((address) => ['its DNS server', { address }] as const);
  return firstWay(plan, device, 53, [...ways, ['DNS on the Internet', { internet: true }]], today);
}
/** Time: from its gateway, or from the Internet (RFC 5905). */
const time = (plan: Plan, device: string, today: string | null): Known =>
  firstWay(
    plan,
    device,
    123,
    [
      ['time on the Internet', { internet: true }],
      ['time from its gateway', { gateway: true }],
    ],
    today,
  );

/** The segments from which its pages are reached, its own left out. */
function management(plan: Plan, device: string, today: string | null): Known {
  const own = new Set(subnetsAt(plan, device).map(({ vlan }) => vlan));
  const others = vlansOf(plan).filter(
    ({ id }) =>
      !own.has(id) &&
      probe(plan, { from: { vlan: id }, to: { device }, wanted: { protocol: 'tcp', port: 443 } }, today)
        .works === true,
  );
  return known(
    others.length === 0
      ? 'nobody from another segment gets to TCP 443'
      : `TCP 443 is reached from ${others.map(({ name }) => name).join(', ')}`,
  );
}

function evidenceOf(plan: Plan, device: string, item: HardeningItem, today: string | null): Known {
  const box = boxOf(plan, device);
  switch (item) {
    case 'name':
      return known(`it is called ${plan.device.get(device)!.name} here`);
    case 'login':
      return known(box?.loginChanged ? `changed on ${box.loginChanged}` : 'not recorded as changed');
    case 'firmware': {
      const until = box?.supportedUntil ?? null;
      const ended = until !== null && today !== null && until < today;
      return known(
        [box?.firmware || 'no version recorded', until ? `supported until ${until}` : '']
          .filter(Boolean)
          .join(', '),
        ended,
      );
    }
    case 'reach':
      return reach(plan, device, today);
    case 'time':
      return time(plan, device, today);
    case 'management':
      return management(plan, device, today);
    default:
      return known('');
  }
}

export const hardeningPoint = (
  plan: Plan,
  device: string,
  item: HardeningItem,
  today: string | null,
): HardeningPoint => ({ item, tick: tickOf(plan, device, item), ...evidenceOf(plan, device, item, today) });

/** All points of a box, in order. */
export const hardeningOf = (plan: Plan, device: string, today: string | null): HardeningPoint[] =>
  hardeningFor(plan, device).map((item) => hardeningPoint(plan, device, item, today));
