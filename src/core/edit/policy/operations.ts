import * as z from 'zod';
import {
  type Draft,
  operation,
  kinds,
  type Rule,
  type Zone,
  putBehind,
  rankBetween,
  badInput,
  removeRecord,
  namedSo,
  requireOwnName,
} from '../../plan';
import { rulesOf, serviceNames, serviceOf, typedMatches, cellOf, zonesOf } from '../../model/policy';

/** Zones, what passes between them, rules above that, and services of the installer's own. */

/** A zone with nothing in it, last in the order. */
export function insertZone(draft: Draft, fields: Pick<Zone, 'name'> & Partial<Omit<Zone, 'id'>>): Zone {
  const rank = rankBetween(zonesOf(draft.plan).at(-1)?.rank ?? null, null);
  return draft.insert('zone', {
    rank,
    vlans: [],
    uplinks: [],
    tunnels: [],
    gateway: false,
    inside: 'allow',
    manages: false,
    ...fields,
  });
}

export const addZone = operation(
  'addZone',
  z.strictObject({ name: z.string().trim() }),
  (draft, { name }) => {
    if (name === '') throw badInput('The zone has no name; write one like guests.', 'name');
    requireOwnName(draft.plan, 'zone', name);
    insertZone(draft, { name });
    return `Zone ${name} added`;
  },
);

export const removeZone = operation('removeZone', z.strictObject({ zone: z.string() }), (draft, input) => {
  const zone = draft.need('zone', input.zone);
  removeRecord(draft, { table: 'zone', id: zone.id });
  return `Zone ${zone.name} removed with what was decided for it`;
});

const sorted = (ids: Iterable<string>) => [...new Set(ids)].sort();
/** A list without those that move, and with them where they go. */
const moved = (had: readonly string[], ids: readonly string[], here: boolean) =>
  sorted([...had.filter((id) => !ids.includes(id)), ...(here ? ids : [])]);

/** Puts segments, uplinks or the gateway itself into a zone, and takes them out of every other. */
export const putInZone = operation(
  'putInZone',
  z.strictObject({
    zone: z.string(),
    vlans: z.array(z.string()).default([]),
    uplinks: z.array(z.string()).default([]),
    tunnels: z.array(z.string()).default([]),
    gateway: z.boolean().default(false),
  }),
  (draft, { zone: id, vlans, uplinks, tunnels, gateway }) => {
    const zone = draft.need('zone', id);
    const names = [
      ...vlans.map((vlan) => draft.need('vlan', vlan).name),
      ...uplinks.map((uplink) => draft.need('uplink', uplink).name),
      ...tunnels.map((tunnel) => draft.need('tunnel', tunnel).name),
      ...(gateway ? ['the gateway itself'] : []),
    ];
    if (names.length === 0) throw badInput('Nothing is chosen to put into the zone.', 'vlans');
    for (const other of zonesOf(draft.plan)) {
      const here = other.id === id;
      draft.update('zone', other.id, {
        vlans: moved(other.vlans, vlans, here),
        uplinks: moved(other.uplinks, uplinks, here),
        tunnels: moved(other.tunnels, tunnels, here),
        gateway: gateway ? here : other.gateway,
      });
    }
    return `${names.join(', ')}: in zone ${zone.name}`;
  },
);

/** Puts something into a zone of its own, named after it. */
export const ownZone = operation(
  'ownZone',
  z.strictObject({
    vlan: z.string().optional(),
    uplink: z.string().optional(),
    tunnel: z.string().optional(),
  }),
  (draft, { vlan, uplink, tunnel }) => {
    const name = vlan
      ? draft.need('vlan', vlan).name
      : uplink
        ? draft.need('uplink', uplink).name
        : tunnel
          ? draft.need('tunnel', tunnel).name
          : 'Gateway';
    let free = name.slice(0, 36);
    for (let n = 2; namedSo(draft.plan, 'zone', free); n++) free = `${name.slice(0, 36)} ${n}`;
    insertZone(draft, {
      name: free,
      vlans: vlan ? [vlan] : [],
      uplinks: uplink ? [uplink] : [],
      tunnels: tunnel ? [tunnel] : [],
      gateway: !vlan && !uplink && !tunnel,
    });
    return `Zone ${free} added for ${name}`;
  },
);

/** Decides pairs of zones; `usual` takes back what was decided. */
export const decidePairs = operation(
  'decidePairs',
  z.strictObject({
    pairs: z
      .array(z.strictObject({ from: z.string(), to: z.string() }))
      .min(1, 'No cell is chosen; choose one.'),
    decision: z.enum([...kinds.cell.fields.decision.options, 'usual']),
    services: kinds.cell.fields.services.default([]),
  }),
  (draft, { pairs, decision, services }) => {
    if (decision === 'services' && services.length === 0)
      throw badInput('No service is named; choose at least one, or deny the pair.', 'services');
    for (const id of services)
      if (!serviceOf(draft.plan, id))
        throw badInput('One of the services is gone; choose them again.', 'services');
    for (const { from, to } of pairs) {
      draft.need('zone', from);
      draft.need('zone', to);
      const cell = cellOf(draft.plan, from, to);
      const kept = decision === 'services' ? [...new Set(services)] : [];
      if (decision === 'usual') {
        if (cell) draft.remove('cell', cell.id);
      } else if (cell) draft.update('cell', cell.id, { decision, services: kept });
      else draft.insert('cell', { from, to, decision, services: kept });
    }
    const [first] = pairs;
    const name = (id: string) => draft.need('zone', id).name;
    const where =
      pairs.length === 1 ? `${name(first!.from)} to ${name(first!.to)}` : `${pairs.length} pairs of zones`;
    const what = {
      allow: 'everything passes',
      deny: 'nothing passes',
      services: `only ${serviceNames(draft.plan, services)}`,
      usual: 'as usual',
    }[decision];
    return `${where}: ${what}`;
  },
);

/** A rule that holds for good, on whichever box routes the pair. */
export function insertRule(
  draft: Draft,
  fields: Pick<Rule, 'rank' | 'from' | 'to' | 'services' | 'action'> & Partial<Rule>,
): void {
  draft.insert('rule', { log: false, enabled: true, until: null, device: null, note: '', ...fields });
}

const ruleFields = z
  .strictObject(kinds.rule.fields)
  .pick({ from: true, to: true, services: true, action: true, note: true });

export const addRule = operation(
  'addRule',
  ruleFields.partial({ from: true, to: true, services: true, note: true }),
  (draft, { from = [], to = [], services = [], action, note = '' }) => {
    const rank = rankBetween(rulesOf(draft.plan).at(-1)?.rank ?? null, null);
    insertRule(draft, { rank, from, to, services, action, note });
    return `Rule added: ${action}${note ? `, “${note}”` : ''}`;
  },
);

const oneRule = z.strictObject({ rule: z.string() });

export const removeRule = operation('removeRule', oneRule, (draft, input) => {
  const rule = draft.need('rule', input.rule);
  draft.remove('rule', rule.id);
  return `Rule${rule.note ? ` “${rule.note}”` : ''} removed`;
});

/** Puts a rule before another, or last. */
export const moveRule = operation(
  'moveRule',
  oneRule.extend({ before: z.string().nullable() }),
  (draft, { rule: id, before }) => {
    const rule = draft.need('rule', id);
    const others = rulesOf(draft.plan).filter((other) => other.id !== id);
    const at = before === null ? others.length : others.findIndex((other) => other.id === before);
    if (at < 0) throw badInput('The rule to go before is gone.', 'before');
    putBehind(draft, 'rule', others, id, others[at - 1]?.id ?? null);
    return `Rule${rule.note ? ` “${rule.note}”` : ''} moved to place ${at + 1}`;
  },
);

/** Says which box enforces a rule; null for the one that routes the pair. */
export const setRuleDevice = operation(
  'setRuleDevice',
  oneRule.extend({ device: z.string().nullable() }),
  (draft, { rule: id, device }) => {
    draft.update('rule', id, { device });
    return `Rule: enforced by ${device === null ? 'whoever routes the pair' : draft.need('device', device).name}`;
  },
);

export const addService = operation(
  'addService',
  z.strictObject({ name: kinds.service.fields.name, ports: z.string() }),
  (draft, { name, ports }) => {
    requireOwnName(draft.plan, 'service', name);
    draft.insert('service', { name, matches: typedMatches(ports) });
    return `Service ${name} added`;
  },
);

export const removeService = operation(
  'removeService',
  z.strictObject({ service: z.string() }),
  (draft, input) => {
    const service = draft.need('service', input.service);
    removeRecord(draft, { table: 'service', id: service.id });
    return `Service ${service.name} removed from wherever it was allowed`;
  },
);
