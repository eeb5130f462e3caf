import type { VlanGuards } from '@/core/model/guards';

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

export const purposeWords = {
  asking: 'asking',
  accounting: 'accounting',
  change: 'change',
} as const;
