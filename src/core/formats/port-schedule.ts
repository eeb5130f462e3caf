import { leadsTo, cablesAt, isPassive, portsOf, scheduledText } from '../model/wiring';
import { type Plan, type Box, type Device, type Port, addressesOn, interfacesOf, portTitle } from '../plan';
import { formatAddress } from '../address';
import { csvText } from './csv';

/** The port schedule: what an installer tapes beside each box, port by port as printed on the case. */
export interface BoxBlock {
  readonly device: Device;
  readonly box: Box;
  /** Where it is reached, empty when nobody recorded that. */
  readonly addresses: readonly string[];
  readonly ports: readonly PortLine[];
  /** Does any port have a name or an index inside that differs from its number on the case? */
  readonly mapped: boolean;
}

export interface PortLine {
  readonly port: Port;
  /** As printed on the case; "inside" for the inner port. */
  readonly number: string;
  readonly carries: string;
  readonly leadsTo: string;
  readonly cable: string;
}

/** What a panel's port joins: "front sw-a 31, rear printer-01 1". */
const joined = (plan: Plan, port: Port): string =>
  (['front', 'rear'] as const)
    .flatMap((side) =>
      cablesAt(plan, { port: port.id, side }).map((cable) => {
        const other = plan.port.get(
          cable.from === port.id && cable.fromSide === side ? cable.to : cable.from,
        )!;
        return `${side} ${portTitle(plan, other)}`;
      }),
    )
    .join(', ');

function lineOf(plan: Plan, port: Port, passive: boolean): PortLine {
  const sides = passive ? (['front', 'rear'] as const) : (['front'] as const);
  const cable = sides
    .flatMap((side) => cablesAt(plan, { port: port.id, side }))
    .map(({ label, media, length }) =>
      [label, media.replaceAll('-', ' '), length === null ? '' : `${length} m`].filter(Boolean).join(' '),
    );
  return {
    port,
    number: port.number === 0 ? 'inside' : String(port.number),
    carries: scheduledText(plan, port),
    leadsTo: passive ? joined(plan, port) : leadsTo(plan, port),
    cable: cable.join(', '),
  };
}

const placeOf = (box: Box) => [box.location, box.mounting].filter(Boolean).join(', ');

/** One block for each box, by location and name, so that one sheet goes to one place. */
export function portScheduleOf(plan: Plan): BoxBlock[] {
  return [...plan.box.values()]
    .map((box): BoxBlock => {
      const device = plan.device.get(box.device)!;
      const ports = portsOf(plan, device.id);
      const items = interfacesOf(plan, device.id);
      return {
        device,
        box,
        addresses: items
          .flatMap((item) => addressesOn(plan, item.id))
          .map(({ address }) => formatAddress(address)),
        ports: ports.map((port) => lineOf(plan, port, isPassive(device.kind))),
        mapped: ports.some((port) => port.name !== '' || (port.index !== null && port.index !== port.number)),
      };
    })
    .sort(
      (a, b) =>
        placeOf(a.box).localeCompare(placeOf(b.box)) ||
        a.device.name.localeCompare(b.device.name, undefined, { numeric: true }),
    );
}

export const boxPlace = ({ box }: BoxBlock): string => placeOf(box);

export const portHead = [
  'box',
  'model',
  'location',
  'port',
  'name in the configuration',
  'index inside',
  'carries',
  'leads to',
  'cable',
  'label',
];

export const portRows = (plan: Plan): string[][] =>
  portScheduleOf(plan).flatMap((block) =>
    block.ports.map(({ port, number, carries, leadsTo: to, cable }) => [
      block.device.name,
      block.box.model,
      boxPlace(block),
      number,
      port.name,
      port.index === null ? '' : String(port.index),
      carries,
      to,
      cable,
      port.label,
    ]),
  );

/** The port schedule as one CSV table; its columns box, port, carries and label are read back by pasting. */
export const portScheduleCsv = (plan: Plan): string => csvText([portHead, ...portRows(plan)]);
