import * as z from 'zod';
import {
  badInput,
  identities,
  kinds,
  operation,
  rankBetween,
  removeRecord,
  requireOwnName,
} from '../../plan';
import { radiusOf } from '../../model/guards';
import { namesOf } from '../tree/operations';

/** Who is let in at ports: how they ask, whom they ask, and by what devices are known. */

export const addAccess = operation(
  'addAccess',
  z.strictObject({ name: kinds.access.fields.name }),
  (draft, { name }) => {
    requireOwnName(draft.plan, 'access', name);
    draft.insert('access', {
      name,
      mode: 'watch',
      methods: 'dot1x-mac',
      hosts: 'phone-and-one',
      period: 10,
      tries: 2,
      services: [],
      takesVlan: true,
      takesList: false,
      guest: null,
      failed: null,
      critical: null,
      again: null,
      accounting: true,
      group: '',
    });
    return `Way in ${name} added: it watches, and keeps nobody out`;
  },
);

export const addRadius = operation(
  'addRadius',
  z.strictObject({ address: z.string(), group: kinds.radius.fields.group.default('') }),
  (draft, { address: id, group }) => {
    const address = draft.need('address', id);
    const known = radiusOf(draft.plan);
    const { device } = draft.need('interface', address.interface);
    const { name } = draft.need('device', device);
    if (known.some((one) => one.address === id))
      throw badInput(`${name} is asked already; choose another server.`, 'address');
    draft.insert('radius', {
      address: id,
      group,
      port: 1812,
      accounting: 1813,
      change: 3799,
      timeout: 3,
      tries: 3,
      dead: 5,
      tester: '',
      secretSet: null,
      secretKept: '',
      rank: rankBetween(known.at(-1)?.rank ?? null, null),
    });
    return `${name} is asked whom to let in`;
  },
);

/** Says by what devices are known; unknown takes the record away. */
export const setIdentity = operation(
  'setIdentity',
  z.strictObject({
    devices: z.array(z.string()).min(1, 'No device is chosen; choose at least one.').max(1000),
    by: z.enum([...identities, 'unknown']),
  }),
  (draft, { devices, by }) => {
    for (const device of devices) {
      draft.need('device', device);
      const [known] = draft.plan.identity.by('device', device);
      if (by === 'unknown') {
        if (known) draft.remove('identity', known.id);
      } else if (known) draft.update('identity', known.id, { by });
      else draft.insert('identity', { device, by });
    }
    const said = { dot1x: '802.1X', mac: 'the MAC address', neither: 'nothing', unknown: 'not recorded' }[by];
    return `${namesOf(draft, devices)}: known by ${said}`;
  },
);

const removable = ['access', 'radius'] as const;
export const removeFromAccess = operation(
  'removeFromAccess',
  z.strictObject({ table: z.enum(removable), ids: z.array(z.string()).min(1).max(1000) }),
  (draft, { table, ids }) => {
    const titles = ids.map((id) => kinds[table].title(draft.need(table, id) as never, draft.plan as never));
    for (const id of ids) removeRecord(draft, { table, id });
    return `${titles.join(', ')} removed`;
  },
);
