import { formatPrefix, networkOf, overlaps, prefixFamily } from '../../address';
import type { Subnet, Vlan } from '../../plan';
import type { SubnetCheck } from '../finding';

/** Whether devices get to IPv6 by themselves. */

const ref = (subnet: Subnet) => ({ table: 'subnet' as const, id: subnet.id });
const isForDevices = ({ purpose }: Vlan): boolean => purpose !== 'transit' && purpose !== 'parking';

/** Devices learn prefix and router from advertisements (RFC 4861 section 6.2); no server hands out either. */
const sixSilent: SubnetCheck = {
  id: 'six-unannounced',
  station: 'segments',
  scope: 'subnet',
  *find(_plan, { subnet, vlan, gateways }) {
    if (prefixFamily(subnet.prefix) === 4 || subnet.advertised || gateways.length === 0) return;
    if (!isForDevices(vlan)) return;
    yield {
      severity: 'fix',
      on: ref(subnet),
      what: `Nobody announces the IPv6 of ${vlan.name}`,
      because: `Without router advertisements no device in ${formatPrefix(subnet.prefix)} learns its router, and none makes an address for itself.`,
      remedies: [
        {
          label: 'Let its router announce it',
          operation: 'edit',
          input: { table: 'subnet', id: subnet.id, set: { advertised: true }, seen: { advertised: false } },
        },
      ],
    };
  },
};

/** Devices make the last 64 bits themselves (RFC 4862 section 5.5.3, RFC 4291 section 2.5.1). */
const sixLength: SubnetCheck = {
  id: 'six-not-64',
  station: 'segments',
  scope: 'subnet',
  *find(plan, { subnet, vlan, pools }) {
    const { prefix } = subnet;
    if (prefixFamily(prefix) === 4 || prefix.length === 64 || pools.length > 0 || !isForDevices(vlan)) return;
    const place = networkOf(prefix.address, 64);
    const taken = [...plan.subnet.values()].some(
      (other) => other.id !== subnet.id && overlaps(other.prefix, place),
    );
    yield {
      severity: 'fix',
      on: ref(subnet),
      what: `Devices in ${vlan.name} make no IPv6 address`,
      because: `They configure themselves only in a /64; ${formatPrefix(prefix)} is none, and no pool leases addresses of it.`,
      remedies: taken
        ? []
        : [
            {
              label: `Make it ${formatPrefix(place)}`,
              operation: 'setPrefix',
              input: { subnet: subnet.id, prefix: formatPrefix(place), relocate: true },
            },
          ],
    };
  },
};

export const sixChecks = [sixSilent, sixLength];
