import { type Plan, type Ssid, type Vlan, derive, portTitle } from '../plan';
import { type Flood, flood, isMember, stateKey } from '../model/wiring';
import { type Landing, bridgeAt, fabric, landsIn } from '../model/switching';
import { sends } from '../model/wireless';
import { type Place, insideState, reachesPlug } from './frames';

/** Where somebody new comes into the network: by a port with a cable, or by a wireless network at an access point. */

export interface Air {
  readonly ssid: string;
  /** The access point. */
  readonly at: string;
}
export type Entry = { readonly port: string } | Air;

const NOBODY: Flood = { heard: [], came: new Map() };

export const airTitle = (plan: Plan, { ssid, at }: Air): string =>
  `${plan.ssid.get(ssid)?.name ?? 'a network'} at ${plan.device.get(at)?.name ?? 'an access point'}`;

export const entryTitle = (plan: Plan, entry: Entry): string =>
  'port' in entry ? portTitle(plan, plan.port.get(entry.port)!) : airTitle(plan, entry);

/** The place of a laptop there. */
export const placeAt = (plan: Plan, entry: Entry): Place =>
  'port' in entry
    ? { kind: 'plug', port: plan.port.get(entry.port)! }
    : { kind: 'air', device: entry.at, bridge: bridgeAt(plan, entry.at), ssid: entry.ssid, of: null };

/** Does a device of the site listen for questions of RADIUS (RFC 2865; 1645 is the old port)? */
export const hasRadius = derive(
  (plan): boolean =>
    plan.radius.size > 0 ||
    [...plan.listener.values()].some(
      ({ protocol, port }) => protocol !== 'tcp' && (port === 1812 || port === 1645),
    ),
);

/** Why an access point takes nobody into a network; null where it does. */
function notJoined(plan: Plan, ssid: Ssid, at: string): string | null {
  const { name } = plan.device.get(at)!;
  if (!sends(plan, at, ssid)) return `you do not find ${ssid.name}: ${name} does not send it`;
  if (ssid.security.endsWith('enterprise') && !hasRadius(plan))
    return `you are not let in: ${name} asks a RADIUS server, and no device here listens on UDP 1812`;
  if (ssid.vlan === null) return `you get nowhere: ${ssid.name} leads to no segment`;
  return bridgeAt(plan, at) < 0 ? `where you land is not known: the ports of ${name} are not recorded` : null;
}

/** The segment a laptop is in that joins a network at an access point. */
function joins(plan: Plan, { ssid: id, at }: Air): Landing {
  const ssid = plan.ssid.get(id)!;
  const nothing = (why: string): Landing => ({ vlan: null, why });
  const why = notJoined(plan, ssid, at);
  if (why !== null) return nothing(why);
  const vlan = plan.vlan.get(ssid.vlan!)!;
  const bridge = fabric(plan).bridges[bridgeAt(plan, at)]!;
  const facts = bridge.facts[bridge.ports.findIndex(({ number }) => number === 0)];
  const { name } = plan.device.get(at)!;
  if (!facts) return nothing(`nothing happens: the inside of ${name} is shut`);
  if (bridge.box.vlanAware && !isMember(facts, vlan.vid))
    return nothing(`you are not heard: ${name} itself is not in VLAN ${vlan.vid}`);
  return { vlan, why: '' };
}

/** The segment that somebody new lands in. */
export const landsAt = (plan: Plan, entry: Entry): Landing =>
  'port' in entry ? landsIn(plan, plan.port.get(entry.port)!) : joins(plan, entry);

/** Who hears the first broadcast of somebody new. */
export function heardFrom(plan: Plan, entry: Entry, landed: Vlan | null): Flood {
  if ('port' in entry) return flood(fabric(plan), { port: entry.port, tag: 0 });
  if (!landed) return NOBODY;
  return flood(fabric(plan), { state: insideState(plan, bridgeAt(plan, entry.at), landed.id) });
}

/** Does a broadcast that spread over a network get to somebody new? */
export function reachesEntry(plan: Plan, covered: Flood, entry: Entry, landed: Vlan | null): boolean {
  if ('port' in entry) return reachesPlug(plan, covered, plan.port.get(entry.port)!);
  return (
    landed !== null && covered.came.has(stateKey(insideState(plan, bridgeAt(plan, entry.at), landed.id)))
  );
}
