import * as z from 'zod';
import {
  type Draft,
  NAME_OCTETS,
  type Ssid,
  TOO_LONG,
  badInput,
  kinds,
  octetsOf,
  operation,
  putBehind,
  rankBetween,
  removeRecord,
} from '../../plan';
import { accessPoints, isMeantFor, sentBy, ssidsOf } from '../../model/wireless';

/** Wireless networks: what is on the air, where it leads and on which access points. */

const fields = kinds.ssid.fields;

/** A name as it may be; letters with marks take more octets than one. */
function fitting(name: string): string {
  if (octetsOf(name) > NAME_OCTETS) throw badInput(`“${name}”: ${TOO_LONG}.`, 'name');
  return name;
}

const lastRank = (draft: Draft): string => rankBetween(ssidsOf(draft.plan).at(-1)?.rank ?? null, null);

export const addSsid = operation(
  'addSsid',
  z.strictObject({
    name: fields.name,
    vlan: z.string().nullable().default(null),
    security: fields.security.default('wpa2-wpa3-personal'),
  }),
  (draft, { name, vlan: id, security }) => {
    const vlan = id === null ? null : draft.need('vlan', id);
    if (ssidsOf(draft.plan).some((other) => other.name === name && other.on.length === 0))
      throw badInput(`There is a network “${name}” already; give this one another name.`, 'name');
    const ssid = draft.insert('ssid', {
      name: fitting(name),
      vlan: id,
      security,
      // 6 GHz takes no network that WPA2 can still join.
      bands: security.startsWith('wpa3') || security === 'owe' ? ['2.4', '5', '6'] : ['2.4', '5'],
      isolated: vlan?.purpose === 'guest',
      portal: false,
      hidden: false,
      schedule: '',
      minimumRate: '12',
      cannotWait: false,
      keySet: null,
      keyKept: '',
      on: [],
      rank: lastRank(draft),
    });
    return `${ssid.name} on the air${vlan ? `, into ${vlan.vid} ${vlan.code}` : ''}`;
  },
);

/** Moves a network behind another; to the top with null. */
export const moveSsid = operation(
  'moveSsid',
  z.strictObject({ ssid: z.string(), after: z.string().nullable() }),
  (draft, { ssid: id, after }) => {
    const ssid = draft.need('ssid', id);
    putBehind(draft, 'ssid', ssidsOf(draft.plan), id, after);
    return `${ssid.name} moved`;
  },
);

/** Takes a network off one access point and leaves it on the others. */
export const takeOffAir = operation(
  'takeOffAir',
  z.strictObject({ ssid: z.string(), device: z.string() }),
  (draft, input) => {
    const ssid = draft.need('ssid', input.ssid);
    const device = draft.need('device', input.device);
    const others = accessPoints(draft.plan)
      .filter(({ id }) => id !== device.id && isMeantFor(ssid, id))
      .map(({ id }) => id);
    if (others.length === 0)
      throw badInput(
        `${ssid.name} is on no other access point; remove the network, or switch it off by its bands.`,
        'device',
      );
    draft.update('ssid', ssid.id, { on: others });
    return `${ssid.name} no longer at ${device.name}`;
  },
);

/** Gives a network a name of its own at every access point, so that one sees at which one is. */
export const nameEachBox = operation(
  'nameEachBox',
  z.strictObject({ ssid: z.string() }),
  (draft, { ssid: id }) => {
    const ssid = draft.need('ssid', id);
    const at = sentBy(draft.plan, ssid);
    if (at.length < 2) throw badInput(`${ssid.name} is at one access point only.`, 'ssid');
    const { id: _id, ...same } = ssid;
    at.forEach((device, i) => {
      const named = { name: fitting(`${ssid.name} ${device.name}`), on: [device.id] };
      if (i === 0) draft.update('ssid', id, named);
      else draft.insert('ssid', { ...same, ...named, rank: lastRank(draft) });
    });
    return `${ssid.name}: a name for each of ${at.length} access points`;
  },
);

/** Makes one network of several that lead to the same segment: under one name people roam. */
export const joinNames = operation(
  'joinNames',
  z.strictObject({ ssid: z.string(), others: z.array(z.string()).min(1) }),
  (draft, { ssid: id, others }) => {
    const ssid = draft.need('ssid', id);
    const joined: Ssid[] = others.map((other) => draft.need('ssid', other));
    const wrong = joined.find(({ vlan, security }) => vlan !== ssid.vlan || security !== ssid.security);
    if (wrong)
      throw badInput(`${wrong.name} leads elsewhere or is secured otherwise than ${ssid.name}.`, 'others');
    const all = [ssid, ...joined];
    const on = all.some((one) => one.on.length === 0) ? [] : [...new Set(all.flatMap((one) => one.on))];
    draft.update('ssid', id, { on });
    for (const card of [...draft.plan.interface.values()])
      if (card.joins !== null && others.includes(card.joins))
        draft.update('interface', card.id, { joins: id });
    for (const other of others) removeRecord(draft, { table: 'ssid', id: other });
    return `${ssid.name}: one name for ${joined.map(({ name }) => name).join(', ')} too`;
  },
);

/** What is kept of the air and may simply go. */
const removable = ['ssid', 'radio', 'spot', 'wall', 'level', 'foreignSsid'] as const;

export const removeFromAir = operation(
  'removeFromAir',
  z.strictObject({ table: z.enum(removable), ids: z.array(z.string()).min(1).max(2000) }),
  (draft, { table, ids }) => {
    for (const id of ids) draft.need(table, id);
    for (const id of ids) removeRecord(draft, { table, id });
    const { word } = kinds[table];
    return ids.length === 1 ? `A ${word} removed` : `${ids.length} ${word}s removed`;
  },
);
