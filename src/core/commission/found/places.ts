import {
  type Call,
  type Device,
  type Interface,
  type Plan,
  type Port,
  addressesOn,
  boxOf,
  deriveBy,
  portTitle,
} from '../../plan';
import { isPassive, portsOf } from '../../model/wiring';
import { behind } from '../../rehearse';
import { type FoundRow, type Seen, boxSeenAt, rowOf } from './row';

/** At which port and in which VLAN a MAC address shows, against where it should. */

/** The port of a box by what a list calls it: by its label, else by the number that stands last. */
function portOf(plan: Plan, device: string, text: string): Port | undefined {
  const number = Number(/(\d+)\D*$/.exec(text)?.[1] ?? Number.NaN);
  const sockets = portsOf(plan, device)
    .map(({ id }) => plan.port.get(id)!)
    .filter((port) => port.number > 0);
  return (
    sockets.find(({ label }) => label.toLowerCase() === text.toLowerCase()) ??
    sockets.find((port) => port.number === number)
  );
}

/** By device: the ports of a box that it hangs behind. A MAC table asks this for each of its rows. */
const portsTo = deriveBy((plan, box: string): ReadonlyMap<string, readonly Port[]> => {
  const ports = new Map<string, Port[]>();
  for (const { id } of portsOf(plan, box)) {
    const port = plan.port.get(id)!;
    if (port.number > 0)
      for (const device of behind(plan, port)) ports.set(device, [...(ports.get(device) ?? []), port]);
  }
  return ports;
});

/** Where a MAC address shows at a box, and in which VLAN. */
export function placeRows(seen: Seen, cards: readonly Interface[]): FoundRow[] {
  const { plan } = seen;
  const { port: portText, vid } = seen.sighting;
  const box = boxSeenAt(seen);
  const port = box && portText !== '' ? portOf(plan, box.id, portText) : undefined;
  const [card] = cards;
  if (!card) {
    if (!port || seen.sighting.address !== null || leadsOn(plan, port)) return [];
    return [
      rowOf(seen, 'unknown', {
        found: portTitle(plan, port),
        planned: 'nobody',
        sentence: `${seen.who} shows at ${portTitle(plan, port)} and is not in the plan.`,
        take: null,
        about: { table: 'port', id: port.id },
      }),
    ];
  }
  const device = plan.device.get(card.device)!;
  return [...wrongVlan(seen, device, card, vid), ...(port ? wrongPort(seen, device, port) : [])];
}

/** Does more hang on it than one device? */
const leadsOn = (plan: Plan, port: Port): boolean =>
  behind(plan, port).some((id) => boxOf(plan, id) !== undefined);

function wrongVlan(seen: Seen, device: Device, card: Interface, vid: number | null): FoundRow[] {
  const { plan } = seen;
  const vlans = [
    ...(card.vlan === null ? [] : [plan.vlan.get(card.vlan)!]),
    ...addressesOn(plan, card.id).map(({ subnet }) => plan.vlan.get(plan.subnet.get(subnet)!.vlan)!),
  ];
  if (vid === null || vlans.length === 0 || vlans.some((vlan) => vlan.vid === vid)) return [];
  const [home] = vlans;
  return [
    rowOf(seen, 'other segment', {
      who: device.name,
      found: `VLAN ${vid}`,
      planned: `VLAN ${home!.vid} ${home!.name}`,
      sentence: `${device.name} shows in VLAN ${vid}; planned is VLAN ${home!.vid} ${home!.name}.`,
      take: null,
      about: { table: 'device', id: device.id },
    }),
  ];
}

function wrongPort(seen: Seen, device: Device, port: Port): FoundRow[] {
  const { plan } = seen;
  const about = { table: 'port', id: port.id } as const;
  const expected = portsTo(plan, port.device).get(device.id) ?? [];
  const title = portTitle(plan, port);
  if (device.id === port.device || expected.some(({ id }) => id === port.id))
    return [
      rowOf(seen, 'as planned', {
        who: device.name,
        found: title,
        planned: title,
        sentence: `${device.name} shows at ${title}, as planned.`,
        take: null,
        about,
      }),
    ];
  const planned = expected.map((own) => portTitle(plan, own)).join(' or ');
  const direct = !boxOf(plan, device.id) && !leadsOn(plan, port) && !isPassive(device.kind);
  return [
    rowOf(seen, expected.length > 0 ? 'other port' : 'not recorded', {
      who: device.name,
      found: title,
      planned: planned || 'no cable leads there',
      sentence: planned
        ? `${device.name} shows at ${title}; by plan it is at ${planned}.`
        : `${device.name} shows at ${title}; no cable of it is in the plan.`,
      // Behind a port that leads on it may be anywhere.
      take: direct
        ? {
            title: `Plug ${device.name} into ${title}`,
            call: {
              operation: 'plugDevice',
              input: { device: device.id, into: { device: port.device, number: port.number } },
            } as Call,
          }
        : null,
      about,
    }),
  ];
}
