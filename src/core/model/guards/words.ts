import type { VlanGuards } from './records';

/** What a way in is told, as people say it. */

export const accessWords = {
  watch: 'watches, keeps nobody out',
  limited: 'only what is listed passes before',
  closed: 'nothing passes before',
} as const;
export const methodWords = {
  dot1x: '802.1X',
  'dot1x-mac': '802.1X, then the MAC address',
  'mac-dot1x': 'the MAC address, then 802.1X',
  mac: 'the MAC address',
} as const;
export const hostWords = {
  one: 'one device',
  'phone-and-one': 'a telephone and one device',
  each: 'each device for itself',
  all: 'all once one is let in',
} as const;

/** What each guard is called, short for the head of a table and long for a sentence. */
export const guardWords: readonly {
  readonly guard: keyof VlanGuards;
  readonly short: string;
  readonly about: string;
}[] = [
  { guard: 'snooping', short: 'DHCP', about: 'DHCP snooping: only trusted ports may answer clients' },
  {
    guard: 'inspection',
    short: 'ARP',
    about: 'ARP inspection: an address is believed only with its binding',
  },
  { guard: 'sourceGuard', short: 'Source', about: 'source guard: packets pass only with a binding' },
  { guard: 'raGuard', short: 'RA', about: 'RA guard: only trusted ports may announce a router (RFC 6105)' },
  { guard: 'dhcp6Guard', short: 'DHCPv6', about: 'DHCPv6 guard: only trusted ports may answer (RFC 7610)' },
  {
    guard: 'sourceGuard6',
    short: 'Src v6',
    about: 'IPv6 source guard: packets pass only with a binding (RFC 7513)',
  },
  { guard: 'option82', short: 'Opt. 82', about: 'option 82: requests name the port they came by (RFC 3046)' },
];
