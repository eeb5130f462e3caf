import { formatAddress } from '../address/ip';
import { formatPrefix } from '../address/prefix';
import { boxOf } from './box-of';
import type { Plan } from './plan';
import type { AnyRecord, Port, RecordOf, TableName } from './records';

/** Plain words for records and fields, as used in labels, differences and refusals. */

const names: Readonly<Record<string, string>> = {
  vid: 'VLAN id',
  mac: 'MAC address',
  dns: 'DNS servers',
  ownDns: 'own DNS',
  ownGateway: 'own gateway',
  ownLength: 'own mask',
  servedBy: 'served by',
  internet: 'Internet',
  lease: 'lease (s)',
  space: 'address space',
  fixed: 'fixed addresses',
  sizing: 'subnet size',
  transient: 'people who come and go',
  infrastructureBand: 'infrastructure band',
  fixedBand: 'fixed band',
  gatewayHabit: 'gateway habit',
  namingPattern: 'naming pattern',
  reservationInPool: 'reservation inside the pool',
  timeZone: 'time zone',
  foreign: 'foreign networks',
  vlanAware: 'understands VLANs',
  vlanLimit: 'VLAN limit',
  mixesTags: 'mixes tagged and untagged',
  layer3: 'routes',
  spanningTree: 'spanning tree',
  dot1x: '802.1X',
  factory: 'ports from the factory',
  poeBudget: 'PoE budget (W)',
  poeClass: 'PoE class',
  powerFeeds: 'power feeds',
  mounting: 'rack or rail',
  assetTag: 'asset tag',
  revision: 'hardware revision',
  baseMac: 'base MAC',
  supportedUntil: 'firmware supported until',
  licenceUntil: 'licence until',
  loginChanged: 'default login changed',
  loginKept: 'login kept',
  pvid: 'PVID',
  untagged: 'untagged VLAN',
  taggedMode: 'tagged',
  tagged: 'tagged VLANs',
  voice: 'voice VLAN',
  accepts: 'accepted frames',
  ingressFilter: 'ingress filtering',
  setsItself: 'sets its role itself',
  index: 'index inside',
  providerVlan: 'provider VLAN',
  upstream: 'what stands upstream',
  passes: 'passes on',
  outside: 'outside address is',
  network: 'outside network',
  mtu: 'MTU',
  down: 'Mbit/s down',
  up: 'Mbit/s up',
  cap: 'GB a month',
  noForwards: 'lets no forward in',
  delegated: 'IPv6 prefix delegated',
  monitor: 'pings',
  monitorEvery: 'seconds between pings',
  lossesDown: 'lost pings until down',
  repliesUp: 'answered pings until up',
  dynamicName: 'dynamic name',
  inside: 'inside port',
  sources: 'allowed sources',
  segment: 'stands in segment',
  via: 'next router',
  initiates: 'opens the tunnel',
  remote: 'networks at the other end',
  own: 'its own network',
  needsTag: 'needs the provider’s tag',
  tagRepeated: 'tag repeated inside',
  dscp: 'DSCP',
  firstInQueue: 'first in the queue',
  backedUp: 'runs on when the mains fail',
  manages: 'may open the gateway’s pages',
  until: 'holds until',
  decision: 'passes',
  servers: 'servers',
  costScale: 'path costs',
  hello: 'hello time (s)',
  maxAge: 'max age (s)',
  forwardDelay: 'forward delay (s)',
  maxHops: 'max hops',
  ringManager: 'ring manager',
  ringPorts: 'ring ports',
  recovery: 'recovery (ms)',
  vids: 'VLAN ids',
  cost: 'path cost',
  edge: 'edge port',
};

export const fieldName = (_table: TableName, field: string): string => names[field] ?? field;

/** A wire value as a person would write it. */
export function wireText(value: unknown): string {
  if (value === null || value === undefined || value === '') return 'none';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (Array.isArray(value)) return value.length === 0 ? 'none' : value.map(wireText).join(', ');
  if (typeof value === 'object')
    return Object.values(value as Record<string, unknown>)
      .map(wireText)
      .join(' ');
  return String(value);
}

/** A port as people say it: SW-A 7; the inner port by what it is; the only socket of an end device by its name. */
export function portTitle(plan: Plan, port: Pick<Port, 'device' | 'number'>): string {
  const device = plan.device.get(port.device)?.name ?? 'a device';
  if (!boxOf(plan, port.device)) return device;
  return port.number === 0 ? `${device} inside` : `${device} ${port.number}`;
}

/** Transport ports as people write them: tcp 443, udp 5000-5009, tcp+udp 53. */
export const portsText = (protocol: 'tcp' | 'udp' | 'both', from: number, to = from): string =>
  `${protocol === 'both' ? 'tcp+udp' : protocol} ${from === to ? from : `${from}-${to}`}`;

/** What a person calls a record: the segment's name, the host's name, the subnet's prefix. */
export function recordTitle(plan: Plan, table: TableName, record: AnyRecord): string {
  const as = <T extends TableName>() => record as RecordOf<T>;
  switch (table) {
    case 'site':
    case 'lan':
    case 'profile':
    case 'zone':
    case 'service':
    case 'device':
      return as<'device'>().name;
    case 'vlan':
      return `${as<'vlan'>().name} (VLAN ${as<'vlan'>().vid})`;
    case 'interface': {
      const device = plan.device.get(as<'interface'>().device);
      const vlan = as<'interface'>().vlan && plan.vlan.get(as<'interface'>().vlan!);
      return `${device?.name ?? 'interface'}${vlan ? ` in ${vlan.name}` : ''}`;
    }
    case 'box':
    case 'aggregate': {
      const device = plan.device.get(as<'box'>().device)?.name ?? 'a device';
      return table === 'box' ? `box of ${device}` : `${device} ${as<'aggregate'>().name}`;
    }
    case 'port':
      return portTitle(plan, as<'port'>());
    case 'cable': {
      const end = (id: string) => {
        const port = plan.port.get(id);
        return port ? portTitle(plan, port) : 'a port';
      };
      return `cable ${end(as<'cable'>().from)} = ${end(as<'cable'>().to)}`;
    }
    case 'bridge':
      return `spanning tree of ${plan.device.get(as<'bridge'>().device)?.name ?? 'a device'}`;
    case 'instance':
      return `instance ${as<'instance'>().number} of ${plan.device.get(as<'instance'>().device)?.name ?? 'a device'}`;
    case 'treePort': {
      const port = plan.port.get(as<'treePort'>().port);
      return `${port ? portTitle(plan, port) : 'a port'} in tree ${as<'treePort'>().instance}`;
    }
    case 'question':
      return as<'question'>().why ? `question “${as<'question'>().why}”` : 'a question';
    case 'subnet':
      return formatPrefix(as<'subnet'>().prefix);
    case 'pool':
    case 'exclusion': {
      const range = as<'pool'>();
      return `${table} ${formatAddress(range.start)}–${formatAddress(range.end)}`;
    }
    case 'relay': {
      const item = plan.interface.get(as<'relay'>().interface);
      return `relay of ${item ? recordTitle(plan, 'interface', item) : 'an interface'}`;
    }
    case 'address': {
      const item = plan.interface.get(as<'address'>().interface);
      const device = item && plan.device.get(item.device);
      return `${device?.name ?? 'address'} ${formatAddress(as<'address'>().address)}`;
    }
    case 'uplink':
      return `uplink ${as<'uplink'>().name}`;
    case 'forward': {
      const { protocol, from, to } = as<'forward'>();
      return `forward ${portsText(protocol, from, to)}`;
    }
    case 'offer': {
      const device = plan.device.get(as<'offer'>().device)?.name ?? 'a device';
      return `${device} ${portsText(as<'offer'>().protocol, as<'offer'>().port, as<'offer'>().port)}`;
    }
    case 'route':
      return `route to ${formatPrefix(as<'route'>().prefix)}`;
    case 'tunnel':
      return `tunnel ${as<'tunnel'>().name}`;
    case 'translation':
      return `1:1 translation to ${formatPrefix(as<'translation'>().outside)}`;
    case 'voiceBox':
      return `telephone box ${plan.device.get(as<'voiceBox'>().device)?.name ?? ''}`.trim();
    case 'cell': {
      const zone = (id: string) => plan.zone.get(id)?.name ?? 'a zone';
      return `${zone(as<'cell'>().from)} to ${zone(as<'cell'>().to)}`;
    }
    case 'rule':
      return as<'rule'>().note ? `rule “${as<'rule'>().note}”` : 'a rule';
    case 'acceptance':
      return `acceptance of ${as<'acceptance'>().finding}`;
  }
}
