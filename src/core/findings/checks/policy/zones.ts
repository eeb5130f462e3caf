import { type Remedy, type Plan, type Device, type Zone, routersOf, plainVlansOf } from '../../../plan';
import {
  type Filter,
  enforcement,
  filterOf,
  serviceOf,
  isOutside,
  type Passing,
  passingOfPairs,
  vlansOfZone,
  zonesOf,
} from '../../../model/policy';
import { policyCheck } from './shared';

/** Whether everything is in one zone, and whether the matrix makes sense. */

const onZone = ({ id }: Zone) => ({ table: 'zone' as const, id });
const own = (label: string, input: object) => ({ label, operation: 'ownZone', input }) satisfies Remedy;

const missing = policyCheck('zone-missing', function* (plan) {
  const zones = zonesOf(plan);
  // Until the first zone is made nothing is decided here, and nothing is missing.
  if (zones.length === 0) return;
  for (const vlan of plainVlansOf(plan))
    if (!zones.some((zone) => zone.vlans.includes(vlan.id)))
      yield {
        severity: 'fix',
        on: { table: 'vlan', id: vlan.id },
        what: `${plan.vlan.get(vlan.id)!.name} is in no zone`,
        because: 'Nothing says whom it may talk to.',
        remedies: [own('Give it a zone of its own', { vlan: vlan.id })],
      };
  for (const uplink of plan.uplink.values()) {
    if (zones.some((zone) => zone.uplinks.includes(uplink.id))) continue;
    const outside = zones.find(isOutside);
    yield {
      severity: 'fix',
      on: { table: 'uplink', id: uplink.id },
      what: `${uplink.name} is in no zone`,
      because: 'Nothing says who may go out by it, and what may come in.',
      remedies: outside
        ? [
            {
              label: `Put it into ${outside.name}`,
              operation: 'putInZone',
              input: { zone: outside.id, uplinks: [uplink.id] },
            },
          ]
        : [own('Give it a zone of its own', { uplink: uplink.id })],
    };
  }
  for (const tunnel of plan.tunnel.values())
    if (!zones.some((zone) => zone.tunnels.includes(tunnel.id)))
      yield {
        severity: 'fix',
        on: { table: 'tunnel', id: tunnel.id },
        what: `${tunnel.name} is in no zone`,
        because: 'Nothing says who may go to the other end, and what may come from there.',
        remedies: [own('Give it a zone of its own', { tunnel: tunnel.id })],
      };
  if (!zones.some(({ gateway }) => gateway))
    yield {
      severity: 'fix',
      on: { table: 'site', id: 'site' },
      what: 'The gateway itself is in no zone',
      because: 'Nothing says who may open its pages.',
      remedies: [own('Give it a zone of its own', {})],
    };
});

const twice = policyCheck('zone-twice', function* (plan) {
  const first = new Map<string, Zone>();
  for (const zone of zonesOf(plan))
    for (const [table, ids] of [
      ['vlan', zone.vlans],
      ['uplink', zone.uplinks],
      ['tunnel', zone.tunnels],
    ] as const)
      for (const id of ids) {
        const other = first.get(id);
        if (!other) {
          first.set(id, zone);
          continue;
        }
        if (other === zone) continue;
        const { name } = plan[table].get(id)!;
        const field = `${table}s`;
        yield {
          severity: 'stop',
          on: { table, id },
          also: [onZone(other), onZone(zone)],
          what: `${name} is in two zones`,
          because: `${other.name} and ${zone.name} may be decided differently; nobody can say which holds.`,
          remedies: [other, zone].map((keep) => ({
            label: `Keep it in ${keep.name}`,
            operation: 'putInZone',
            input: { zone: keep.id, [field]: [id] },
          })),
        };
        first.delete(id);
      }
});

const edit = (label: string, zone: Zone, field: 'manages' | 'inside', value: unknown) =>
  ({
    label,
    operation: 'edit',
    input: { table: 'zone', id: zone.id, set: { [field]: value }, seen: { [field]: zone[field] } },
  }) satisfies Remedy;

const holdsGuests = (plan: Plan, zone: Zone) =>
  vlansOfZone(plan, zone).some(({ purpose }) => purpose === 'guest');

const wrongManagers = policyCheck('zone-manages', function* (plan) {
  for (const zone of zonesOf(plan)) {
    const outside = isOutside(zone);
    if (!zone.manages || (!outside && !holdsGuests(plan, zone))) continue;
    yield {
      severity: 'stop',
      on: onZone(zone),
      what: outside ? 'The gateway’s pages are open to the Internet' : 'Guests may open the gateway’s pages',
      because: `${zone.name} is marked as one that manages: whoever is there can try the gateway’s login.`,
      remedies: [edit(`Close them to ${zone.name}`, zone, 'manages', false)],
    };
  }
});

const guestsTogether = policyCheck('guests-together', function* (plan) {
  for (const zone of zonesOf(plan)) {
    if (zone.inside === 'deny' || !holdsGuests(plan, zone)) continue;
    yield {
      severity: 'note',
      on: onZone(zone),
      what: `Guests in ${zone.name} reach each other`,
      because:
        'People who do not know each other share it; where the boxes can keep them apart, they should.',
      remedies: [edit('Keep them apart', zone, 'inside', 'deny')],
    };
  }
});

const usual = (from: Zone, to: Zone) =>
  ({
    label: 'Take it back',
    operation: 'decidePairs',
    input: { pairs: [{ from: from.id, to: to.id }], decision: 'usual' },
  }) satisfies Remedy;

const openCell = policyCheck('cell-open', function* (plan) {
  for (const cell of plan.cell.values()) {
    const from = plan.zone.get(cell.from)!;
    const to = plan.zone.get(cell.to)!;
    if (cell.decision !== 'allow' || from === to) continue;
    const outside = isOutside(from) && !isOutside(to);
    const guests = holdsGuests(plan, from) && !isOutside(to);
    if (!outside && !guests) continue;
    yield {
      severity: 'stop',
      on: { table: 'cell', id: cell.id },
      also: [onZone(from), onZone(to)],
      what: outside ? `${to.name} is open to the Internet` : `Guests reach all of ${to.name}`,
      because: `Everything passes from ${from.name} to ${to.name}.`,
      remedies: [usual(from, to)],
    };
  }
});

const goneService = policyCheck('cell-service-gone', function* (plan) {
  for (const cell of plan.cell.values()) {
    const gone = cell.services.filter((id) => !serviceOf(plan, id));
    if (gone.length === 0) continue;
    const [from, to] = [plan.zone.get(cell.from)!, plan.zone.get(cell.to)!];
    yield {
      severity: 'fix',
      on: { table: 'cell', id: cell.id },
      what: `${from.name} to ${to.name} names a service that is gone`,
      because: `${gone.length} of its ${cell.services.length} services ${gone.length === 1 ? 'is' : 'are'} nowhere defined.`,
      remedies: [usual(from, to)],
    };
  }
});

interface Guarded {
  readonly from: Zone;
  readonly to: Zone;
  readonly decision: Passing['decision'];
}

/** The pairs of zones that are to be kept apart, wholly or in part, by the box that is weakest on their way. */
function guardedBy(plan: Plan, weakness: Filter): Map<Device, Guarded[]> {
  const found = new Map<Device, Guarded[]>();
  if (!routersOf(plan).some((device) => filterOf(plan, device) === weakness)) return found;
  const zones = zonesOf(plan);
  const decided = passingOfPairs(plan);
  for (const [row, from] of zones.entries())
    for (const [column, to] of zones.entries()) {
      const { decision } = decided[row * zones.length + column]!;
      if (from === to || decision === 'allow') continue;
      const { boxes, filter } = enforcement(plan, from, to);
      if (filter !== weakness) continue;
      const weakest = boxes.find((device) => filterOf(plan, device) === weakness)!;
      found.set(weakest, [...(found.get(weakest) ?? []), { from, to, decision }]);
    }
  return found;
}

const pairsText = (pairs: readonly Guarded[]): string => {
  const shown = pairs.slice(0, 3).map(({ from, to }) => `${from.name} from ${to.name}`);
  return `${shown.join(', ')}${pairs.length > 3 ? ` and ${pairs.length - 3} more pairs` : ''}`;
};

const unenforced = policyCheck('policy-unenforced', function* (plan) {
  for (const [device, pairs] of guardedBy(plan, 'none'))
    yield {
      severity: 'stop',
      on: { table: 'device', id: device.id },
      also: pairs.map(({ from }) => onZone(from)),
      what: `${device.name} keeps nobody apart`,
      because: `It routes between zones and has no filter, so nobody keeps ${pairsText(pairs)}: everything passes, whatever is decided here.`,
    };
});

const stateless = policyCheck('policy-stateless', function* (plan) {
  for (const [device, pairs] of guardedBy(plan, 'stateless')) {
    const partly = pairs.filter(({ decision }) => decision === 'services');
    if (partly.length === 0) continue;
    const [first] = partly;
    yield {
      severity: 'fix',
      on: { table: 'device', id: device.id },
      also: partly.map(({ from }) => onZone(from)),
      what: `${device.name} is stateless: return traffic needs its own rules`,
      because: `It filters each packet by itself: what is allowed from ${first!.from.name} to ${first!.to.name}${partly.length > 1 ? ` and for ${partly.length - 1} more pairs` : ''} must be allowed back, or no answer arrives.`,
    };
  }
});

export const zoneChecks = [
  missing,
  twice,
  wrongManagers,
  guestsTogether,
  openCell,
  goneService,
  unenforced,
  stateless,
];
