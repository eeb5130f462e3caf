import { formatAddress } from '../../address';
import { address as addressField, flag, note, oneOf, ref } from './fields';
import { kind, nameOf } from './kind';

/** An address on an interface. */
export const address = kind({
  word: 'address',
  about:
    'an address on an interface: `static`, `reservation` or `virtual`; `gateway` marks the subnet’s gateway',
  since: 1,
  table: 'address',
  bucket: 'subnet',
  indexes: { interface: (record) => record.interface },
  fields: {
    subnet: ref('subnet', 'removed', 'subnet'),
    address: addressField('address'),
    interface: ref('interface', 'removed', 'interface'),
    assignment: oneOf('assignment', ['static', 'reservation', 'virtual']),
    gateway: flag('gateway'),
    note: note('note', 200),
  },
  title: (record, plan) => {
    const item = plan.interface!.get(record.interface) as { readonly device: string } | undefined;
    return `${nameOf(plan, 'device', item?.device, 'address')} ${formatAddress(record.address)}`;
  },
});
