import * as z from 'zod';
import { formatAddress } from '../../address';
import { insertCard } from '../hosts/network-interface';
import { nextFreeAddress } from '../../model/hosts';
import {
  boxOf,
  operation,
  Refusal,
  badInput,
  addressesOn,
  interfacesOf,
  subnetOf,
  removeRecord,
} from '../../plan';
import { fabric } from '../../model/switching';
import { linksOf, portsOf, access, parked } from '../../model/wiring';

/**
 * A router used for its radio or its sockets only, behind another one. What must change on it, all at once: it routes and
 * filters no more, leases nothing, has an address of its own in the segment, joins it by a LAN port, and its Internet port
 * stays empty.
 */
export const reuseAsAccessPoint = operation(
  'reuseAsAccessPoint',
  z.strictObject({ device: z.string(), vlan: z.string() }),
  (draft, input) => {
    const device = draft.need('device', input.device);
    const vlan = draft.need('vlan', input.vlan);
    const box = boxOf(draft.plan, device.id);
    if (device.kind !== 'gateway' || !box)
      throw badInput(`${device.name} is no router with ports of its own; choose one that is.`, 'device');
    const items = interfacesOf(draft.plan, device.id);
    const gateways = items
      .flatMap((item) => addressesOn(draft.plan, item.id))
      .filter(({ gateway }) => gateway);
    if (gateways.length > 0) {
      const [first] = gateways;
      const of = draft.need('vlan', draft.need('subnet', first!.subnet).vlan).name;
      throw new Refusal(
        'in-use',
        `${device.name} is the gateway of ${of}${gateways.length > 1 ? ` and ${gateways.length - 1} more` : ''}; give that to another router first.`,
        gateways.map(({ id }) => ({ table: 'address' as const, id })),
      );
    }
    const subnet = subnetOf(draft.plan, vlan.id, 4);
    const address = subnet ? nextFreeAddress(draft.plan, subnet, 'access-point', 'static') : null;
    if (!subnet || address === null)
      throw new Refusal('no-room', `${vlan.name} has no free address for ${device.name}.`);
    for (const table of ['uplink', 'tunnel', 'route', 'translation'] as const)
      for (const { id, device: owner } of [...draft.plan[table].values()])
        if (owner === device.id) removeRecord(draft, { table, id });
    for (const item of items) {
      // With the interface goes what it leased and every name it was asked for.
      removeRecord(draft, { table: 'interface', id: item.id });
    }
    const card = insertCard(draft, device.id, { mac: box.baseMac });
    draft.insert('address', {
      subnet: subnet.id,
      address,
      interface: card.id,
      assignment: 'static',
      gateway: false,
      note: '',
    });
    draft.update('device', device.id, { kind: 'access-point' });
    draft.update('box', box.id, { layer3: false, filter: 'none' });
    const ports = portsOf(draft.plan, device.id);
    const { seats } = fabric(draft.plan);
    const lan = ports.filter(({ number, role }) => number > 0 && role !== 'uplink');
    const joins =
      lan.find(({ id }) => (linksOf(draft.plan).get(id) ?? []).some(({ to }) => seats.has(to))) ?? lan[0];
    for (const port of ports) {
      if (port.role === 'uplink')
        draft.update('port', port.id, { ...parked(draft.plan), enabled: false, profile: null });
      else if (port.number === 0 || port.id === joins?.id)
        draft.update('port', port.id, { ...access(vlan.id), profile: null });
    }
    return `${device.name}: access point in ${vlan.name} at ${formatAddress(address)}, routing and leasing nothing`;
  },
);
