import { type Prefix, formatPrefix, prefixFamily } from '../../address';
import { note, prefix, ref } from './fields';
import { kind } from './kind';

/** Why two networks cannot stand for one another, place by place; null where they can. */
export const notOneToOne = (inside: Prefix, outside: Prefix): string | null =>
  inside.length === outside.length && prefixFamily(inside) === prefixFamily(outside)
    ? null
    : `${formatPrefix(outside)} has not the size of ${formatPrefix(inside)}: one to one needs a /${inside.length} of IPv${prefixFamily(inside)}.`;

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
  refused: ({ subnet, outside }, plan) => {
    const message = notOneToOne((plan.subnet!.get(subnet) as { readonly prefix: Prefix }).prefix, outside);
    return message === null ? null : { field: 'outside', message };
  },
  title: ({ outside }) => `1:1 translation to ${formatPrefix(outside)}`,
});
