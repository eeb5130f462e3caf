import type { Uplink } from '../../plan';

/** What is recorded of an uplink, as people say it. */

export const addressingWords: Readonly<Record<Uplink['addressing'], string>> = {
  dhcp: 'given by DHCP',
  static: 'set by hand',
  pppoe: 'PPPoE',
};
export const upstreamWords: Readonly<Record<Uplink['upstream'], string>> = {
  modem: 'a modem',
  bridged: 'the provider’s box, bridged',
  routing: 'the provider’s box, routing',
  satellite: 'a satellite terminal',
  mobile: 'a mobile modem',
};
