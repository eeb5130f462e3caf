import { flag, ref } from './fields';
import { deviceName, kind, nameOf } from './kind';

/** What a box guards in a segment; none where there is no record. One to a box and a segment. */
export const vlanGuard = kind({
  word: 'guard of a segment',
  about:
    'what a box guards in a segment: answers of DHCP servers, ARP, senders, router advertisements, answers of DHCPv6',
  since: 9,
  table: 'vlan_guard',
  bucket: 'device',
  fields: {
    device: ref('device', 'removed', 'device'),
    vlan: ref('vlan', 'removed', 'segment'),
    /** Drops what only a DHCP server says at ports that are not trusted, and remembers who was leased what. */
    snooping: flag('DHCP snooping'),
    /** Drops ARP at ports that are not trusted when it fits no binding. */
    inspection: flag('ARP inspection'),
    /** Drops IPv4 at ports that are not trusted when its sender fits no binding. */
    sourceGuard: flag('source guard'),
    /** Drops IPv6 at ports that are not trusted when its sender fits no binding (RFC 7513). */
    sourceGuard6: flag('IPv6 source guard', { column: 'source_guard_6', since: 11 }).default(false),
    /** Drops router advertisements at ports that are not trusted (RFC 6105). */
    raGuard: flag('RA guard'),
    /** Drops what only a DHCPv6 server says at ports that are not trusted (RFC 7610). */
    dhcp6Guard: flag('DHCPv6 guard'),
    /** Writes into requests by which port they came (RFC 3046). */
    option82: flag('option 82'),
  },
  title: ({ device, vlan }, plan) =>
    `guards of ${nameOf(plan, 'vlan', vlan, 'a segment')} at ${deviceName(plan, device)}`,
});
