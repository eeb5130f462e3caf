import type { IpAddress } from '../../address';
import {
  memo,
  groupBy,
  type Collection,
  type Plan,
  type Device,
  type Forward,
  type Interface,
  type Listener,
  type Uplink,
  badInput,
  addressesOn,
  interfacesOf,
} from '../../plan';
import { deviceMeant } from '../hosts';

const inOrder = memo((uplinks: Collection<Uplink>) =>
  [...uplinks.values()].sort(
    (a, b) =>
      a.tier - b.tier || a.name.localeCompare(b.name, undefined, { numeric: true }) || (a.id < b.id ? -1 : 1),
  ),
);
/** The uplinks in the order they are used: by tier, then by name. */
export const uplinksOf = (plan: Plan): readonly Uplink[] => inOrder(plan.uplink);

const byUplink = memo((forwards: Collection<Forward>) =>
  groupBy(
    [...forwards.values()].sort((a, b) => a.from - b.from || (a.id < b.id ? -1 : 1)),
    (forward) => forward.uplink,
  ),
);
/** The forwards of an uplink by outside port. */
export const forwardsOf = (plan: Plan, uplink: string): readonly Forward[] =>
  byUplink(plan.forward).get(uplink) ?? [];

/** What a device listens on, by port. */
export const listenersOf = (plan: Plan, device: string): readonly Listener[] =>
  [...plan.listener.group(device).values()].sort((a, b) => a.port - b.port || (a.id < b.id ? -1 : 1));

/** The IPv4 address a forward leads to; null where its device has none, and the forward is as if it were not there. */
export const forwardedTo = (plan: Plan, { target }: Forward): IpAddress | null =>
  addressesOn(plan, target).find(({ address }) => typeof address === 'number')?.address ?? null;

/** The device a forward leads to. */
export const targetOf = (plan: Plan, forward: Forward): Device =>
  plan.device.get(plan.interface.get(forward.target)!.device)!;

/** The network card a person means by a device's name: the first that has an address. */
export function cardNamed(plan: Plan, text: string): Interface {
  const device = deviceMeant(plan, text, 'target', ({ id }) => interfacesOf(plan, id).length > 0);
  if (!device)
    throw badInput(
      text.trim() === ''
        ? 'No device is named; write its host name.'
        : `There is no device “${text.trim()}” in this site.`,
      'target',
    );
  const cards = interfacesOf(plan, device.id);
  const card = cards.find((item) => addressesOn(plan, item.id).length > 0) ?? cards[0];
  if (!card) throw badInput(`${device.name} has no address; give it one under Addresses first.`, 'target');
  return card;
}
