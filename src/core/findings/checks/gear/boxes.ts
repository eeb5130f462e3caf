import { portsTitle, powerOf, vlansIn, innerPort, portsOf } from '../../../model/wiring';
import { type Plan, boxOf, SITE_ID, subnetsOf, vlansOf } from '../../../plan';
import { bridging, gearCheck, isCabled } from './shared';

/** What a box can do, and what is kept about it. */

const tooMuch = gearCheck('box-overloaded', function* (plan) {
  for (const { box, device, ports } of bridging(plan)) {
    const held = new Set(portsOf(plan, device.id).flatMap((port) => vlansIn(port)));
    const mixed = ports.filter(
      (port) => port.role === 'trunk' && port.untagged !== null && port.tagged.length > 0,
    );
    const { reserved, left } = powerOf(plan, device.id);
    const parts = [
      ...(box.vlanLimit !== null && box.vlanAware && held.size > box.vlanLimit
        ? [`It is to hold ${held.size} VLANs and can hold ${box.vlanLimit}`]
        : []),
      ...(box.vlanAware && !box.mixesTags && mixed.length > 0
        ? [`${portsTitle(plan, mixed)} would have to mix tagged and untagged, which it cannot`]
        : []),
      ...(left !== null && left < 0
        ? [`${reserved} W are reserved by class and its budget is ${box.poeBudget} W`]
        : []),
    ];
    if (parts.length === 0) continue;
    yield {
      severity: 'fix',
      on: { table: 'box', id: box.id },
      what: `More than ${device.name} can do`,
      because: `${parts.join('. ')}.`,
    };
  }
});

const loginUnchanged = gearCheck('login-unchanged', function* (plan) {
  for (const { box, device } of bridging(plan)) {
    if (!box.vlanAware || box.loginChanged !== null || box.controller !== null) continue;
    yield {
      severity: device.kind === 'gateway' ? 'fix' : 'note',
      on: { table: 'box', id: box.id },
      what: `${device.name}: the default login is not recorded as changed`,
      because:
        'The factory login of most models stands on the Internet. Record the day it was changed and where the new one is kept, never what it is.',
    };
  }
});

const ranOut = gearCheck('support-ended', function* (plan, today) {
  if (today === null) return;
  for (const { box, device, ports } of bridging(plan)) {
    const parts = [
      ...(box.supportedUntil !== null && box.supportedUntil < today
        ? [`Its firmware ${box.firmware} is supported until ${box.supportedUntil}`]
        : []),
      ...(box.licenceUntil !== null && box.licenceUntil < today
        ? [`Its licence ran out on ${box.licenceUntil}`]
        : []),
    ];
    if (parts.length === 0) continue;
    const outside = ports.some((port) => port.role === 'uplink');
    yield {
      severity: outside && box.supportedUntil !== null && box.supportedUntil < today ? 'stop' : 'fix',
      on: { table: 'box', id: box.id },
      what: `${device.name} gets no more repairs`,
      because: `${parts.join('. ')}${outside ? ', and it faces the Internet' : ''}.`,
    };
  }
});

const vlansOfInside = (plan: Plan, device: string): string[] => {
  const inner = innerPort(plan, device);
  return inner ? vlansIn(inner) : [];
};

const unusedVlan = gearCheck('vlan-without-port', function* (plan) {
  const boxes = [...bridging(plan)].filter(({ box }) => box.vlanAware);
  if (boxes.length === 0) return;
  const used = new Set(
    boxes.flatMap(({ device, ports }) => [
      ...ports
        .filter((port) => port.role === 'access' || port.role === 'voice')
        .flatMap((port) => vlansIn(port)),
      ...(device.kind === 'gateway' || device.kind === 'layer3-switch' ? [] : vlansOfInside(plan, device.id)),
    ]),
  );
  for (const vlan of vlansOf(plan)) {
    if (used.has(vlan.id) || vlan.purpose === 'parking' || vlan.purpose === 'transit') continue;
    if (subnetsOf(plan, vlan.id).length === 0) continue;
    yield {
      severity: 'note',
      on: { table: 'vlan', id: vlan.id },
      what: `No port is in ${vlan.name}`,
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

const tooFewPorts = gearCheck('ports-short', function* (plan) {
  const switches = [...bridging(plan)].filter(({ device }) => device.kind !== 'access-point');
  if (switches.length === 0) return;
  const waiting = [...plan.device.values()].filter(
    (device) =>
      WIRED.has(device.kind) &&
      boxOf(plan, device.id) === undefined &&
      !portsOf(plan, device.id).some((port) => isCabled(plan, port)),
  );
  const free = switches
    .flatMap(({ ports }) => ports)
    .filter((port) => !port.defective && port.role !== 'uplink' && !isCabled(plan, port)).length;
  if (waiting.length <= free) return;
  const some = waiting.slice(0, 3).map((device) => device.name);
  yield {
    severity: 'fix',
    on: { table: 'site', id: SITE_ID },
    also: waiting.map((device) => ({ table: 'device' as const, id: device.id })),
    what: `${waiting.length - free} ports too few`,
    because: `${waiting.length} devices that need a cable have none (${some.join(', ')}${waiting.length > 3 ? ' and others' : ''}), and ${free} ports of all boxes together are free.`,
  };
});

export const boxChecks = [tooMuch, loginUnchanged, ranOut, unusedVlan, tooFewPorts];
