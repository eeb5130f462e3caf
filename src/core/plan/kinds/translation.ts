import { formatPrefix } from '../../address';
import { note, prefix, ref } from './fields';
import { kind } from './kind';

/**
 * A 1:1 translation (RFC 2663 section 4.1.1): the hosts of a subnet are known elsewhere by the addresses of `outside`, of
 * the same size, each by the same place in it.
 */
export const translation = kind({
  word: '1:1 translation',
  about: 'a subnet whose hosts are known elsewhere by other addresses, one to one',
  since: 4,
  table: 'translation',
  fields: {
    device: ref('device', 'removed', 'device'),
    subnet: ref('subnet', 'removed', 'subnet'),
    outside: prefix('known outside as'),
    note: note('note', 120),
  },
  title: ({ outside }) => `1:1 translation to ${formatPrefix(outside)}`,
});
