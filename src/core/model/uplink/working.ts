import { type Forward, type Plan, type Port, deriveBy, portTitle } from '../../plan';
import { linksAt } from '../wiring';
import { uplinksOf } from './view';

/** Which uplinks carry anything as the plan stands: what is switched on, in a socket that is alive at both ends. */

/** What is wrong with a socket that a provider is behind; null for nothing. */
function deadSocket(plan: Plan, port: Port, far: boolean): string | null {
  const title = portTitle(plan, port);
  if (port.defective) return `${title} is defective`;
  if (!port.enabled) return `${title} is off`;
  return !far && port.role === 'parked' ? `${title} is parked` : null;
}

/**
 * Why nothing passes an uplink, in words that follow its name; null when something may. A socket without a recorded cable is taken
 * to be plugged in: what a provider laid is often in no plan.
 */
export const uplinkDown = deriveBy((plan, id: string): string | null => {
  const uplink = plan.uplink.get(id);
  if (!uplink?.enabled) return 'it is switched off';
  const port = plan.port.get(uplink.port ?? '');
  if (!port) return null;
  const own = deadSocket(plan, port, false);
  if (own !== null) return own;
  const far = linksAt(plan, port).map(({ to }) => deadSocket(plan, plan.port.get(to)!, true));
  return far.length > 0 && far.every((why) => why !== null)
    ? `${portTitle(plan, port)} leads to ${far[0]!}`
    : null;
});

const worksBy = deriveBy((plan, id: string): boolean => uplinkDown(plan, id) === null);
/** The uplinks over which something passes, in the order they are used. */
export const workingUplinks = (plan: Plan) => uplinksOf(plan).filter(({ id }) => worksBy(plan, id));

/**
 * Does a forward work from inside by the outside address too, as it says? Where the address changes, the box tells it from the
 * addresses it knows; with two that change it cannot tell which is whose.
 */
export function turnsBack(plan: Plan, { hairpin, uplink: id }: Forward): boolean {
  const uplink = plan.uplink.get(id)!;
  if (!hairpin || uplink.address !== null) return hairpin;
  const changing = workingUplinks(plan).filter(
    ({ device, address }) => device === uplink.device && address === null,
  );
  return changing.length === 1;
}
