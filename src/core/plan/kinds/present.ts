import { address, oneOf, ref, whole } from './fields';
import { deviceName, kind } from './kind';

export const presentStates = ['as-it-comes', 'as-found', 'as-planned'] as const;

/** How a box is before work begins; one to a device. Nobody having said so, it is as it comes. */
export const present = kind({
  word: 'present state',
  about:
    'how a box is before work begins: as it comes or as found, with its address, or as planned at a change',
  since: 12,
  table: 'present_state',
  indexes: { device: ({ device }) => device },
  fields: {
    device: ref('device', 'removed', 'device'),
    state: oneOf('present state', presentStates, { column: 'box_state' }),
    /** Null: nobody looked it up. */
    address: address('address it comes with').nullable(),
    length: whole('mask it comes with', 8, 30, { said: 'The mask length', column: 'mask_length' }),
    /** The change of this site as of which it is as planned; null: as it is planned now. */
    asOf: whole('as planned at change', 0, 2_000_000_000, { column: 'as_of', since: 13 })
      .nullable()
      .default(null),
  },
  title: ({ device }, plan) => `present state of ${deviceName(plan, device)}`,
});
