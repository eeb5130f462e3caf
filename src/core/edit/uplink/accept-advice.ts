import * as z from 'zod';
import { type Prefix, networkOf } from '../../address';
import {
  idSchema,
  type Draft,
  protocols,
  kinds,
  type Party,
  operation,
  type Plan,
  Refusal,
  type Tunnel,
  type Uplink,
  equal,
} from '../../plan';
import { letThrough, serviceFor } from '../policy/let-through';
import { insertZone } from '../policy/operations';
import { isOutside, rulesOf, zonesOf } from '../../model/policy';
import { freeSpace } from '../../model/segments';
import { setDynamicName } from './advise';
import { reachableSix } from './six';

/** Accepting advice: the records of a VPN, of an opening for IPv6, or of a device that calls out. */

const NET = 24;

/** The first free /24 of the site's space, for those who dial in. */
function dialInNetwork(plan: Plan): Prefix {
  const block = freeSpace(plan).find(({ address, length }) => typeof address === 'number' && length <= NET);
  if (!block)
    throw new Refusal(
      'no-room',
      'The address space has no free /24 for those who dial in; widen the space under Brief.',
    );
  return networkOf(block.address, NET);
}

/** The zone of the Internet as a party; anybody where no zone holds an uplink. */
function outside(plan: Plan): Party[] {
  const zone = zonesOf(plan).find(isOutside);
  if (!zone)
    throw new Refusal('bad-input', 'No zone holds an uplink yet; begin with zones under Who may talk.');
  return [{ zone: zone.id }];
}

function open(
  draft: Draft,
  from: Party[],
  to: Party[],
  protocol: (typeof protocols)[number],
  port: number,
): void {
  for (const one of protocol === 'both' ? (['tcp', 'udp'] as const) : [protocol]) {
    const match = { protocol: one, from: port, to: port };
    const service = serviceFor(draft, match);
    // What is open by such a rule is not opened by another.
    const same = rulesOf(draft.plan).some(
      (rule) =>
        rule.enabled &&
        rule.action === 'allow' &&
        rule.until === null &&
        equal(rule.from, from) &&
        equal(rule.to, to) &&
        rule.services.includes(service),
    );
    if (!same) letThrough.run(draft, { from, to, match });
  }
}

/** The VPN by which people dial in on an uplink, once it is made. */
const dialInOn = (plan: Plan, uplink: string): Tunnel | undefined =>
  [...plan.tunnel.values()].find(
    (tunnel) => tunnel.uplink === uplink && tunnel.peer === '' && !tunnel.initiates && tunnel.enabled,
  );

export const acceptAdvice = operation(
  'takeWay',
  z.strictObject({
    way: z.enum(['vpn', 'ipv6', 'calls-out']),
    uplink: idSchema,
    target: idSchema,
    protocol: z.enum(protocols),
    port: kinds.forward.fields.inside,
    name: z.string().trim().max(120).default(''),
  }),
  (draft, { way, uplink: id, target, protocol, port, name }) => {
    const uplink = draft.need('uplink', id);
    const device = draft.need('device', draft.need('interface', target).device);
    const party: Party[] = [{ device: device.id }];
    if (way === 'calls-out') {
      // A server outside is called by HTTPS; what it does from there is its owner's.
      open(draft, party, outside(draft.plan), 'tcp', 443);
      return `${device.name} may call out by HTTPS`;
    }
    if (way === 'ipv6') {
      // Only its IPv6 addresses: a rule that names the device would open its IPv4 address too.
      const six = reachableSix(draft, draft.need('interface', target), uplink);
      const only = six.map((address): Party => ({ prefix: { address, length: 128 } }));
      open(draft, outside(draft.plan), only, protocol, port);
      return `${device.name}: ${protocol} ${port} open to the Internet over IPv6`;
    }
    setDynamicName(draft, uplink, name);
    const made = dialInOn(draft.plan, id);
    const tunnel = made ?? insertDialIn(draft, uplink);
    const zones = zonesOf(draft.plan);
    if (zones.length > 0) {
      const zone =
        zones.find(({ tunnels }) => tunnels.includes(tunnel.id)) ??
        insertZone(draft, { name: tunnel.name, tunnels: [tunnel.id] });
      open(draft, [{ zone: zone.id }], party, protocol, port);
    }
    if (made) return `VPN ${made.name} on ${uplink.name}: reaches ${device.name} too`;
    return `VPN ${tunnel.name} on ${uplink.name}: reaches ${device.name} and nothing else`;
  },
);

function insertDialIn(draft: Draft, uplink: Uplink): Tunnel {
  const names = new Set([...draft.plan.tunnel.values()].map(({ name }) => name));
  let name = 'dial-in';
  for (let n = 2; names.has(name); n++) name = `dial-in ${n}`;
  return draft.insert('tunnel', {
    device: uplink.device,
    uplink: uplink.id,
    name,
    peer: '',
    initiates: false,
    enabled: true,
    remote: [dialInNetwork(draft.plan)],
  });
}
