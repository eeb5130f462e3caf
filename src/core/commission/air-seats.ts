import { type Plan, derive, portTitle } from '../plan';
import { namesOn } from '../model/wireless';
import type { Bridge, WiredPort } from '../model/wiring';

/** Wireless networks to sit at: whoever joins one is in its segment at that access point, as if at a socket of it. */

export interface AirSeat {
  /** Stands where the id of a port stands. */
  readonly id: string;
  readonly device: string;
  readonly ssid: string;
  readonly vid: number;
}

const seats = derive((plan): ReadonlyMap<string, AirSeat> => {
  const found = new Map<string, AirSeat>();
  for (const radio of plan.radio.values())
    for (const { id: ssid, vlan, portal } of namesOn(plan, radio)) {
      const { device } = radio;
      // Behind a portal nobody gets on before a page was read.
      if (vlan === null || portal) continue;
      const id = `w${device.slice(-15)}${ssid.slice(-15)}`;
      found.set(id, { id, device, ssid, vid: plan.vlan.get(vlan)!.vid });
    }
  return found;
});

/** The wireless networks of all access points. */
export const airSeats = (plan: Plan): readonly AirSeat[] => [...seats(plan).values()];
/** One of them; undefined for a socket. */
export const airSeatOf = (plan: Plan, id: string): AirSeat | undefined => seats(plan).get(id);

/** Is it no socket but a wireless network? */
export const isOnAir = ({ number }: { readonly number: number }): boolean => number < 0;

/** A box with its wireless networks beside its ports. */
export function withAir(bridge: Bridge, all: readonly AirSeat[]): readonly WiredPort[] {
  const [like] = bridge.ports;
  return [
    ...bridge.ports,
    ...all.map(({ id }, i): WiredPort => ({ ...like!, id, number: -1 - i, role: 'access' })),
  ];
}

/** Where somebody sits, by name; the plan may not have it any more. */
export function socketTitle(plan: Plan, id: string): string {
  const port = plan.port.get(id);
  if (port) return portTitle(plan, port);
  const network = airSeatOf(plan, id);
  return network
    ? `wireless network ${plan.ssid.get(network.ssid)!.name}, ${plan.device.get(network.device)!.name}`
    : 'a port that is no longer planned';
}
/** The box that somebody sits at. */
export const boxAt = (plan: Plan, socket: string): string =>
  plan.port.get(socket)?.device ?? airSeatOf(plan, socket)!.device;
