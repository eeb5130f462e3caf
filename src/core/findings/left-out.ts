import { type Plan, type RecordRef, SITE_ID, type TableName, recordIn, recordTitle } from '../plan';
import type { Finding, Station } from './finding';

/**
 * Checks that are left out since they never end, or fail, on one plan. Who watches hears which subject is begun; the one that
 * was begun and not followed by another is the one to leave out, and the rest is worked out without it.
 */
export interface Watch {
  /** Subjects that are not checked, each with why. */
  readonly leftOut: ReadonlyMap<string, string>;
  /** Told of each subject before it is checked. */
  readonly begin: (subject: string) => void;
}

/** A check that takes longer than this is left out where they are watched, in milliseconds. */
export const LIMIT_OF_ONE = 8_000;
/** Where so many are left out it is not one check that is to blame, and there are no findings. */
export const MOST_LEFT_OUT = 10;

/** What is not checked, instead of what would have been found; `stationOf` knows where a check of the whole site belongs. */
export function notChecked(
  plan: Plan,
  subject: string,
  why: string,
  stationOf: (check: string) => Station | undefined,
): Finding {
  const [scope = '', id = ''] = subject.split(' ');
  const { on, what, station = stationOf(id) ?? 'brief' } = aboutOf(plan, scope, id);
  return {
    key: `not-checked:${subject}`,
    check: 'not-checked',
    station,
    severity: 'fix',
    what: `Not checked: ${what}`,
    because: why,
    where: [on],
    remedies: [],
  };
}

const tables: Readonly<Record<string, { readonly table: TableName; readonly station: Station }>> = {
  boxes: { table: 'device', station: 'gear' },
  radios: { table: 'radio', station: 'wireless' },
  ports: { table: 'port', station: 'guards' },
  vlans: { table: 'vlan', station: 'segments' },
  subnets: { table: 'subnet', station: 'addresses' },
};

interface About {
  readonly on: RecordRef;
  readonly what: string;
  readonly station?: Station;
}
function aboutOf(plan: Plan, scope: string, id: string): About {
  const known = tables[scope];
  const record = known && recordIn(plan, known.table, id);
  if (known && record) {
    const on: RecordRef = { table: known.table, id };
    return { on, what: recordTitle(plan, known.table, record), station: known.station };
  }
  const on: RecordRef = { table: 'site', id: SITE_ID };
  const shared = { macs: 'who shares a MAC address', names: 'who shares a name' }[scope];
  return { on, what: shared ?? id.replaceAll('-', ' '), ...(shared && { station: 'addresses' }) };
}
