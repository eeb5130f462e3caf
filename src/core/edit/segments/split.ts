import * as z from 'zod';
import { type Prefix, formatAddress, formatPrefix, halves, lastOf, prefixFamily } from '../../address';
import {
  type Plan,
  type Subnet,
  Refusal,
  addressesOf,
  badInput,
  hostOf,
  operation,
  subnetsOf,
} from '../../plan';
import { takePortsAlong } from '../gear/along';
import { carryEverywhere } from '../gear/carry';
import { twinOf, withoutId } from './twin';
import { Interfaces, addBeside, moveHosts, passOn, sharePools, shareRouters } from './upper-half';

/**
 * Cuts a subnet in two; the upper half becomes a segment of its own, and its hosts keep their addresses. What held for the
 * segment holds for both: zone, rules, routers, servers, guards. Ports follow the hosts that are plugged in.
 */
export const splitSubnet = operation(
  'splitSubnet',
  z.strictObject({ subnet: z.string() }),
  (draft, input) => {
    const { plan } = draft;
    const subnet = draft.need('subnet', input.subnet);
    const vlan = draft.need('vlan', subnet.vlan);
    const [low, high] = halvesOf(plan, subnet);
    const upperVlan = twinOf(draft, vlan);
    draft.update('subnet', subnet.id, { prefix: low });
    const upper = draft.insert('subnet', { ...withoutId(subnet), vlan: upperVlan.id, prefix: high });
    const above = new Interfaces(draft, vlan.id, upperVlan.id);
    const went = moveHosts(draft, subnet, upper, above);
    shareRouters(draft, draft.need('subnet', subnet.id), upper, above);
    sharePools(draft, subnet.id, upper, above);
    for (const beside of subnetsOf(plan, vlan.id))
      if (prefixFamily(beside.prefix) === 6) addBeside(draft, beside, upperVlan, went, above);
    for (const { id, dns } of subnetsOf(draft.plan, upperVlan.id)) {
      draft.update('subnet', id, {
        dns: dns.map((server) =>
          'interface' in server ? { interface: above.known(server.interface) } : server,
        ),
      });
      passOn(draft, id, above);
    }
    takePortsAlong(draft, went, vlan.id, upperVlan.id);
    carryEverywhere(draft, upperVlan.id);
    return `${vlan.name}: ${formatPrefix(subnet.prefix)} split, ${formatPrefix(high)} is ${upperVlan.name} (VLAN ${upperVlan.vid})`;
  },
);

/** The halves; refuses where one of them could not be used as it is. */
function halvesOf(plan: Plan, { id, prefix }: Subnet): readonly [Prefix, Prefix] {
  if (prefixFamily(prefix) === 6)
    throw badInput(
      `${formatPrefix(prefix)} is IPv6 and is not split: every segment takes a network of its own. Split its IPv4 subnet, or add a segment.`,
      'subnet',
    );
  if (prefix.length >= 30)
    throw badInput(`A /${prefix.length} is too small to split; its halves would hold no hosts.`, 'subnet');
  const [low, high] = halves(prefix);
  const between = new Set([lastOf(low), high.address]);
  const stuck = addressesOf(plan, id).filter(({ address, gateway }) => !gateway && between.has(address));
  if (stuck.length > 0)
    throw new Refusal(
      'in-use',
      `${stuck.map((address) => `${hostOf(plan, address).device.name} ${formatAddress(address.address)}`).join(' and ')} would stand where the halves meet: ${formatAddress(lastOf(low))} becomes a broadcast address, ${formatAddress(high.address)} a network. Move ${stuck.length === 1 ? 'it' : 'them'} first.`,
      stuck.map((address) => ({ table: 'address', id: address.id })),
      ['subnet'],
    );
  return [low, high];
}
