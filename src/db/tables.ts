import type { DnsServer, TableName } from '../core/plan/records';
import { type FieldColumns, address, addressList, flag, moment, numbers, plain, prefix } from './columns';

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
  acceptance: {
    sql: 'acceptance',
    columns: [plain('finding'), plain('evidence'), plain('reason'), plain('who'), moment('at')],
    children: [],
  },
};
