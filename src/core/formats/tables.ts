import { cableEndText } from '../model/wiring';
import { type Plan, byName, subnetsOf, vlansOf } from '../plan';
import { bindingCells, bindingHead } from './bindings';
import { portHead, portRows } from './port-schedule';
import { ruleCells, ruleHead, ruleScheduleOf } from './rule-schedule';
import { addressHead, addressRows, scheduleOf } from './schedule';

/** Everything a plan says as tables: one CSV file each, and the sheets of one workbook. */
export interface PlanTable {
  /** As the file is called, and the title of the sheet in small letters. */
  readonly id: string;
  readonly title: string;
  readonly head: readonly string[];
  readonly rows: (today: string | null) => readonly (readonly string[])[];
}

const segmentHead = [
  'vlan',
  'code',
  'segment',
  'purpose',
  'subnet',
  'gateway',
  'dns',
  'domain',
  'pools',
  'devices now',
  'growth %',
  'internet',
];

/** A row for each subnet, and one for a segment that has none. */
function segmentRows(plan: Plan): string[][] {
  const blocks = scheduleOf(plan);
  return vlansOf(plan).flatMap((vlan) => {
    const lead = [String(vlan.vid), vlan.code, vlan.name, vlan.purpose];
    const end = [String(vlan.devices), String(vlan.growth), vlan.internet ? 'yes' : 'no'];
    const own = blocks.filter((block) => block.vlan.id === vlan.id);
    return subnetsOf(plan, vlan.id).length === 0
      ? [[...lead, '', '', '', '', '', ...end]]
      : own.map(({ prefix, gateway, dns, domain, pools }) => [
          ...lead,
          prefix,
          gateway,
          dns,
          domain,
          pools.map(({ range }) => range).join(', '),
          ...end,
        ]);
  });
}

export const cableHead = ['label', 'from', 'to', 'medium', 'length m'];

/** A row for each cable, by its label, then by where it begins. */
export const cableRows = (plan: Plan): string[][] =>
  [...plan.cable.values()]
    .map(({ label, from, fromSide, to, toSide, media, length }) => [
      label,
      cableEndText(plan, { port: from, side: fromSide }),
      cableEndText(plan, { port: to, side: toSide }),
      media.replaceAll('-', ' '),
      length === null ? '' : String(length),
    ])
    .sort((a, b) => byName(a[0]!, b[0]!) || byName(a[1]!, b[1]!));

export const tablesOf = (plan: Plan): PlanTable[] => [
  { id: 'segments', title: 'segments', head: segmentHead, rows: () => segmentRows(plan) },
  { id: 'addresses', title: 'address schedule', head: addressHead, rows: () => addressRows(plan) },
  { id: 'ports', title: 'port schedule', head: portHead, rows: () => portRows(plan) },
  { id: 'cables', title: 'cables', head: cableHead, rows: () => cableRows(plan) },
  {
    id: 'rules',
    title: 'rule schedule',
    head: ruleHead,
    rows: (today) => ruleScheduleOf(plan, today).map(ruleCells),
  },
  ...(plan.binding.size > 0
    ? [{ id: 'bindings', title: 'bindings', head: bindingHead, rows: () => bindingCells(plan) }]
    : []),
];
