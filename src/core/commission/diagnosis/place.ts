import { derive, type Plan, type Step, type TableName, portTitle, recordTitle } from '../../plan';
import { boxLinks } from '../../model/switching';
import { pluggedIn } from '../../exercises';

/** Where somebody goes and looks, so that faults seen by one look count as one. */
export interface Place {
  readonly key: string;
  /** As a technician calls it. */
  readonly title: string;
}

/** Links between boxes by the ports and cables they are made of: whoever looks at one end looks at the other. */
const linkPlaces = derive((plan): ReadonlyMap<string, Place> => {
  const places = new Map<string, Place>();
  for (const { link, a, b } of boxLinks(plan)) {
    const place: Place = {
      key: `link ${[a.id, b.id].sort().join(' ')}`,
      title: `the link ${portTitle(plan, a)} to ${portTitle(plan, b)}`,
    };
    for (const id of [a.id, b.id, ...link.cables]) places.set(id, place);
  }
  return places;
});

/** The socket that the cable of an end device goes into, by the cable. */
const sockets = derive(
  (plan): ReadonlyMap<string, string> =>
    new Map(pluggedIn(plan).map(({ cable, port }) => [cable.id, port.id])),
);

function placeOfPort(plan: Plan, id: string): Place {
  const link = linkPlaces(plan).get(id);
  if (link) return link;
  const port = plan.port.get(id)!;
  return port.number > 0
    ? { key: `port ${id}`, title: `the socket ${portTitle(plan, port)}` }
    : placeOfDevice(plan, port.device);
}

const placeOfDevice = (plan: Plan, id: string): Place => ({
  key: `device ${id}`,
  title: plan.device.get(id)!.name,
});

/** A segment with what is leased and told to its devices. */
const placeOfSegment = (plan: Plan, id: string): Place => ({
  key: `vlan ${id}`,
  title: `the segment ${plan.vlan.get(id)!.name}, its DHCP and names`,
});

/** The pair of zones a rule or a cell speaks of; null where it is not of two zones. */
function pairPlace(plan: Plan, from: string | undefined, to: string | undefined): Place | null {
  const [a, b] = [from, to].map((id) => (id === undefined ? undefined : plan.zone.get(id)));
  return a && b
    ? {
        key: `pair ${a.id} ${b.id}`,
        title: `the rules from ${a.name} to ${b.name}`,
      }
    : null;
}

/** The place of what a deviation changes, by the plan as it should be. */
export function placeOfStep(plan: Plan, { table, id, before, after }: Step): Place {
  const record = (before ?? after)!;
  const own = (field: string) => (record as unknown as Readonly<Record<string, string>>)[field]!;
  const named = (of: TableName, key: string, title: string): Place => ({
    key: `${of} ${key}`,
    title,
  });
  switch (table) {
    case 'port':
      return placeOfPort(plan, id);
    case 'stpPort':
    case 'portGuard':
      return placeOfPort(plan, own('port'));
    case 'cable': {
      const port = sockets(plan).get(id);
      const there = port === undefined ? linkPlaces(plan).get(id) : placeOfPort(plan, port);
      return there ?? named('cable', id, recordTitle(plan, 'cable', record));
    }
    case 'interface':
    case 'bridge':
    case 'box':
    case 'radio':
    case 'route':
    case 'listener':
      return placeOfDevice(plan, own('device'));
    case 'device':
      return placeOfDevice(plan, id);
    case 'address':
    case 'relay':
      return placeOfDevice(plan, plan.interface.get(own('interface'))!.device);
    case 'pool':
    case 'exclusion':
      return placeOfSegment(plan, plan.subnet.get(own('subnet'))!.vlan);
    case 'subnet':
      return placeOfSegment(plan, own('vlan'));
    case 'vlan':
      return placeOfSegment(plan, id);
    case 'ssid':
      return named('ssid', id, `the network ${plan.ssid.get(id)!.name}`);
    case 'zone':
      return named('zone', id, `the zone ${plan.zone.get(id)!.name}`);
    case 'cell':
      return pairPlace(plan, own('from'), own('to')) ?? named('cell', id, 'the matrix');
    case 'rule': {
      const { from, to } = record as unknown as Readonly<Record<'from' | 'to', readonly { zone?: string }[]>>;
      return (
        pairPlace(plan, from[0]?.zone, to[0]?.zone) ??
        named('rule', id, before ? recordTitle(plan, 'rule', before) : 'a rule nobody planned')
      );
    }
    default:
      return named(table, id, recordTitle(plan, table, record));
  }
}
