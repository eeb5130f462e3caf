import { formatPrefix } from '../../address';
import { address, note, prefix, ref } from './fields';
import { kind } from './kind';

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
  title: ({ prefix: network }) => `route to ${formatPrefix(network)}`,
});
