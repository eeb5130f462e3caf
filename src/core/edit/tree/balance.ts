import * as z from 'zod';
import { type Plan, siteOf, type Vlan, operation, badInput, vlansOf } from '../../plan';
import { carryEverywhere } from '../gear/carry';
import { namesOf, setBridgeFields } from './operations';
import { formatVids, instancesOf } from '../../model/tree';

/** VLANs shared out between two instances, so that each link of a pair carries about half of the devices. */
export interface Shares {
  readonly first: readonly Vlan[];
  readonly second: readonly Vlan[];
}

/** The larger segments first, each to the half that has fewer devices so far; parking needs no way. */
export function halvesOf(plan: Plan): Shares {
  const first: Vlan[] = [];
  const second: Vlan[] = [];
  const weight = (half: readonly Vlan[]) => half.reduce((sum, { devices }) => sum + devices, 0);
  for (const vlan of [...vlansOf(plan)]
    .filter(({ purpose }) => purpose !== 'parking')
    .sort((a, b) => b.devices - a.devices || a.vid - b.vid))
    (weight(first) <= weight(second) ? first : second).push(vlan);
  return { first, second };
}

const vidsOf = (half: readonly Vlan[]): string => formatVids(half.map(({ vid }) => vid));

/**
 * MST with two instances whose roots are two boxes side by side (IEEE 802.1Q-2022 clause 13): whoever hangs on both uses one
 * link for one half of the VLANs and the other for the rest, and either for all when one fails.
 */
export const balanceInstances = operation(
  'balanceInstances',
  z.strictObject({
    devices: z.array(z.string()).min(2, 'Two boxes at least share out the VLANs; choose more.'),
    primary: z.string(),
    secondary: z.string(),
  }),
  (draft, { devices, primary, secondary }) => {
    if (primary === secondary)
      throw badInput('The two roots must be two boxes; choose another.', 'secondary');
    for (const root of [primary, secondary])
      if (!devices.includes(root))
        throw badInput(`${draft.need('device', root).name} is not among the boxes.`, 'devices');
    const { first, second } = halvesOf(draft.plan);
    if (second.length === 0)
      throw badInput('There are too few segments to share out; two are needed.', 'devices');
    const region = siteOf(draft.plan).name.slice(0, 32);
    const rank = (device: string, [one, two]: readonly [string, string]) =>
      device === one ? 4096 : device === two ? 8192 : 32_768;
    for (const device of devices) {
      for (const { id } of instancesOf(draft.plan, device)) draft.remove('instance', id);
      const common = rank(device, [primary, secondary]);
      setBridgeFields(draft, device, { mode: 'mst', region, revision: 1, priority: common });
      draft.insert('instance', { device, number: 1, vids: vidsOf(first), priority: common });
      draft.insert('instance', {
        device,
        number: 2,
        vids: vidsOf(second),
        priority: rank(device, [secondary, primary]),
      });
    }
    for (const { id } of vlansOf(draft.plan)) carryEverywhere(draft, id);
    return `${namesOf(draft, devices)}: MST, VLAN ${vidsOf(first)} by ${draft.need('device', primary).name}, VLAN ${vidsOf(second)} by ${draft.need('device', secondary).name}`;
  },
);
