import * as z from 'zod';
import { type Band, type Draft, badInput, bands, kinds, operation } from '../../plan';
import { type Setting, networksAt, proposeChannels, radiosOf, spotOf } from '../../model/wireless';
import { innerPort } from '../../model/wiring';
import { hearInside } from '../hosts/network-interface';
import { carryEverywhere } from '../gear/carry';

/** Radios of access points, where they hang, and the channels of all of them. */

const fields = kinds.radio.fields;

/** A radio as it comes: it chooses its channel for itself, narrow at 2.4 GHz. */
const newRadio = (device: string, band: Band) => ({
  device,
  band,
  enabled: true,
  channel: null,
  width: band === '2.4' ? ('20' as const) : ('40' as const),
  power: null,
  interval: 100,
  kept: false,
});

/** Gives devices radios in bands they have none in yet. */
export const addRadios = operation(
  'addRadios',
  z.strictObject({ devices: z.array(z.string()).min(1).max(1000), bands: z.array(z.enum(bands)).min(1) }),
  (draft, { devices, bands: wanted }) => {
    let added = 0;
    for (const id of devices) {
      draft.need('device', id);
      const known = radiosOf(draft.plan, id).map(({ band }) => band);
      for (const band of wanted)
        if (!known.includes(band)) {
          draft.insert('radio', newRadio(id, band));
          added++;
        }
    }
    if (added === 0) throw badInput('They have radios in these bands already.', 'bands');
    return added === 1 ? `A radio added` : `${added} radios added`;
  },
);

const settingSchema = z.strictObject({
  radio: z.string(),
  channel: fields.channel,
  width: fields.width,
  power: fields.power,
});

function set(draft: Draft, settings: readonly z.output<typeof settingSchema>[]): number {
  let changed = 0;
  for (const { radio: id, channel, width, power } of settings) {
    const radio = draft.need('radio', id);
    if (radio.channel === channel && radio.width === width && radio.power === power) continue;
    draft.update('radio', id, { channel, width, power });
    changed++;
  }
  return changed;
}

/** Sets channels, widths and powers as a proposal says. */
export const setChannels = operation(
  'setChannels',
  z.strictObject({ settings: z.array(settingSchema).min(1).max(2000) }),
  (draft, { settings }) => {
    const changed = set(draft, settings);
    if (changed === 0) throw badInput('The radios are set like this already.', 'settings');
    return changed === 1 ? 'Channels: 1 radio changed' : `Channels: ${changed} radios changed`;
  },
);

/** Works channels out and sets them, for those who do not look at the proposal first. */
export const planChannels = operation(
  'planChannels',
  z.strictObject({
    band: z.enum(bands).nullable().default(null),
    widths: z.boolean().default(false),
    powers: z.boolean().default(false),
  }),
  (draft, { band, widths, powers }) => {
    const proposals = proposeChannels(draft.plan, { band, widths, powers });
    const settings: Setting[] = proposals.flatMap((one) => [...one.settings]);
    const changed = set(draft, settings);
    if (changed === 0) throw badInput('No other channels disturb less than those that are set.', 'band');
    return `Channels planned: ${changed} ${changed === 1 ? 'radio' : 'radios'} changed`;
  },
);

/** Hangs a device somewhere, or elsewhere. */
export const setSpot = operation(
  'setSpot',
  z.strictObject({ ...kinds.spot.fields, outdoors: kinds.spot.fields.outdoors.default(false) }),
  (draft, { device: id, ...where }) => {
    const device = draft.need('device', id);
    const known = spotOf(draft.plan, id);
    if (known) draft.update('spot', known.id, where);
    else draft.insert('spot', { device: id, ...where });
    const metres = (cm: number) => (cm / 100).toFixed(1);
    return `${device.name}: floor ${where.floor}, ${metres(where.x)} m right, ${metres(where.y)} m down`;
  },
);

export const addWall = operation('addWall', z.strictObject(kinds.wall.fields), (draft, wall) => {
  if (wall.fromX === wall.toX && wall.fromY === wall.toY)
    throw badInput('A wall needs two different ends.', 'toX');
  draft.insert('wall', wall);
  return `A wall of ${wall.loss} dB on floor ${wall.floor}`;
});

/** Everything the wired side needs so that an access point’s networks get through: its inside, and the trunks on the way. */
export const carryNetworks = operation(
  'carryNetworks',
  z.strictObject({ device: z.string() }),
  (draft, input) => {
    const device = draft.need('device', input.device);
    const vlans = [...new Set(networksAt(draft.plan, device.id).flatMap(({ vlan }) => vlan ?? []))];
    const inner = innerPort(draft.plan, device.id);
    if (!inner)
      throw badInput(`The ports of ${device.name} are not recorded; choose its model first.`, 'device');
    let changed = 0;
    for (const vlan of vlans) {
      if (hearInside(draft, device.id, vlan)) changed++;
      changed += carryEverywhere(draft, vlan).length;
    }
    if (changed === 0) throw badInput(`What ${device.name} sends is carried to it already.`, 'device');
    return `${device.name}: its networks are carried to it`;
  },
);
