import { type IpAddress, contains } from '../../address';
import {
  type Call,
  type Device,
  type Interface,
  type Plan,
  type Subnet,
  type TableName,
  devicesNamed,
} from '../../plan';
import type { Sighting } from './sighting';
import type { FoundList } from './sniff';

/** A line of what the site shows, put beside what is planned. */

export const foundVerdicts = [
  'second server',
  'address of another',
  'other segment',
  'other port',
  'other network',
  'in the pool',
  'other address',
  'unknown',
  'not recorded',
  'as planned',
] as const;
export type FoundVerdict = (typeof foundVerdicts)[number];

export interface FoundRow {
  /** The same for the same thing found again. */
  readonly key: string;
  readonly verdict: FoundVerdict;
  /** Which device it is, as it is called in the plan or on the site. */
  readonly who: string;
  readonly found: string;
  readonly planned: string;
  /** In one sentence, as a defect is written down. */
  readonly sentence: string;
  /** Takes it into the plan; null where it is to be mended on the site. */
  readonly take: { readonly title: string; readonly call: Call } | null;
  readonly about: { readonly table: TableName; readonly id: string } | null;
}

/** A list with the box it was read at, where it was one. */
export interface FoundAt extends FoundList {
  readonly box: string | null;
}

/** A sighting with what else is known when it is compared. */
export interface Seen {
  readonly plan: Plan;
  readonly list: FoundAt;
  readonly sighting: Sighting;
  /** What the list calls it. */
  readonly who: string;
  /** Who has a lease, by MAC and address, and the subnets whose leases were read. */
  readonly leases: { readonly held: ReadonlySet<string>; readonly of: ReadonlySet<string> };
}

export const leaseKey = ({ mac, address }: Pick<Sighting, 'mac' | 'address'>): string => `${mac} ${address}`;

/** The smallest planned subnet that holds an address. */
export const subnetHolding = (plan: Plan, address: IpAddress): Subnet | undefined =>
  [...plan.subnet.values()]
    .filter(({ prefix }) => contains(prefix, address))
    .sort((a, b) => b.prefix.length - a.prefix.length)[0];

export function rowOf(
  { sighting, who }: Seen,
  verdict: FoundVerdict,
  fields: Omit<FoundRow, 'key' | 'verdict' | 'who'> & { readonly who?: string },
): FoundRow {
  const { mac, address, port, box, server } = sighting;
  const key = [verdict, mac, address, port, box, server].join(' ');
  return { who, ...fields, key, verdict };
}

export function asPlanned(seen: Seen, card: Interface, text: string): FoundRow {
  const device = seen.plan.device.get(card.device)!;
  return rowOf(seen, 'as planned', {
    who: device.name,
    found: text,
    planned: text,
    sentence: `${device.name} is at ${text}, as planned.`,
    take: null,
    about: { table: 'device', id: device.id },
  });
}

/** The box at which it was seen. */
export function boxSeenAt({ plan, sighting, list }: Seen): Device | undefined {
  if (sighting.box !== '') return devicesNamed(plan, sighting.box)[0];
  return list.box === null ? undefined : plan.device.get(list.box);
}
