import * as z from 'zod';
import { kinds, operation, badInput, hostOf, portsText, type Draft } from '../../plan';
import { knownServiceAt, listenersOf, protocolsMeet } from '../../model/uplink';

/** What hosts listen on and whom their own firewalls let in, of many at once. */

const many = z.array(z.string()).min(1);

const devicesOf = (draft: Draft, addresses: readonly string[]): string[] => [
  ...new Set(addresses.map((id) => hostOf(draft.plan, draft.need('address', id)).device.id)),
];
const named = (draft: Draft, devices: readonly string[]): string =>
  devices.length === 1 ? draft.need('device', devices[0]!).name : `${devices.length} devices`;

/** Records whom the firewalls of hosts themselves let in. */
export const setFirewallOfHosts = operation(
  'setFirewallOfHosts',
  z.strictObject({ addresses: many, firewall: kinds.device.fields.firewall }),
  (draft, { addresses, firewall }) => {
    const devices = devicesOf(draft, addresses);
    for (const id of devices) draft.update('device', id, { firewall });
    return `${named(draft, devices)}: own firewall ${firewall.replaceAll('-', ' ')}`;
  },
);

/** Lists a service that hosts listen on, with those that do not list it yet. */
export const listOnHosts = operation(
  'listOnHosts',
  z.strictObject({
    addresses: many,
    protocol: kinds.listener.fields.protocol,
    port: kinds.listener.fields.port,
  }),
  (draft, { addresses, protocol, port }) => {
    const devices = devicesOf(draft, addresses).filter(
      (id) =>
        !listenersOf(draft.plan, id).some(
          (other) => other.port === port && protocolsMeet(other.protocol, protocol),
        ),
    );
    if (devices.length === 0)
      throw badInput(`All of them list ${portsText(protocol, port)} already.`, 'port');
    const name = knownServiceAt(protocol, port)?.name ?? '';
    for (const device of devices) draft.insert('listener', { device, protocol, port, name });
    return `${named(draft, devices)}: listens on ${portsText(protocol, port)}`;
  },
);
