import { recordIn, type Plan, type TableName } from '@/core/plan';
import type { AirView, BriefView, CommissionView, Rehearsal, ViewState } from './view';

/** What is chosen, as it stands in the address of the page: a reload, Back and a copied link come back to the same thing. */

type Shown = Pick<
  ViewState,
  | 'vlan'
  | 'address'
  | 'device'
  | 'ports'
  | 'followed'
  | 'air'
  | 'ssid'
  | 'accessPoint'
  | 'uplink'
  | 'forward'
  | 'zone'
  | 'pairs'
  | 'rule'
  | 'brief'
  | 'commission'
  | 'rehearsal'
  | 'probe'
>;
type Name = keyof Shown;

interface Part {
  /** Its name in the address. */
  readonly name: string;
  readonly write: (view: Shown) => string;
  readonly read: (text: string, plan: Plan) => Partial<Shown>;
}

const known = (plan: Plan, table: TableName, id: string) => (recordIn(plan, table, id) ? id : null);
/** One record; one that is no longer there is not chosen. */
const record = (
  field: 'vlan' | 'address' | 'device' | 'ssid' | 'uplink' | 'forward' | 'zone' | 'rule',
  table: TableName,
): Part => ({
  name: field,
  write: (view) => view[field] ?? '',
  read: (text, plan) => ({ [field]: known(plan, table, text) }),
});

const views: readonly Rehearsal[] = ['ask', 'dhcp', 'what-if', 'trees', 'exercise'];
const airViews: readonly AirView[] = ['networks', 'air', 'floor'];
const briefViews: readonly BriefView[] = ['brief', 'proposal', 'habits'];
const commissionViews: readonly CommissionView[] = [
  'order',
  'settings',
  'kit',
  'boxes',
  'tests',
  'found',
  'practice',
  'log',
];
const parts = {
  vlan: record('vlan', 'vlan'),
  address: record('address', 'address'),
  device: record('device', 'device'),
  ports: {
    name: 'port',
    write: ({ ports }) => ports.join('.'),
    read: (text, plan) => ({ ports: text.split('.').filter((id) => known(plan, 'port', id)) }),
  },
  followed: {
    name: 'follow',
    write: ({ followed }) => followed ?? '',
    read: (text, plan) => ({ followed: known(plan, 'vlan', text) }),
  },
  air: {
    name: 'show',
    write: ({ air }) => (air === 'networks' ? '' : air),
    read: (text) => ({ air: airViews.find((view) => view === text) ?? 'networks' }),
  },
  ssid: record('ssid', 'ssid'),
  accessPoint: {
    name: 'at',
    write: ({ accessPoint }) => accessPoint ?? '',
    read: (text, plan) => ({ accessPoint: known(plan, 'device', text) }),
  },
  uplink: record('uplink', 'uplink'),
  forward: record('forward', 'forward'),
  zone: record('zone', 'zone'),
  pairs: {
    name: 'cells',
    write: ({ pairs }) => pairs.map(({ from, to }) => `${from}-${to}`).join('.'),
    read: (text, plan) => ({
      pairs: text.split('.').flatMap((pair) => {
        const [from = '', to = ''] = pair.split('-');
        return known(plan, 'zone', from) && known(plan, 'zone', to) ? [{ from, to }] : [];
      }),
    }),
  },
  rule: record('rule', 'rule'),
  brief: {
    name: 'part',
    write: ({ brief }) => (brief === 'brief' ? '' : brief),
    read: (text) => ({ brief: briefViews.find((view) => view === text) ?? 'brief' }),
  },
  commission: {
    name: 'list',
    write: ({ commission }) => (commission === 'order' ? '' : commission),
    read: (text) => ({ commission: commissionViews.find((view) => view === text) ?? 'order' }),
  },
  rehearsal: {
    name: 'view',
    write: ({ rehearsal }) => (rehearsal === 'ask' ? '' : rehearsal),
    read: (text) => ({ rehearsal: views.find((view) => view === text) ?? 'ask' }),
  },
  probe: {
    name: 'ask',
    write: ({ probe: { from, to, service } }) => (from || to ? [from, to, service].join('|') : ''),
    read: (text) => {
      const [from = '', to = '', service = 'ping'] = text.split('|');
      return { probe: { from, to, service } };
    },
  },
} satisfies Record<Name, Part>;

const byStation: Readonly<Record<string, readonly Name[]>> = {
  segments: ['vlan'],
  addresses: ['vlan', 'address'],
  gear: ['device', 'ports', 'followed'],
  wireless: ['air', 'ssid', 'accessPoint'],
  internet: ['uplink', 'forward'],
  policy: ['zone', 'pairs', 'rule'],
  rehearse: ['rehearsal', 'probe'],
  brief: ['brief'],
  commission: ['commission', 'device'],
};
const namesOf = (station: string) => byStation[station] ?? [];
/** What is refined a bit at a time makes no step of its own to go back by. */
const SMALL: ReadonlySet<Name> = new Set(['ports', 'pairs', 'probe']);

/** The query of a station for what is chosen there; empty for nothing. */
export function writeView(station: string, view: Shown): string {
  const query = new URLSearchParams();
  for (const field of namesOf(station)) {
    const text = parts[field].write(view);
    if (text) query.set(parts[field].name, text);
  }
  return query.toString();
}

/** What a query says is chosen; what it says nothing of is not. */
export function readView(station: string, query: URLSearchParams, plan: Plan): Partial<Shown> {
  const read = namesOf(station).map((field) => parts[field].read(query.get(parts[field].name) ?? '', plan));
  return Object.assign({}, ...read) as Partial<Shown>;
}

/** Does the step from one query to another deserve to be gone back by? */
export function isStep(station: string, before: URLSearchParams, after: URLSearchParams): boolean {
  return namesOf(station).some((field) => {
    const { name } = parts[field];
    return !SMALL.has(field) && before.get(name) !== after.get(name);
  });
}
