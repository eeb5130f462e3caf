import { type Plan, type Device, addressesOn, interfacesOf } from '../../plan';
import { domainsOf } from '../../model/hosts';
import { formatAddress } from '../../address';
import type { MacCheck, NameCheck } from '../finding';
import { clearMac } from './hosts';

const byId = (a: { id: string }, b: { id: string }) => (a.id < b.id ? -1 : 1);

const macTwice: MacCheck = {
  id: 'mac-twice',
  station: 'addresses',
  scope: 'mac',
  *find(plan, { shared: mac, records }) {
    const [first, ...later] = [...records].sort(byId);
    // A router may answer with one MAC in every VLAN: only different devices collide.
    for (const item of later.filter((other) => other.device !== first!.device)) {
      const device = plan.device.get(item.device)!;
      const other = plan.device.get(first!.device)!;
      yield {
        severity: 'fix',
        on: { table: 'interface', id: item.id },
        also: [{ table: 'interface', id: first!.id }],
        what: `${device.name} has the MAC of ${other.name}`,
        because: `Both are recorded with ${mac}; a reservation would go to whichever asks first.`,
        remedies: [
          clearMac({ interface: item, device }),
          // With a third one left, clearing the first would not help.
          ...(later.length === 1 ? [clearMac({ interface: first!, device: other })] : []),
        ],
      };
    }
  },
};

const addressesOfDevice = (plan: Plan, device: Device) =>
  interfacesOf(plan, device.id).flatMap((item) => addressesOn(plan, item.id));

const nameTwice: NameCheck = {
  id: 'name-twice',
  station: 'addresses',
  scope: 'name',
  *find(plan, { records }) {
    if (records.length < 2) return;
    const devices = [...records].sort(byId);
    const seen = new Map<string, Device>();
    for (const device of devices) {
      const domains = [...domainsOf(plan, device)];
      const clash = domains.find((domain) => seen.has(domain));
      for (const domain of domains) if (!seen.has(domain)) seen.set(domain, device);
      if (clash === undefined) continue;
      const address = addressesOfDevice(plan, device)[0]!;
      yield {
        severity: 'fix',
        on: { table: 'device', id: device.id },
        also: [{ table: 'address', id: address.id }],
        what: `The name ${device.name} is used twice`,
        because: `${formatAddress(address.address)} and another device both are ${device.name}${clash ? `.${clash}` : ''}; DNS answers with either.`,
        remedies: [
          {
            label: 'Name it by the site’s pattern',
            operation: 'renameByPattern',
            input: { address: address.id },
          },
        ],
      };
    }
  },
};

export const identityChecks = { mac: [macTwice], name: [nameTwice] };
