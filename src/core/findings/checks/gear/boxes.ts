import { linksAt, portsOf, portsTitle, powerOf, vlansIn, wiredPorts, endsAt } from '../../../model/wiring';
import {
  type Device,
  type Group,
  type Plan,
  type Port,
  type Remedy,
  SITE_ID,
  boxOf,
  interfacesOf,
  derive,
  deriveBy,
  memo,
  subnetsOf,
  plainVlansOf,
} from '../../../plan';
import { bridgingDevices } from '../../box-view';
import { boxCheck, gearCheck, isCabled } from './shared';

/** What a box can do, and what is kept about it. */

/** Does a port send some VLANs tagged and one without a tag? */
const isMixed = ({ role, untagged, tagged, taggedMode }: Port): boolean =>
  (role === 'trunk' || role === 'voice') && untagged !== null && (taggedMode !== 'list' || tagged.length > 0);

/** Both ends of trunks send their untagged VLAN tagged too; of a port with an end device nothing can be offered. */
function unmixed(plan: Plan, mixed: readonly Port[]): Remedy[] {
  const ends = mixed.map((port) => {
    const [link, other] = linksAt(plan, port);
    const far = link && !other ? plan.port.get(link.to)! : undefined;
    const aware = far && boxOf(plan, far.device)?.vlanAware === true;
    return far && aware && port.role === 'trunk' && far.untagged === port.untagged ? [port, far] : null;
  });
  if (ends.some((pair) => pair === null)) return [];
  const all = ends.flatMap((pair) => pair!);
  return [
    {
      label: `Everything tagged on ${portsTitle(plan, all)}`,
      operation: 'several',
      input: {
        label: `Everything tagged on ${portsTitle(plan, all)}`.slice(0, 200),
        calls: all.map(({ id }) => ({ operation: 'setNative', input: { port: id, vlan: null } })),
      },
    },
  ];
}

const tooMuch = boxCheck('box-overloaded', function* (plan, { box, device, ports }) {
  const limited = box.vlanLimit !== null && box.vlanAware;
  const held = new Set(limited ? portsOf(plan, device.id).flatMap((port) => vlansIn(port)) : []);
  const mixed = box.vlanAware && !box.mixesTags ? ports.filter(isMixed) : [];
  const { reserved, left } = powerOf(plan, device.id);
  const parts = [
    ...(limited && held.size > box.vlanLimit!
      ? [`It is to hold ${held.size} VLANs and can hold ${box.vlanLimit}`]
      : []),
    ...(mixed.length > 0
      ? [`${portsTitle(plan, mixed)} would have to mix tagged and untagged, which it cannot`]
      : []),
    ...(left !== null && left < 0
      ? [`${reserved} W are reserved by class and its budget is ${box.poeBudget} W`]
      : []),
  ];
  if (parts.length === 0) return;
  yield {
    severity: 'fix',
    on: { table: 'box', id: box.id },
    what: `More than ${device.name} can do`,
    because: `${parts.join('. ')}.`,
    remedies: parts.length === 1 && mixed.length > 0 ? unmixed(plan, mixed) : [],
  };
});

const loginUnchanged = boxCheck('login-unchanged', function* (_plan, { box, device }) {
  if (!box.vlanAware || box.loginChanged !== null || box.controller !== null) return;
  yield {
    severity: device.kind === 'gateway' ? 'fix' : 'note',
    on: { table: 'box', id: box.id },
    what: `${device.name}: the default login is not recorded as changed`,
    because:
      'The factory login of most models stands on the Internet. Record the day it was changed and where the new one is kept, never what it is.',
  };
});

const ranOut = boxCheck('support-ended', function* (plan, { box, device, ports }, today) {
  if (today === null) return;
  const unsupported = box.supportedUntil !== null && box.supportedUntil < today;
  const parts = [
    ...(unsupported ? [`Its firmware ${box.firmware} is supported until ${box.supportedUntil}`] : []),
    ...(box.licenceUntil !== null && box.licenceUntil < today
      ? [`Its licence ran out on ${box.licenceUntil}`]
      : []),
  ];
  if (parts.length === 0) return;
  // A router behind another one of the site does not face the Internet.
  const lines = [...plan.uplink.values()].filter((uplink) => uplink.device === device.id);
  const outside =
    lines.length > 0
      ? lines.some(({ segment }) => segment === null)
      : ports.some(({ role }) => role === 'uplink');
  yield {
    severity: outside && unsupported ? 'stop' : 'fix',
    on: { table: 'box', id: box.id },
    what: unsupported
      ? `Firmware support for ${device.name} has ended`
      : `The licence of ${device.name} has run out`,
    because: `${parts.join('. ')}${outside ? ', and it faces the Internet' : ''}.`,
  };
});

/** The VLANs that access ports and the insides of boxes take part in; null where no box understands VLANs. */
const vlansInUse = derive((plan): ReadonlySet<string> | null => {
  const used = bridgingDevices(plan).flatMap((device) => vlansUsedAt(plan, device) ?? []);
  return bridgingDevices(plan).some((device) => vlansUsedAt(plan, device)) ? new Set(used) : null;
});
const vlansUsedAt = deriveBy((plan, device: string): readonly string[] | null => {
  if (!boxOf(plan, device)!.vlanAware) return null;
  const { kind } = plan.device.get(device)!;
  const routes = kind === 'gateway' || kind === 'layer3-switch';
  const used = wiredPorts(plan, device).filter((port) =>
    port.number === 0 ? !routes : port.role === 'access' || port.role === 'voice',
  );
  // Who does not tag and hangs on a trunk is in its untagged VLAN.
  const onTrunks = wiredPorts(plan, device).flatMap((port) =>
    port.role === 'trunk' && port.untagged !== null && endsAt(plan, port).length > 0 ? [port.untagged] : [],
  );
  return [...new Set([...used.flatMap((port) => vlansIn(port)), ...onTrunks])];
});

const unusedVlan = gearCheck('vlan-without-port', function* (plan) {
  const used = vlansInUse(plan);
  if (!used) return;
  for (const vlan of plainVlansOf(plan)) {
    if (used.has(vlan.id) || vlan.purpose === 'parking' || vlan.purpose === 'transit') continue;
    if (subnetsOf(plan, vlan.id).length === 0) continue;
    yield {
      severity: 'note',
      on: { table: 'vlan', id: vlan.id },
      what: `No port is in ${plan.vlan.get(vlan.id)!.name}`,
      because: `VLAN ${vlan.vid} has a subnet, and neither an access port nor a box takes part in it.`,
    };
  }
});

/** Kinds that are always on a cable; the others may be on the air. */
const WIRED: ReadonlySet<string> = new Set([
  'server',
  'recorder',
  'camera',
  'phone',
  'controller',
  'operator-panel',
  'drive',
]);

const wiredIn = memo((devices: Group<Device>) => [...devices.values()].filter(({ kind }) => WIRED.has(kind)));
/** Devices that need a cable and have none. */
const waitingDevices = derive((plan): readonly string[] => {
  const waiting: string[] = [];
  for (const group of plan.device.allGroups())
    for (const { id } of wiredIn(group))
      if (
        !boxOf(plan, id) &&
        ![...plan.port.group(id).values()].some((port) => isCabled(plan, port)) &&
        !interfacesOf(plan, id).some(({ joins }) => joins !== null)
      )
        waiting.push(id);
  return waiting;
});
/** How many ports of a box are free for them; null where it is no switch. */
const freeAt = deriveBy((plan, device: string): number | null =>
  plan.device.get(device)!.kind === 'access-point'
    ? null
    : wiredPorts(plan, device).filter(
        (port) => port.number > 0 && !port.defective && port.role !== 'uplink' && !isCabled(plan, port),
      ).length,
);

const tooFewPorts = gearCheck('ports-short', function* (plan) {
  const switches = bridgingDevices(plan).flatMap((device) => freeAt(plan, device) ?? []);
  if (switches.length === 0) return;
  const free = switches.reduce((sum, ports) => sum + ports, 0);
  const ids = waitingDevices(plan);
  if (ids.length <= free) return;
  const waiting = ids.map((id) => plan.device.get(id)!);
  const some = waiting.slice(0, 3).map((device) => device.name);
  yield {
    severity: 'fix',
    on: { table: 'site', id: SITE_ID },
    also: waiting.map((device) => ({ table: 'device' as const, id: device.id })),
    what: `${waiting.length - free} ports too few`,
    because: `${waiting.length} devices that need a cable have none (${some.join(', ')}${waiting.length > 3 ? ' and others' : ''}), and ${free} ports of all boxes together are free.`,
  };
});

export const boxChecks = [tooMuch, loginUnchanged, ranOut];
export const sizeOfGearChecks = [unusedVlan, tooFewPorts];
