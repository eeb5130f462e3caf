import { type IpAddress, usableRange } from '../address';
import {
  boxOf,
  derive,
  groupBy,
  type Plan,
  type Address,
  type Cable,
  type Device,
  type Port,
  type Subnet,
  addressesOf,
  addressesOn,
  interfacesOf,
  vlansOf,
} from '../plan';
import { firstFree } from '../rehearse';
import { boxLinks, bridgeAt, fabric } from '../model/switching';
import { type WiredPort, isPassive } from '../model/wiring';

/** The places of a plan where people put things wrong. */

/** An end device plugged into a port of a box, and the cable that is in that port. */
export interface Plugged {
  readonly port: Port;
  readonly device: Device;
  readonly cable: Cable;
}

export const pluggedIn = derive((plan): readonly Plugged[] => {
  const { links, seats } = fabric(plan);
  return [...seats.keys()].flatMap((id) => {
    const port = plan.port.get(id)!;
    return (links.get(id) ?? []).flatMap((link): Plugged[] => {
      const far = plan.port.get(link.to)!;
      const cable = link.cables
        .map((each) => plan.cable.get(each)!)
        .find(({ from, to }) => from === id || to === id);
      return seats.has(link.to) || !cable ? [] : [{ port, device: plan.device.get(far.device)!, cable }];
    });
  });
});

const byBox = derive((plan) => groupBy(pluggedIn(plan), ({ port }) => port.device));
/** What is plugged into the ports of a box. */
export const pluggedAt = (plan: Plan, device: string): readonly Plugged[] => byBox(plan).get(device) ?? [];

/** The end devices on either side of a port: at it, or else anywhere at its box. */
export function nearPort(plan: Plan, port: WiredPort): string[] {
  const there = pluggedAt(plan, port.device);
  const here = there.filter((item) => item.port.id === port.id);
  const near = here.length > 0 ? here : there;
  return near.slice(0, 6).map(({ device }) => device.id);
}

/** The ports of links between boxes, both ends of each. */
export const linkPorts = (plan: Plan): WiredPort[] => boxLinks(plan).flatMap(({ a, b }) => [a, b]);

/** The segments that carry addresses, other than one, nearest in the order of the plan first. */
export const otherSegments = (plan: Plan, vlan: string | null) =>
  vlansOf(plan).filter(({ id, purpose }) => id !== vlan && purpose !== 'parking');

/** An end device with an address of its own. */
export interface Placed {
  readonly device: Device;
  readonly address: Address;
  readonly subnet: Subnet;
}

/** Who lives in the network without passing frames or packets on, each with its first address. */
export const endDevices = derive((plan): readonly Placed[] =>
  [...plan.device.values()].flatMap((device): Placed[] => {
    if (isPassive(device.kind) || device.kind === 'gateway' || bridgeAt(plan, device.id) >= 0) return [];
    if (boxOf(plan, device.id)) return [];
    const address = interfacesOf(plan, device.id).flatMap((item) => addressesOn(plan, item.id))[0];
    return address ? [{ device, address, subnet: plan.subnet.get(address.subnet)! }] : [];
  }),
);

/** The end devices with an address in a subnet. */
export const devicesIn = (plan: Plan, subnet: string): string[] =>
  addressesOf(plan, subnet).map(({ interface: id }) => plan.interface.get(id)!.device);

/** The first address of a subnet that nobody has. */
export const freeIn = (plan: Plan, subnet: Subnet): IpAddress | null => {
  const { first, last } = usableRange(subnet.prefix);
  return firstFree(plan, subnet, { start: first, end: last });
};
