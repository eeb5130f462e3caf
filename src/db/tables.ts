import type { DnsServer, Party, TableName } from '../core/plan/records';
import {
  type FieldColumns,
  address,
  addressList,
  flag,
  moment,
  numbers,
  optionalPrefix,
  plain,
  prefix,
  words,
} from './columns';

/** A list inside a record, kept as rows of its own in order. */
export interface ChildTable {
  readonly field: string;
  readonly sql: string;
  readonly columns: readonly FieldColumns[];
  /** From the fields of a row to the item of the list, and back. */
  readonly item: (fields: Record<string, unknown>) => unknown;
  readonly fields: (item: never) => Record<string, unknown>;
}

export interface TableMap {
  readonly sql: string;
  readonly columns: readonly FieldColumns[];
  readonly children: readonly ChildTable[];
}

const whole = {
  item: (fields: Record<string, unknown>) => fields,
  fields: (item: Record<string, unknown>) => item,
};
const only = (field: string) => ({
  item: (fields: Record<string, unknown>) => fields[field],
  fields: (item: unknown) => ({ [field]: item }),
});

/** What a port or a profile carries: the same columns in both tables. */
const carried: readonly FieldColumns[] = [
  plain('role'),
  plain('pvid', 'pvid_id'),
  plain('untagged', 'untagged_id'),
  plain('taggedMode', 'tagged_mode'),
  plain('voice', 'voice_id'),
  plain('accepts'),
  flag('ingressFilter', 'ingress_filter'),
];
const taggedIn = (sql: string): ChildTable => ({
  field: 'tagged',
  sql,
  columns: [plain('vlan', 'vlan_id')],
  ...only('vlan'),
});

/** Services by id; those of the standard list are in no table. */
const servicesIn = (sql: string): ChildTable => ({
  field: 'services',
  sql,
  columns: [plain('service', 'service_id')],
  ...only('service'),
});

/** Those a rule speaks of: each row has one of its columns filled. */
const partiesIn = (field: string, sql: string): ChildTable => ({
  field,
  sql,
  columns: [
    plain('zone', 'zone_id'),
    plain('vlan', 'vlan_id'),
    plain('device', 'device_id'),
    optionalPrefix('prefix'),
  ],
  item: (fields) => Object.fromEntries(Object.entries(fields).filter(([, value]) => value !== null)),
  fields: (item: Party) => ({ zone: null, vlan: null, device: null, prefix: null, ...item }),
});

/** The one place that says how each record kind is stored. Parents come before children, as in the record list. */
export const tables: { readonly [T in TableName]: TableMap } = {
  site: {
    sql: 'site_record',
    columns: [
      plain('name'),
      plain('kind'),
      plain('numbering'),
      plain('sizing'),
      plain('fixed'),
      flag('reservationInPool', 'reservation_in_pool'),
      plain('management'),
      plain('infrastructureBand', 'infrastructure_band'),
      plain('fixedBand', 'fixed_band'),
      plain('gatewayHabit', 'gateway_habit'),
      plain('namingPattern', 'naming_pattern'),
      plain('domain'),
      flag('documentation'),
      plain('timeZone', 'time_zone'),
      plain('notes'),
    ],
    children: [
      { field: 'space', sql: 'site_space', columns: [prefix('prefix')], ...only('prefix') },
      { field: 'foreign', sql: 'site_foreign', columns: [prefix('prefix'), plain('why')], ...whole },
    ],
  },
  lan: { sql: 'lan', columns: [plain('name')], children: [] },
  vlan: {
    sql: 'vlan',
    columns: [
      plain('lan', 'lan_id'),
      plain('vid'),
      plain('code'),
      plain('name'),
      plain('colour'),
      plain('purpose'),
      flag('internet'),
      plain('devices'),
      plain('growth'),
      numbers('transient', {
        present: 'transient_present',
        arrivalsPerHour: 'transient_arrivals',
        openHours: 'transient_hours',
      }),
      plain('rank', 'rank_key'),
    ],
    children: [],
  },
  device: { sql: 'device', columns: [plain('name'), plain('kind')], children: [] },
  interface: {
    sql: 'interface',
    columns: [
      plain('device', 'device_id'),
      plain('kind'),
      plain('vlan', 'vlan_id'),
      plain('mac'),
      plain('name'),
      plain('ownLength', 'own_length'),
      address('ownGateway', 'own_gateway'),
      addressList('ownDns', 'own_dns'),
    ],
    children: [],
  },
  box: {
    sql: 'box',
    columns: [
      plain('device', 'device_id'),
      plain('model'),
      flag('vlanAware', 'vlan_aware'),
      plain('vlanLimit', 'vlan_limit'),
      flag('mixesTags', 'mixes_tags'),
      words('passes'),
      flag('layer3'),
      plain('filter', 'filter_kind'),
      plain('spanningTree', 'spanning_tree'),
      flag('snooping'),
      flag('dot1x'),
      plain('factory'),
      plain('poeBudget', 'poe_budget'),
      plain('powerFeeds', 'power_feeds'),
      plain('location'),
      plain('mounting'),
      plain('assetTag', 'asset_tag'),
      plain('serial', 'serial_number'),
      plain('revision', 'hardware_revision'),
      plain('baseMac', 'base_mac'),
      plain('firmware'),
      plain('supportedUntil', 'supported_until'),
      plain('licence'),
      plain('licenceUntil', 'licence_until'),
      plain('loginChanged', 'login_changed'),
      plain('loginKept', 'login_kept'),
      plain('controller', 'controller_id'),
    ],
    children: [],
  },
  profile: {
    sql: 'port_profile',
    columns: [plain('name'), ...carried],
    children: [taggedIn('profile_tagged')],
  },
  aggregate: {
    sql: 'aggregate',
    columns: [plain('device', 'device_id'), plain('name'), flag('lacp')],
    children: [],
  },
  port: {
    sql: 'port',
    columns: [
      plain('device', 'device_id'),
      plain('number', 'port_number'),
      plain('index', 'port_index'),
      plain('name'),
      plain('row', 'face_row'),
      plain('column', 'face_column'),
      plain('media'),
      plain('speed'),
      plain('poeClass', 'poe_class'),
      plain('optic'),
      flag('defective'),
      ...carried,
      plain('setsItself', 'sets_itself'),
      flag('enabled'),
      flag('exposed'),
      plain('label'),
      plain('profile', 'profile_id'),
      plain('aggregate', 'aggregate_id'),
    ],
    children: [taggedIn('port_tagged')],
  },
  cable: {
    sql: 'cable',
    columns: [
      plain('from', 'from_id'),
      plain('fromSide', 'from_side'),
      plain('to', 'to_id'),
      plain('toSide', 'to_side'),
      plain('media'),
      plain('length', 'length_m'),
      plain('label'),
    ],
    children: [],
  },
  bridge: {
    sql: 'bridge',
    columns: [
      plain('device', 'device_id'),
      plain('mode', 'tree_mode'),
      plain('priority'),
      plain('costScale', 'cost_scale'),
      plain('hello'),
      plain('maxAge', 'max_age'),
      plain('forwardDelay', 'forward_delay'),
      plain('maxHops', 'max_hops'),
      plain('region'),
      plain('revision'),
      flag('ringManager', 'ring_manager'),
      plain('recovery', 'recovery_ms'),
    ],
    children: [
      {
        field: 'ringPorts',
        sql: 'bridge_ring_port',
        columns: [plain('port', 'port_id')],
        ...only('port'),
      },
    ],
  },
  instance: {
    sql: 'tree_instance',
    columns: [
      plain('device', 'device_id'),
      plain('number', 'instance_number'),
      plain('vids'),
      plain('priority'),
    ],
    children: [],
  },
  treePort: {
    sql: 'tree_port',
    columns: [
      plain('port', 'port_id'),
      plain('instance', 'instance_number'),
      plain('cost', 'path_cost'),
      plain('priority'),
      flag('edge'),
      plain('guard', 'guard_kind'),
    ],
    children: [],
  },
  subnet: {
    sql: 'subnet',
    columns: [plain('vlan', 'vlan_id'), prefix('prefix'), flag('pinned'), plain('domain')],
    children: [
      {
        field: 'dns',
        sql: 'subnet_dns',
        columns: [plain('interface', 'interface_id'), address('literal')],
        item: (fields): DnsServer =>
          fields.interface === null
            ? { literal: fields.literal as number }
            : { interface: fields.interface as string },
        fields: (item: DnsServer) =>
          'interface' in item
            ? { interface: item.interface, literal: null }
            : { interface: null, literal: item.literal },
      },
    ],
  },
  pool: {
    sql: 'pool',
    columns: [plain('subnet', 'subnet_id'), address('start'), address('end'), plain('lease')],
    children: [
      {
        field: 'servedBy',
        sql: 'pool_server',
        columns: [plain('interface', 'interface_id')],
        ...only('interface'),
      },
    ],
  },
  exclusion: {
    sql: 'exclusion',
    columns: [plain('subnet', 'subnet_id'), address('start'), address('end'), plain('why')],
    children: [],
  },
  relay: {
    sql: 'dhcp_relay',
    columns: [plain('interface', 'interface_id')],
    children: [
      {
        field: 'servers',
        sql: 'dhcp_relay_server',
        columns: [plain('interface', 'interface_id')],
        ...only('interface'),
      },
    ],
  },
  address: {
    sql: 'address',
    columns: [
      plain('subnet', 'subnet_id'),
      address('address'),
      plain('interface', 'interface_id'),
      plain('assignment'),
      flag('gateway'),
      plain('note'),
    ],
    children: [],
  },
  uplink: {
    sql: 'uplink',
    columns: [
      plain('device', 'device_id'),
      plain('segment', 'segment_id'),
      plain('port', 'port_id'),
      plain('name'),
      plain('addressing'),
      plain('providerVlan', 'provider_vlan'),
      plain('upstream'),
      plain('passes'),
      plain('outside'),
      address('address'),
      optionalPrefix('network'),
      plain('mtu'),
      plain('down', 'mbit_down'),
      plain('up', 'mbit_up'),
      plain('cap', 'cap_gb'),
      flag('noForwards', 'no_forwards'),
      flag('enabled'),
      optionalPrefix('delegated'),
      plain('tier'),
      plain('weight'),
      address('monitor'),
      plain('monitorEvery', 'monitor_every'),
      plain('lossesDown', 'losses_down'),
      plain('repliesUp', 'replies_up'),
      plain('dynamicName', 'dynamic_name'),
      plain('updater', 'updater_id'),
    ],
    children: [],
  },
  forward: {
    sql: 'forward',
    columns: [
      plain('uplink', 'uplink_id'),
      plain('protocol'),
      plain('from', 'outside_from'),
      plain('to', 'outside_to'),
      plain('target', 'interface_id'),
      plain('inside', 'inside_port'),
      flag('hairpin'),
      flag('enabled'),
      plain('note'),
    ],
    children: [{ field: 'sources', sql: 'forward_source', columns: [prefix('prefix')], ...only('prefix') }],
  },
  offer: {
    sql: 'offer',
    columns: [plain('device', 'device_id'), plain('protocol'), plain('port'), plain('name')],
    children: [],
  },
  route: {
    sql: 'static_route',
    columns: [plain('device', 'device_id'), prefix('prefix'), address('via'), plain('note')],
    children: [],
  },
  tunnel: {
    sql: 'tunnel',
    columns: [
      plain('device', 'device_id'),
      plain('uplink', 'uplink_id'),
      plain('name'),
      plain('peer'),
      flag('initiates'),
      flag('enabled'),
    ],
    children: [{ field: 'remote', sql: 'tunnel_remote', columns: [prefix('prefix')], ...only('prefix') }],
  },
  translation: {
    sql: 'translation',
    columns: [plain('device', 'device_id'), plain('subnet', 'subnet_id'), prefix('outside'), plain('note')],
    children: [],
  },
  voiceBox: {
    sql: 'voice_box',
    columns: [
      plain('device', 'device_id'),
      plain('uplink', 'uplink_id'),
      optionalPrefix('own'),
      flag('needsTag', 'needs_tag'),
      flag('tagRepeated', 'tag_repeated'),
      plain('dscp'),
      flag('firstInQueue', 'first_in_queue'),
      flag('backedUp', 'backed_up'),
    ],
    children: [],
  },
  zone: {
    sql: 'zone',
    columns: [plain('name'), plain('rank', 'rank_key'), flag('gateway'), plain('inside'), flag('manages')],
    children: [
      { field: 'vlans', sql: 'zone_vlan', columns: [plain('vlan', 'vlan_id')], ...only('vlan') },
      { field: 'uplinks', sql: 'zone_uplink', columns: [plain('uplink', 'uplink_id')], ...only('uplink') },
      { field: 'tunnels', sql: 'zone_tunnel', columns: [plain('tunnel', 'tunnel_id')], ...only('tunnel') },
    ],
  },
  service: {
    sql: 'service',
    columns: [plain('name')],
    children: [
      {
        field: 'matches',
        sql: 'service_match',
        columns: [plain('protocol'), plain('from', 'port_from'), plain('to', 'port_to')],
        ...whole,
      },
    ],
  },
  cell: {
    sql: 'policy_cell',
    columns: [plain('from', 'from_id'), plain('to', 'to_id'), plain('decision')],
    children: [servicesIn('cell_service')],
  },
  rule: {
    sql: 'policy_rule',
    columns: [
      plain('rank', 'rank_key'),
      plain('action'),
      flag('log', 'logged'),
      flag('enabled'),
      plain('until', 'until_day'),
      plain('device', 'device_id'),
      plain('note'),
    ],
    children: [partiesIn('from', 'rule_from'), partiesIn('to', 'rule_to'), servicesIn('rule_service')],
  },
  question: {
    sql: 'question',
    columns: [
      plain('rank', 'rank_key'),
      plain('fromPort', 'from_port_id'),
      plain('fromDevice', 'from_device_id'),
      plain('fromVlan', 'from_vlan_id'),
      plain('toDevice', 'to_device_id'),
      plain('toVlan', 'to_vlan_id'),
      address('toAddress', 'to_address'),
      flag('toGateway', 'to_gateway'),
      plain('protocol'),
      plain('port'),
      plain('expected'),
      plain('why'),
    ],
    children: [],
  },
  acceptance: {
    sql: 'acceptance',
    columns: [plain('finding'), plain('evidence'), plain('reason'), plain('who'), moment('at')],
    children: [],
  },
};
