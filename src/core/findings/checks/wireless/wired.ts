import { accessPoints, isMeantFor, networksAt, radiosOf, sentBy, ssidsOf } from '../../../model/wireless';
import { type Plan, boxOf, portTitle } from '../../../plan';
import { carries, innerPort, linksAt, portsOf } from '../../../model/wiring';
import { inAnotherSocket } from '../plugs';
import { onDevice } from '../refs';
import { airCheck } from './shared';

/** The wire behind the air: whether an access point gets what it sends. */

const notInside = airCheck('network-not-carried', function* (plan) {
  for (const device of accessPoints(plan)) {
    const inner = innerPort(plan, device.id);
    const box = boxOf(plan, device.id);
    if (!inner || !box?.vlanAware) continue;
    const missing = networksAt(plan, device.id).filter(({ vlan }) => vlan !== null && !carries(inner, vlan));
    if (missing.length === 0) continue;
    const named = missing.map(({ name, vlan }) => `${name} (VLAN ${plan.vlan.get(vlan!)!.vid})`);
    yield {
      severity: 'stop',
      on: onDevice(device.id),
      also: missing.map(({ id }) => ({ table: 'ssid' as const, id })),
      what: `${device.name} sends networks that it is not given`,
      because: `Its inside is no member of what ${named.join(', ')} lead${missing.length === 1 ? 's' : ''} to: who joins gets no address.`,
      remedies: [
        {
          label: `Carry them to ${device.name}`,
          operation: 'carryNetworks',
          input: { device: device.id },
        },
      ],
    };
  }
});

const knowsNoVlans = airCheck('networks-mixed', function* (plan) {
  for (const device of accessPoints(plan)) {
    const box = boxOf(plan, device.id);
    if (!box || box.vlanAware) continue;
    const networks = networksAt(plan, device.id);
    const vlans = [...new Set(networks.flatMap(({ vlan }) => vlan ?? []))];
    if (vlans.length < 2) continue;
    const [last] = networks.filter(({ vlan }) => vlan !== vlans[0]).slice(-1);
    const elsewhere = last && sentBy(plan, last).some(({ id }) => id !== device.id);
    yield {
      severity: 'stop',
      on: onDevice(device.id),
      also: networks.map(({ id }) => ({ table: 'ssid' as const, id })),
      what: `${device.name} puts all its networks on one wire`,
      because: `It knows no VLANs, so ${networks.map(({ name }) => name).join(' and ')} end in one segment whatever they are meant for.`,
      remedies:
        elsewhere && vlans.length === 2 && networks.filter(({ vlan }) => vlan !== vlans[0]).length === 1
          ? [
              {
                label: `${last.name} only at the others`,
                operation: 'takeOffAir',
                input: { ssid: last.id, device: device.id },
              },
            ]
          : [],
    };
  }
});

const slowWire = airCheck('access-point-slow', function* (plan) {
  for (const device of accessPoints(plan)) {
    if (radiosOf(plan, device.id).length === 0) continue;
    for (const port of portsOf(plan, device.id))
      for (const { to } of linksAt(plan, port)) {
        const far = plan.port.get(to)!;
        const speed = Math.min(port.speed, far.speed);
        if (port.number === 0 || speed >= 1000) continue;
        yield {
          severity: 'fix',
          on: { table: 'port', id: port.id },
          also: [{ table: 'port', id: far.id }],
          what: `${device.name} hangs on ${speed} Mbit/s`,
          because: `${portTitle(plan, far.speed === speed ? far : port)} is slower than what its radios send together; take a port of 1000 Mbit/s.`,
          remedies: port.speed >= 1000 ? inAnotherSocket(plan, far, port, { speed: 1000 }) : [],
        };
      }
  }
});

/** Would what is meant for an access point get to it? */
function wouldCarry(plan: Plan, device: string): boolean {
  const box = boxOf(plan, device);
  const inner = innerPort(plan, device);
  if (!box || !inner) return true;
  const vlans = ssidsOf(plan).flatMap((ssid) => (isMeantFor(ssid, device) && ssid.vlan) || []);
  return box.vlanAware && vlans.every((vlan) => carries(inner, vlan));
}

const noRadio = airCheck('access-point-silent', function* (plan) {
  // Before anything is on the air nobody has begun to plan it.
  if (plan.ssid.size + plan.radio.size === 0) return;
  for (const device of accessPoints(plan)) {
    if (radiosOf(plan, device.id).length > 0) continue;
    yield {
      severity: 'note',
      on: onDevice(device.id),
      what: `${device.name} has no radio on record`,
      because: 'So no network is sent there, and no channel is planned for it.',
      remedies: wouldCarry(plan, device.id)
        ? [
            {
              label: 'It has 2.4 and 5 GHz',
              operation: 'addRadios',
              input: { devices: [device.id], bands: ['2.4', '5'] },
            },
          ]
        : [],
    };
  }
});

export const wiredChecks = [notInside, knowsNoVlans, slowWire, noRadio];
