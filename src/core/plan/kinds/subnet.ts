import * as z from 'zod';
import { familyOf, formatAddress, formatPrefix } from '../../address';
import { address, flag, list, note, prefix, ref } from './fields';
import { kind } from './kind';

/** A DNS server by the interface it answers on, so that renumbering moves it, or by literal address. */
const dnsServer = z.union([
  z.strictObject({ interface: ref('interface', 'dropped', 'server') }),
  z.strictObject({ literal: address('address') }),
]);

/** A prefix of a VLAN. */
export const subnet = kind({
  word: 'subnet',
  about: 'a prefix of a VLAN; pinned; DNS servers by interface or literal address; domain',
  since: 1,
  table: 'subnet',
  indexes: { vlan: ({ vlan }) => vlan },
  fields: {
    vlan: ref('vlan', 'removed', 'segment'),
    prefix: prefix('prefix'),
    /** A pinned subnet is never moved by Fit. */
    pinned: flag('pinned'),
    dns: list('DNS servers', 'subnet_dns', dnsServer, {
      edited: true,
      reference: { to: 'interface', onDelete: 'dropped' },
    }),
    domain: note('domain', 120),
    /** Do its routers send router advertisements (RFC 4861)? Of IPv4 it says nothing. */
    advertised: flag('router advertisements', { since: 7 }).default(true),
  },
  refused: ({ prefix: { address: own }, dns }) => {
    const other = dns.find((server) => 'literal' in server && familyOf(server.literal) !== familyOf(own));
    return other && 'literal' in other
      ? {
          field: 'dns',
          message: `${formatAddress(other.literal)} is IPv${familyOf(other.literal)}, and an IPv${familyOf(own)} subnet tells its hosts IPv${familyOf(own)} servers; write it at the IPv${familyOf(other.literal)} subnet.`,
        }
      : null;
  },
  title: ({ prefix: network }) => formatPrefix(network),
});
