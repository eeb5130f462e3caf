import { formatPrefix } from '../address';
import { type Plan, type Device, type Zone, portsText } from '../plan';
import {
  ruleHolds,
  rulesOf,
  enforcement,
  filterOf,
  matchText,
  serviceOf,
  partiesText,
  passing,
  vlansOfZone,
  zonesOf,
} from '../model/policy';
import { forwardsOf, targetOf, uplinksOf } from '../model/uplink';
import { csvText } from './csv';

/** The policy as lines in the order in which a box asks them, for gear of any kind. */
export interface RuleLine {
  /** The boxes that see to it, in words and by id; null for whichever routes the pair. */
  readonly boxes: string;
  readonly devices: readonly string[] | null;
  readonly from: string;
  readonly to: string;
  readonly services: string;
  readonly ports: string;
  readonly action: 'allow' | 'deny';
  readonly log: boolean;
  readonly until: string;
  readonly note: string;
  /** Where the line comes from. */
  readonly source: 'rule' | 'forward' | 'matrix' | 'answer';
}

const line = (fields: Partial<RuleLine> & Pick<RuleLine, 'source' | 'action'>): RuleLine => ({
  boxes: '',
  devices: null,
  from: 'anybody',
  to: 'anybody',
  services: 'everything',
  ports: '',
  log: false,
  until: '',
  note: '',
  ...fields,
});

function servicesIn(plan: Plan, ids: readonly string[]): Pick<RuleLine, 'services' | 'ports'> {
  const known = ids.flatMap((id) => serviceOf(plan, id) ?? []);
  return {
    services: known.map(({ name }) => name).join(', '),
    ports: known.flatMap(({ matches }) => matches.map(matchText)).join(', '),
  };
}

const seenToBy = (devices: readonly Device[]): Pick<RuleLine, 'boxes' | 'devices'> => ({
  boxes: devices.map(({ name }) => name).join(', '),
  devices: devices.map(({ id }) => id),
});

/** Rules, then what forwards open, then what the matrix allows, then answers for boxes that keep no track of them. */
export function ruleScheduleOf(plan: Plan, today: string | null): RuleLine[] {
  const lines: RuleLine[] = [];
  for (const rule of rulesOf(plan)) {
    if (!ruleHolds(rule, today)) continue;
    lines.push(
      line({
        source: 'rule',
        action: rule.action,
        ...(rule.device === null
          ? { boxes: 'whoever routes the pair' }
          : seenToBy([plan.device.get(rule.device)!])),
        from: partiesText(plan, rule.from),
        to: partiesText(plan, rule.to),
        ...(rule.services.length === 0 ? {} : servicesIn(plan, rule.services)),
        log: rule.log,
        until: rule.until ?? '',
        note: rule.note,
      }),
    );
  }
  for (const uplink of uplinksOf(plan).filter(({ enabled, noForwards }) => enabled && !noForwards))
    for (const forward of forwardsOf(plan, uplink.id).filter(({ enabled }) => enabled))
      lines.push(
        line({
          source: 'forward',
          action: 'allow',
          ...seenToBy([plan.device.get(uplink.device)!]),
          from: `${uplink.name}: ${forward.sources.map(formatPrefix).join(', ') || 'anybody'}`,
          to: targetOf(plan, forward).name,
          services: `outside ${portsText(forward.protocol, forward.from, forward.to)}`,
          ports: portsText(forward.protocol, forward.inside, forward.inside + forward.to - forward.from),
          note: forward.note,
        }),
      );
  const answers: RuleLine[] = [];
  for (const from of zonesOf(plan))
    for (const to of zonesOf(plan)) {
      const { decision, services } = passing(plan, from, to);
      if (decision === 'deny') continue;
      const { boxes, filter } = enforcement(plan, from, to);
      if (filter === null) continue;
      const passed: Partial<ReturnType<typeof servicesIn>> =
        decision === 'services' ? servicesIn(plan, services) : {};
      const fields = { action: 'allow' as const, ...seenToBy(boxes), ...passed };
      lines.push(
        line({ ...fields, source: 'matrix', from: senders(plan, from, decision === 'wish'), to: to.name }),
      );
      const weak = boxes.filter((device) => filterOf(plan, device) === 'stateless');
      if (weak.length > 0 && from !== to)
        answers.push(
          line({
            ...fields,
            ...(passed.ports ? { ports: passed.ports.replaceAll(/(tcp|udp) /g, '$1 from ') } : {}),
            source: 'answer',
            ...seenToBy(weak),
            from: to.name,
            to: from.name,
            note: 'answers only: tcp without a lone SYN, udp and icmp of what was asked',
          }),
        );
    }
  return [
    ...lines,
    ...answers,
    line({ source: 'matrix', action: 'deny', note: 'whatever is not allowed above' }),
  ];
}

const senders = (plan: Plan, zone: Zone, wish: boolean): string =>
  wish
    ? vlansOfZone(plan, zone)
        .filter(({ internet }) => internet)
        .map(({ id }) => plan.vlan.get(id)!.name)
        .join(', ')
    : zone.name;

export const ruleHead = [
  'line',
  'box',
  'action',
  'from',
  'to',
  'service',
  'ports',
  'log',
  'until',
  'from where',
  'note',
];

export const ruleCells = (item: RuleLine, i: number): string[] => [
  String(i + 1),
  item.boxes,
  item.action,
  item.from,
  item.to,
  item.services,
  item.ports,
  item.log ? 'yes' : '',
  item.until,
  item.source,
  item.note,
];

export const ruleScheduleCsv = (plan: Plan, today: string | null): string =>
  csvText([ruleHead, ...ruleScheduleOf(plan, today).map(ruleCells)]);
