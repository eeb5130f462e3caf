import {
  type AddressRange,
  formatPrefix,
  parseAddress,
  parseNetwork,
  parsePrefix,
  rangeOf,
} from '../../address';
import { columnsIn, rowsIn } from '../../edit';
import { prefixesIn } from '../../formats';
import { allServices, isOutside, matchText, onLine, passing, rulesOf, zonesOf } from '../../model/policy';
import {
  type Party,
  type Plan,
  Refusal,
  type Vlan,
  type WireCall,
  type Zone,
  subnetsOf,
  vlansOf,
} from '../../plan';
import { type ReadRow, Reading, type TableKind, type Taking } from '../row';

/**
 * Who may talk to whom. From whole zones to whole zones it is a cell; for single addresses, and where something is denied, it is a rule
 * above the cells. Nothing that is there is taken away.
 */

/** What an interface of a Linux box carries, by its name: `vlan20`, `lan0.20`, `br-20`. */
const VLAN_NAME = /(?:vlan|[.-])(\d{1,4})$/;
const OUTSIDE = /^(wan|ppp|internet|outside)/i;

function rangeIn(text: string): AddressRange | null {
  const [start, end] = text.split('-').map((part) => parseAddress(part));
  if (start != null && end != null && typeof start === typeof end) return { start, end };
  const network = parseNetwork(text);
  return network && rangeOf(network);
}

/** The segments an address range covers whole. */
const coveredBy = (plan: Plan, { start, end }: AddressRange): Vlan[] =>
  vlansOf(plan).filter((vlan) => {
    const own = subnetsOf(plan, vlan.id)
      .map(({ prefix }) => rangeOf(prefix))
      .filter((range) => typeof range.start === typeof start);
    return own.length > 0 && own.every((range) => start <= range.start && range.end <= end);
  });

const OUT = 'outside';
/** What one name stands for: segments by id, or the outside. Throws a Refusal. */
function membersOf(plan: Plan, text: string): Set<string> {
  const wanted = text.trim().toLowerCase();
  const zone = zonesOf(plan).find(({ name }) => name.toLowerCase() === wanted);
  if (zone) return new Set(zoneMembers(zone));
  if (OUTSIDE.test(wanted)) return new Set([OUT]);
  const vid = VLAN_NAME.exec(wanted)?.[1];
  const vlan = vlansOf(plan).find(
    (one) =>
      [one.name.toLowerCase(), one.code.toLowerCase(), String(one.vid)].includes(wanted) ||
      (vid !== undefined && String(one.vid) === vid && parseAddress(wanted) === null),
  );
  if (vlan) return new Set([vlan.id]);
  const range = rangeIn(text.trim());
  const covered = range ? coveredBy(plan, range) : [];
  if (covered.length > 0) return new Set(covered.map(({ id }) => id));
  throw new Refusal(
    'bad-input',
    range
      ? `${text.trim()} is no whole segment of this site`
      : `“${text.trim()}” is no zone, segment, interface or network of this site`,
  );
}
const zoneMembers = (zone: Zone): string[] => [...zone.vlans, ...(isOutside(zone) ? [OUT] : [])];

/** `a | b` is either, `a & b` is what is both. The zones that make it up exactly. Throws a Refusal. */
function zonesIn(plan: Plan, text: string): Zone[] {
  if (text.trim() === '')
    throw new Refusal('bad-input', 'it does not say from whom to whom; anybody is no zone');
  const sets = text.split('&').map((part) => {
    const either = part.split('|').map((one) => membersOf(plan, one));
    return new Set(either.flatMap((set) => [...set]));
  });
  const members = [...sets[0]!].filter((id) => sets.every((set) => set.has(id)));
  const zones = zonesOf(plan).filter((zone) => zoneMembers(zone).some((id) => members.includes(id)));
  const partly = zones.find((zone) => !zoneMembers(zone).every((id) => members.includes(id)));
  if (partly)
    throw new Refusal(
      'bad-input',
      `it is a part of the zone ${partly.name} only; a cell speaks of all of it`,
    );
  if (zones.length === 0 || members.length === 0)
    throw new Refusal('bad-input', `“${text.trim()}” is in no zone; make one under Who may talk first`);
  return zones;
}

/** Services by name or by ports; those that no service is for are added. Null for everything. Throws a Refusal. */
function servicesIn(taking: Taking, text: string, reading: Reading): string[] | null {
  if (/^\s*(everything|any|all)?\s*$/i.test(text)) return null;
  const typed = new Set(text.split(',').map((part) => part.trim().toLowerCase()));
  const left = new Set(typed);
  const found: string[] = [];
  const known = allServices(taking.plan)
    .map(({ id, name, matches }) => ({ id, name: name.toLowerCase(), ports: matches.map(portsOf) }))
    .sort((a, b) => b.ports.length - a.ports.length);
  for (const { id, name, ports } of known) {
    const whole = ports.every((one) => typed.has(one)) && ports.some((one) => left.has(one));
    if (!left.has(name) && !whole) continue;
    found.push(id);
    for (const one of [name, ...ports]) left.delete(one);
  }
  for (const part of left) {
    if (!/^(tcp|udp) \d{1,5}(-\d{1,5})?$/.test(part))
      throw new Refusal('bad-input', `“${part}” is no service here; write one like tcp 443`);
    taking.take({ operation: 'addService', input: { name: part, ports: part } });
    reading.repaired.push(`the service ${part} is added`);
    found.push(allServices(taking.plan).find(({ name }) => name === part)!.id);
  }
  return found;
}
/** What a service matches as it is typed. */
const portsOf = (match: Parameters<typeof matchText>[0]): string => matchText(match).toLowerCase();

/** Lets a pair have services besides what it has; nothing where it has them. */
function letThrough(plan: Plan, from: Zone, to: Zone, services: readonly string[] | null): WireCall[] {
  const now = passing(plan, from, to);
  if (now.decision === 'allow') return [];
  const had: readonly string[] = now.decision === 'services' ? now.services : [];
  if (services !== null && services.every((id) => had.includes(id))) return [];
  const decision = services === null ? 'allow' : 'services';
  const all = services === null ? [] : [...new Set([...had, ...services])];
  return [
    {
      operation: 'decidePairs',
      input: { pairs: [{ from: from.id, to: to.id }], decision, services: all },
    },
  ];
}

/** Single addresses as parties of a rule, within the segments they are said to come from. Throws a Refusal. */
function addressesIn(plan: Plan, text: string): Party[] {
  const parts = text.split('&').map((part) => part.split('|').map((one) => one.trim()));
  const typed = parts.filter((part) => part.every((one) => rangeIn(one) !== null));
  const others = parts.filter((part) => !typed.includes(part));
  if (typed.length !== 1) throw new Refusal('bad-input', `“${text.trim()}” is neither zones nor addresses`);
  const inside = new Set(others.flatMap((part) => part.flatMap((one) => [...membersOf(plan, one)])));
  const ranges = typed[0]!.map((one) => rangeIn(one)!);
  const within = (range: AddressRange) =>
    [...plan.subnet.values()].some(
      ({ vlan, prefix }) =>
        (others.length === 0 || inside.has(vlan)) &&
        typeof prefix.address === typeof range.start &&
        rangeOf(prefix).start <= range.start &&
        range.end <= rangeOf(prefix).end,
    );
  if (!ranges.every(within))
    throw new Refusal('bad-input', `“${text.trim()}” does not lie in one segment of this site`);
  return ranges.flatMap(({ start, end }) =>
    prefixesIn([onLine(start), onLine(end)]).map((prefix) => ({ prefix })),
  );
}

/** Parties of a rule: zones where it is whole ones, else addresses. None for anybody. */
function partiesIn(plan: Plan, text: string): Party[] {
  if (text.trim() === '') return [];
  try {
    return zonesIn(plan, text).map(({ id }) => ({ zone: id }));
  } catch (error) {
    if (!(error instanceof Refusal)) throw error;
    const parts = text.split('&');
    if (parts.length === 1 && parts[0]!.split('|').every((one) => rangeIn(one) === null)) throw error;
    return addressesIn(plan, text);
  }
}

const wireParty = (party: Party) => ('prefix' in party ? { prefix: formatPrefix(party.prefix) } : party);

/** A rule at the end of those there are; nothing where one says the same. */
function ruleFor(
  taking: Taking,
  from: Party[],
  to: Party[],
  services: string[],
  action: 'allow' | 'deny',
): void {
  const said = JSON.stringify([from.map(wireParty), to.map(wireParty), services, action]);
  const there = rulesOf(taking.plan).some(
    (rule) =>
      JSON.stringify([rule.from.map(wireParty), rule.to.map(wireParty), rule.services, rule.action]) === said,
  );
  if (there) return;
  taking.take({
    operation: 'addRule',
    input: { from: from.map(wireParty), to: to.map(wireParty), services, action },
  });
}

/** Both ends as zones; null where one is less than a zone, or anybody. Throws a Refusal for what is no end at all. */
function cellOf(plan: Plan, from: string, to: string): { from: Zone[]; to: Zone[] } | null {
  const [a, b] = [partiesIn(plan, from), partiesIn(plan, to)];
  const zoned = (parties: readonly Party[]) =>
    parties.length > 0 && parties.every((party) => 'zone' in party)
      ? parties.map((party) => plan.zone.get((party as { zone: string }).zone)!)
      : null;
  const [x, y] = [zoned(a), zoned(b)];
  return x && y ? { from: x, to: y } : null;
}

function readWay(taking: Taking, line: number, value: (column: Column) => string): ReadRow {
  const reading = new Reading();
  const action = /^(deny|drop|reject|no|block)/i.test(value('action')) ? 'deny' : 'allow';
  let cells = [
    value('from') || 'anybody',
    value('to') || 'anybody',
    value('service') || 'everything',
    action,
  ];
  const steps = taking.steps.length;
  try {
    const { plan } = taking;
    if (action === 'allow' && value('from') === '' && value('to') === '')
      throw new Refusal('bad-input', 'it lets everybody reach everybody; say who is meant');
    const ends = cellOf(plan, value('from'), value('to'));
    const open = (a: Zone, b: Zone) => passing(plan, a, b).decision === 'allow';
    const said = action === 'allow' && ends?.from.every((a) => ends.to.every((b) => open(a, b)));
    const services = said ? null : servicesIn(taking, value('service'), reading);
    if (ends && action === 'allow') {
      const names = (zones: readonly Zone[]) => zones.map(({ name }) => name).join(', ');
      cells = [names(ends.from), names(ends.to), cells[2]!, action];
      // Where some get to the Internet as their segments say, saying it for services would take the rest away.
      const wished = ends.from.some((a) => ends.to.some((b) => passing(plan, a, b).decision === 'wish'));
      if (wished && services !== null)
        throw new Refusal(
          'bad-input',
          'there each segment says whether it gets to the Internet; decide the pair under Who may talk first',
        );
      for (const a of ends.from)
        for (const b of ends.to) taking.take(...letThrough(taking.plan, a, b, services));
    } else {
      const [from, to] = [partiesIn(plan, value('from')), partiesIn(plan, value('to'))];
      ruleFor(taking, from, to, services ?? [], action);
      reading.changed.push('as a rule above the cells');
    }
  } catch (error) {
    if (!(error instanceof Refusal)) throw error;
    reading.refused.push(error.message);
  }
  return reading.row(line, cells, taking.steps.length === steps);
}

type Column = 'from' | 'to' | 'service' | 'action';

export const ways: TableKind = {
  id: 'ways',
  title: 'who may talk',
  columns: [
    { id: 'from', title: 'from' },
    { id: 'to', title: 'to' },
    { id: 'service', title: 'service' },
    { id: 'action', title: 'allow or deny' },
  ],
  heads: ['From', 'To', 'Service', 'Action'],
  guess: (cells) =>
    columnsIn<Column>(cells, {
      heads: {
        from: ['from', 'source', 'from zone', 'src'],
        to: ['to', 'destination', 'to zone', 'dst'],
        service: ['service', 'services', 'ports', 'port', 'what'],
        action: ['action', 'verdict', 'decision', 'allow or deny'],
      },
      looks: [
        ['service', (cell) => /^(tcp|udp) \d/i.test(cell)],
        ['action', (cell) => /^(allow|deny|accept|drop|reject)$/i.test(cell)],
      ],
      rest: ['from', 'to', 'service'],
      isRow: (cell) => parsePrefix(cell) !== null,
    }),
  *read(taking, cells, columns) {
    const rows: ReadRow[] = [];
    for (const { line, value } of rowsIn<string>(cells, columns)) {
      rows.push(readWay(taking, line, value));
      yield;
    }
    return rows;
  },
};
