import { type Access, type Group, type Port, boxOf, derive, memo, portTitle } from '../../../plan';
import { accessAt, askingPorts, boxesAsking, knownBy } from '../../../model/guards';
import { linksAt } from '../../../model/wiring';
import { DHCP_PATIENCE, bringsVlan, expectedMacs, hasMac, unaskedAt } from '../../../rehearse';
import { onDevice, onPort } from '../refs';
import { askingCheck, keepsOut, nameOf, onAccess } from './asking';
import { guardCheck, holding, portCheck, someOf } from './shared';

/** Ports that ask who is there: whether they may, who can answer, and where each outcome leads. */

const onUplink = askingCheck('access-on-uplink', (plan, port, access) => {
  const reason = unaskedAt(plan, port.id);
  if (reason?.kind !== 'box' && reason?.kind !== 'networks') return null;
  const title = portTitle(plan, port);
  return {
    severity: keepsOut(access) ? 'stop' : 'fix',
    on: onPort(port.id),
    what: `${title} asks a box who it is`,
    because: `${reason.why}: all of it would be let in or kept out as one. Instead: ${reason.instead}.`,
    remedies: [holding(`${title} asks nobody`, port.id, { access: null })],
  };
});

const unable = guardCheck('access-unable', function* (plan) {
  const boxes = new Map<string, Port[]>();
  for (const { port } of askingPorts(plan))
    if (!boxOf(plan, port.device)?.dot1x) boxes.set(port.device, [...(boxes.get(port.device) ?? []), port]);
  for (const [device, ports] of boxes)
    yield {
      severity: 'stop',
      on: onDevice(device),
      what: `${nameOf(plan, device)} is to ask who is there and cannot`,
      because: `Its model does no 802.1X, so whoever plugs into ${someOf(ports.map((port) => portTitle(plan, port)))} is let in.`,
    };
});

const outcomes = [
  ['guest', 'for who cannot answer'],
  ['failed', 'for who is refused'],
  ['critical', 'while no server answers'],
] as const;
const notCarried = guardCheck('access-outcome-not-carried', function* (plan) {
  const missing = new Map<string, { said: Set<string>; boxes: Set<string>; accesses: Set<Access> }>();
  for (const [access, boxes] of boxesAsking(plan))
    for (const [field, said] of outcomes) {
      const id = access[field];
      if (id === null) continue;
      for (const box of boxes) {
        if (bringsVlan(plan, box, id)) continue;
        const at = missing.get(id) ?? { said: new Set(), boxes: new Set(), accesses: new Set() };
        missing.set(id, at);
        at.said.add(said);
        at.boxes.add(box);
        at.accesses.add(access);
      }
    }
  for (const [id, { said, boxes, accesses }] of missing) {
    const { vid, name } = plan.vlan.get(id)!;
    yield {
      severity: 'stop',
      on: { table: 'vlan', id },
      also: [...[...accesses].map(onAccess), ...[...boxes].map(onDevice)],
      what: `${name} is not carried to ${someOf([...boxes].map((box) => nameOf(plan, box)))}`,
      because: `${someOf([...accesses].map((access) => access.name))} leads to VLAN ${vid} ${[...said].join(' and ')}; where no trunk brings it, that leads nowhere.`,
    };
  }
});

const cannotAnswer = askingCheck('access-cannot-answer', (plan, port, access) => {
  if (!keepsOut(access) || access.guest === port.untagged) return null;
  const mute = linksAt(plan, port)
    .map(({ to }) => plan.port.get(to)!.device)
    .filter((id) => {
      const by = knownBy(plan, id);
      return by === 'neither' || (by === 'mac' && access.methods === 'dot1x');
    });
  if (mute.length === 0) return null;
  const names = someOf(mute.map((id) => nameOf(plan, id)));
  const by = knownBy(plan, mute[0]!) === 'neither' ? 'nothing' : 'its MAC address only';
  const guest = access.guest === null ? null : plan.vlan.get(access.guest)!.name;
  return {
    severity: guest === null ? 'stop' : 'fix',
    on: onPort(port.id),
    also: mute.map(onDevice),
    what:
      guest === null
        ? `${names} cannot answer at ${portTitle(plan, port)}`
        : `${names} ends in ${guest} at ${portTitle(plan, port)}`,
    because: `${access.name} ${guest === null ? 'keeps out' : `puts into ${guest}`} whoever does not answer, and the device is known by ${by}.`,
  };
});

const macUnknown = askingCheck('access-mac-unknown', (plan, port, access) => {
  const device = linksAt(plan, port)
    .map(({ to }) => plan.port.get(to)!.device)
    .find((id) => knownBy(plan, id) === 'mac' && !hasMac(plan, id));
  if (device === undefined) return null;
  const name = nameOf(plan, device);
  return {
    severity: keepsOut(access) ? 'stop' : 'fix',
    on: onDevice(device),
    also: [onPort(port.id)],
    what: `No server can know ${name}`,
    because: `${portTitle(plan, port)} asks, ${name} is known by its MAC address only, and none is recorded: type it in under Addresses.`,
  };
});

const late = guardCheck('access-late', function* (plan) {
  for (const [access] of boxesAsking(plan)) {
    const wait = access.period * access.tries;
    if (access.methods !== 'dot1x-mac' || wait <= DHCP_PATIENCE) continue;
    const period = Math.floor(DHCP_PATIENCE / 2 / access.tries);
    yield {
      severity: 'fix',
      on: onAccess(access),
      what: `Devices that are known by MAC wait ${wait} s for ${access.name}`,
      because: `${access.tries} × ${access.period} s pass before the MAC address is tried, and a DHCP client gives up after ${DHCP_PATIENCE} s (RFC 2131 section 4.1).`,
      remedies:
        period >= 1
          ? [
              {
                label: `Ask every ${period} s`,
                operation: 'edit',
                input: { table: 'access', id: access.id, set: { period } },
              },
            ]
          : [],
    };
  }
});

const behindItself = askingCheck('access-server-behind', (plan, port, access) => {
  const reason = unaskedAt(plan, port.id);
  if (reason?.kind !== 'server') return null;
  const title = portTitle(plan, port);
  return {
    severity: keepsOut(access) ? 'stop' : 'fix',
    on: onPort(port.id),
    what: `${title} asks a server about itself`,
    because: `The server that would let it in is plugged in behind it: after a restart neither comes up. Instead: ${reason.instead}.`,
    remedies: [holding(`${title} asks nobody`, port.id, { access: null })],
  };
});

const few = askingCheck('access-hosts-few', (plan, port, access) => {
  const planned = expectedMacs(plan, port);
  const room = access.hosts === 'one' ? 1 : access.hosts === 'phone-and-one' ? 2 : Infinity;
  if (planned <= room || unaskedAt(plan, port.id)) return null;
  return {
    severity: keepsOut(access) ? 'stop' : 'fix',
    on: onPort(port.id),
    also: [onAccess(access)],
    what: `${portTitle(plan, port)} lets ${room} in, and ${planned} are planned there`,
    because: `${access.name} keeps out whoever comes after; give the port a way in for more.`,
  };
});

const unaskedAfter = guardCheck('access-one-for-all', function* (plan) {
  for (const [access] of boxesAsking(plan)) {
    if (access.hosts !== 'all' || !keepsOut(access)) continue;
    yield {
      severity: 'fix',
      on: onAccess(access),
      what: `After the first, ${access.name} asks nobody`,
      because: 'With a small switch of their own people get in behind whoever was let in.',
      remedies: [
        {
          label: 'Ask each device',
          operation: 'edit',
          input: { table: 'access', id: access.id, set: { hosts: 'each' } },
        },
      ],
    };
  }
});

const inReachOf = memo((ports: Group<Port>) =>
  [...ports.values()].filter(({ exposed, enabled, number }) => exposed && enabled && number > 0),
);
/** Where others ask, the ports in reach of strangers. */
const inReachIds = derive(
  (plan): ReadonlySet<string> =>
    new Set(
      boxesAsking(plan).size === 0
        ? []
        : [...plan.port.allGroups()].flatMap((group) => inReachOf(group).map(({ id }) => id)),
    ),
);
const inReach = portCheck('access-in-reach', inReachIds, (plan, port) => {
  if (accessAt(plan, port.id)) return null;
  if (!boxOf(plan, port.device)?.dot1x || unaskedAt(plan, port.id)) return null;
  return {
    severity: 'note',
    on: onPort(port.id),
    what: `${portTitle(plan, port)} is in reach of strangers and asks nobody`,
    because: 'Others here do: whoever wants in takes the port that does not.',
  };
});

export const accessChecks = [
  onUplink,
  unable,
  notCarried,
  cannotAnswer,
  macUnknown,
  late,
  behindItself,
  few,
  unaskedAfter,
  inReach,
];
