import {
  type Device,
  type Hardening,
  type HardeningItem,
  type Plan,
  addressesOn,
  boxOf,
  hardeningItems,
  interfacesOf,
} from '../../plan';
import { boxesInOrder } from '../switching';

/** Which points of the hardening list are for which box, and what is ticked. */

/** Boxes with settings of their own: what understands no VLANs and has no address has none. */
export const hardenable = (plan: Plan): Device[] =>
  boxesInOrder(plan)
    .filter(({ device, vlanAware }) => vlanAware || hasAddress(plan, device))
    .map(({ device }) => plan.device.get(device)!);

const hasAddress = (plan: Plan, device: string): boolean =>
  interfacesOf(plan, device).some((card) => addressesOn(plan, card.id).length > 0);

/** What a controller sees to for its boxes. */
const CONTROLLED: ReadonlySet<HardeningItem> = new Set(['login', 'sessions', 'secrets', 'saved']);
/** What needs an address of the box's own. */
const ADDRESSED: ReadonlySet<HardeningItem> = new Set(['reach', 'time', 'management']);

export function hardeningFor(plan: Plan, device: string): HardeningItem[] {
  const controlled = (boxOf(plan, device)?.controller ?? null) !== null;
  const addressed = hasAddress(plan, device);
  return hardeningItems.filter(
    (item) => !(controlled && CONTROLLED.has(item)) && (addressed || !ADDRESSED.has(item)),
  );
}

export const tickOf = (plan: Plan, device: string, item: HardeningItem): Hardening | null =>
  [...plan.hardening.group(device).values()].find((tick) => tick.item === item) ?? null;

/** What is to be done, as it is said to whoever does it. */
export const hardeningTitles: Readonly<Record<HardeningItem, string>> = {
  name: 'Name set',
  login: 'Default login changed',
  services: 'Services nobody uses are off',
  sessions: 'Sessions end when idle, tries are limited',
  secrets: 'No readable secrets in what is saved',
  reach: 'Looks up names',
  time: 'Time source and zone set',
  management: 'Managed only from where it should be',
  firmware: 'Firmware is current',
  saved: 'Saved, and the same after a restart',
};
