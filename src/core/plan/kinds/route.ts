import {
  type IpAddress,
  type Prefix,
  familyOf,
  formatAddress,
  formatPrefix,
  prefixFamily,
} from '../../address';
import { address, note, prefix, ref } from './fields';
import { kind } from './kind';

/** Why packets for a network cannot be sent to a router; null where they can. */
export const notRouted = (network: Prefix, via: IpAddress): string | null =>
  prefixFamily(network) === familyOf(via)
    ? null
    : `${formatAddress(via)} is IPv${familyOf(via)}, and ${formatPrefix(network)} is IPv${prefixFamily(network)}: write the IPv${prefixFamily(network)} address of the next router.`;

/** A network a router does not stand in, and the next router on the way to it. */
export const route = kind({
  word: 'route',
  about: 'a network a router does not stand in, and the next router on the way',
  since: 4,
  table: 'static_route',
  fields: {
    device: ref('device', 'removed', 'device'),
    prefix: prefix('prefix'),
    via: address('next router'),
    note: note('note', 120),
  },
  refused: ({ prefix: network, via }) => {
    const message = notRouted(network, via);
    return message === null ? null : { field: 'via', message };
  },
  title: ({ prefix: network }) => `route to ${formatPrefix(network)}`,
});
