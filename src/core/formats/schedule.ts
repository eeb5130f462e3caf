import { formatAddress, formatPrefix, maskOf, usableHosts, countOf } from '../address';
import {
  type Plan,
  type Address,
  type Subnet,
  type Vlan,
  addressesOf,
  domainOf,
  gatewaysOf,
  hostOf,
  subnetsOf,
  vlansOf,
} from '../plan';
import { dnsText } from '../model/hosts';
import { leaseCapacity } from '../model/segments';
import { csvText } from './csv';

/** The address schedule: what an installer takes to the site, one block per subnet. */
export interface ScheduleBlock {
  readonly vlan: Vlan;
  readonly subnet: Subnet;
  readonly prefix: string;
  readonly mask: string;
  readonly gateway: string;
  readonly dns: string;
  readonly domain: string;
  readonly usable: number;
  readonly pools: readonly {
    readonly range: string;
    readonly count: number;
    readonly leases: number;
    readonly lease: string;
  }[];
  readonly exclusions: readonly { readonly range: string; readonly why: string }[];
  readonly hosts: readonly ScheduleRow[];
}

export interface ScheduleRow {
  readonly address: string;
  readonly name: string;
  readonly kind: string;
  readonly mac: string;
  readonly assignment: string;
  /** Settings really on the device where they differ from the subnet's. */
  readonly own: string;
  readonly note: string;
}

export const assignmentWords: Readonly<Record<Address['assignment'], string>> = {
  static: 'static on device',
  reservation: 'reservation',
  virtual: 'virtual',
};

export const leaseWords = (seconds: number): string =>
  seconds % 86400 === 0
    ? `${seconds / 86400} d`
    : seconds % 3600 === 0
      ? `${seconds / 3600} h`
      : `${Math.round(seconds / 60)} min`;

function rowOf(plan: Plan, address: Address): ScheduleRow {
  const { device, interface: item } = hostOf(plan, address);
  const own = [
    item.ownLength === null ? '' : `mask /${item.ownLength}`,
    item.ownGateway === null ? '' : `gateway ${formatAddress(item.ownGateway)}`,
    item.ownDns === null ? '' : `DNS ${item.ownDns.map(formatAddress).join(' ') || 'none'}`,
  ];
  return {
    address: formatAddress(address.address),
    name: device.name,
    kind: device.kind,
    mac: item.mac ?? '',
    assignment: address.gateway ? 'gateway' : assignmentWords[address.assignment],
    own: own.filter(Boolean).join(', '),
    note: address.note,
  };
}

export const scheduleOf = (plan: Plan): ScheduleBlock[] =>
  vlansOf(plan).flatMap((vlan) =>
    subnetsOf(plan, vlan.id).map((subnet): ScheduleBlock => {
      const show = (range: Parameters<typeof countOf>[0]) =>
        `${formatAddress(range.start)}–${formatAddress(range.end)}`;
      return {
        vlan,
        subnet,
        prefix: formatPrefix(subnet.prefix),
        mask:
          typeof subnet.prefix.address === 'number'
            ? maskOf(subnet.prefix.length)
            : `/${subnet.prefix.length}`,
        gateway: gatewaysOf(plan, subnet.id)
          .map((gateway) => formatAddress(gateway.address))
          .join(', '),
        dns: dnsText(plan, subnet),
        domain: domainOf(plan, subnet),
        usable: usableHosts(subnet.prefix),
        pools: [...plan.pool.group(subnet.id).values()].map((pool) => ({
          range: show(pool),
          count: countOf(pool),
          leases: leaseCapacity(plan, subnet, pool),
          lease: leaseWords(pool.lease),
        })),
        exclusions: [...plan.exclusion.group(subnet.id).values()].map((item) => ({
          range: show(item),
          why: item.why,
        })),
        hosts: addressesOf(plan, subnet.id).map((address) => rowOf(plan, address)),
      };
    }),
  );

export const addressHead = [
  'vlan',
  'segment',
  'subnet',
  'mask',
  'gateway',
  'dns',
  'domain',
  'address',
  'host',
  'kind',
  'mac',
  'assignment',
  'own settings',
  'note',
];

/** The schedule as one table: a row per pool, exclusion and fixed address. */
export const addressRows = (plan: Plan): string[][] =>
  scheduleOf(plan).flatMap((block) => {
    const lead = [
      String(block.vlan.vid),
      block.vlan.name,
      block.prefix,
      block.mask,
      block.gateway,
      block.dns,
      block.domain,
    ];
    return [
      ...block.hosts.map((row) => [
        ...lead,
        row.address,
        row.name,
        row.kind,
        row.mac,
        row.assignment,
        row.own,
        row.note,
      ]),
      ...block.pools.map((pool) => [
        ...lead,
        pool.range,
        '',
        '',
        '',
        'pool',
        '',
        `${pool.leases} leases of ${pool.lease}`,
      ]),
      ...block.exclusions.map((item) => [...lead, item.range, '', '', '', 'excluded', '', item.why]),
      ...(block.hosts.length + block.pools.length + block.exclusions.length === 0
        ? [[...lead, '', '', '', '', '', '', '']]
        : []),
    ];
  });

export const scheduleCsv = (plan: Plan): string => csvText([addressHead, ...addressRows(plan)]);
