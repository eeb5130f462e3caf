import * as z from 'zod';
import {
  type Draft,
  taggedModes,
  kinds,
  type Port,
  operation,
  type Plan,
  badInput,
  vlansOf,
  portTitle,
} from '../../plan';
import {
  isPassive,
  portsOf,
  fillPattern,
  portsTitle,
  adding,
  dropping,
  type Carried,
  access,
  accessWithVoice,
  carriedOf,
  carries,
  parked,
  sameCarried,
  trunk,
  undecided,
  uplinkRole,
} from '../../model/wiring';

export const portList = z.array(z.string()).min(1, 'No port is chosen; choose at least one.');

/** Ports that an assignment reaches: members of a bundle act together. */
export function together(draft: Draft, ids: readonly string[]): Port[] {
  const ports = new Map<string, Port>();
  for (const id of ids) {
    const port = draft.need('port', id);
    ports.set(id, port);
    if (port.lag !== null)
      for (const other of portsOf(draft.plan, port.device))
        if (other.lag === port.lag) ports.set(other.id, other);
  }
  return [...ports.values()];
}

const vlanCode = (plan: Plan, id: string) => {
  const vlan = plan.vlan.get(id)!;
  return `${vlan.vid} ${vlan.code}`;
};

export const assignmentSchema = z.strictObject({
  ports: portList,
  role: kinds.port.fields.role,
  /** Access: the VLAN. Trunk: the VLAN without a tag, or null for none. */
  vlan: z.string().nullable().optional(),
  voice: z.string().optional(),
  taggedMode: z.enum(taggedModes).optional(),
  tagged: z.array(z.string()).optional(),
});
type Assignment = z.output<typeof assignmentSchema>;
export type AssignmentInput = z.input<typeof assignmentSchema>;

function requireAssignable(plan: Plan, ports: readonly Port[], role: Port['role']): void {
  for (const port of ports) {
    const title = portTitle(plan, port);
    if (port.defective && role !== 'parked')
      throw badInput(`${title} is marked defective; choose another port.`, 'ports');
    if (isPassive(plan.device.get(port.device)!.kind))
      throw badInput(`${title} only joins cables; the port it leads to carries the VLANs.`, 'ports');
    if (port.number === 0 && (role === 'uplink' || role === 'parked'))
      throw badInput(`${title} is where the box itself lives; it can be access or trunk.`, 'ports');
  }
}

/** What a port carries once it is assigned. Throws a Refusal. */
function wantedOf(
  plan: Plan,
  port: Port,
  { role, vlan, voice, taggedMode, tagged }: Omit<Assignment, 'ports'>,
): Carried {
  switch (role) {
    case 'access':
      if (!vlan) throw badInput('An access port needs a segment; type its VLAN id or code.', 'vlan');
      return access(vlan);
    case 'voice': {
      const phones = voice ?? vlansOf(plan).find((item) => item.purpose === 'voice')?.id;
      if (!vlan)
        throw badInput('Access + voice needs the segment of the computer; type its VLAN id or code.', 'vlan');
      if (!phones) throw badInput('No segment has the purpose voice; add one first, or choose it.', 'voice');
      return accessWithVoice(vlan, phones);
    }
    case 'trunk':
      return trunk(
        tagged ?? (port.role === 'trunk' ? port.tagged : []),
        vlan === undefined ? (port.role === 'trunk' ? port.untagged : null) : vlan,
        taggedMode ?? (tagged ? 'list' : port.role === 'trunk' ? port.taggedMode : 'list'),
      );
    case 'parked':
      return parked(plan);
    case 'uplink':
      return uplinkRole;
    case 'undecided':
      return undecided;
  }
}

/** Those of some ports that an assignment changes what they carry. Throws a Refusal where one cannot be assigned. */
export function changedBy(plan: Plan, ports: readonly Port[], assignment: Omit<Assignment, 'ports'>): Port[] {
  requireAssignable(plan, ports, assignment.role);
  return ports.filter((port) => !sameCarried(port, wantedOf(plan, port, assignment)));
}

/** Gives ports a role and what goes with it; says what it did. */
function assign(draft: Draft, { ports: ids, ...assignment }: Assignment): string {
  const { role, vlan, voice, tagged } = assignment;
  const ports = together(draft, ids);
  const plan = draft.plan;
  requireAssignable(plan, ports, role);
  for (const id of [vlan, voice, ...(tagged ?? [])]) if (id) draft.need('vlan', id);
  for (const port of ports)
    draft.update('port', port.id, { ...wantedOf(plan, port, assignment), profile: null });
  const what = {
    access: vlan ? `access ${vlanCode(plan, vlan)}` : '',
    voice: vlan ? `access ${vlanCode(plan, vlan)} + voice` : '',
    trunk: 'trunk',
    parked: 'parked',
    uplink: 'facing a provider',
    undecided: 'undecided',
  }[role];
  return `${portsTitle(plan, ports)}: ${what}`;
}

export const assignPorts = operation('assignPorts', assignmentSchema, assign);

const tableRow = z.union([
  z.strictObject({ assign: assignmentSchema, label: kinds.port.fields.label.nullable() }),
  z.strictObject({ ports: portList, label: kinds.port.fields.label }),
]);
export type PortTableRow = z.input<typeof tableRow>;

/**
 * Many assignments at once, each with a label for its ports or null to leave that as it is, and labels alone. Ports that carry
 * just that already keep all that is set for them otherwise, their profile too.
 */
export const importPorts = operation(
  'importPorts',
  z.strictObject({ rows: z.array(tableRow).min(1) }),
  (draft, { rows }) => {
    const named = new Set<string>();
    for (const row of rows) {
      const ids = 'assign' in row ? row.assign.ports : row.ports;
      for (const id of ids) named.add(id);
      if ('assign' in row) {
        const ports = row.assign.ports.map((id) => draft.need('port', id));
        const changed = changedBy(draft.plan, ports, row.assign);
        if (changed.length > 0) assign(draft, { ...row.assign, ports: changed.map(({ id }) => id) });
      }
      if (row.label !== null) for (const id of ids) draft.update('port', id, { label: row.label });
    }
    const ports = [...named].map((id) => draft.need('port', id));
    return `${ports.length} ports set from a table: ${portsTitle(draft.plan, ports)}`.slice(0, 300);
  },
);

/** Adds VLANs to trunks or takes them off. */
export const carryVlans = operation(
  'carryVlans',
  z.strictObject({ ports: portList, vlan: z.string(), carry: z.boolean() }),
  (draft, { ports: ids, vlan: id, carry }) => {
    const vlan = draft.need('vlan', id);
    const ports = together(draft, ids).filter((port) => carry !== carries(port, id));
    if (ports.length === 0)
      throw badInput(
        `These ports ${carry ? 'carry' : 'do not carry'} ${vlan.vid} ${vlan.code} already.`,
        'ports',
      );
    for (const port of ports) draft.update('port', port.id, carry ? adding(port, id) : dropping(port, id));
    return `${portsTitle(draft.plan, ports)}: ${carry ? 'carry' : 'no longer carry'} ${vlan.vid} ${vlan.code}`;
  },
);

/** Fills the index inside and the name in the configuration of a box's ports by pattern. */
export const mapPorts = operation(
  'mapPorts',
  z.strictObject({
    device: z.string(),
    name: z.string().trim().max(40).optional(),
    index: z.string().trim().max(40).optional(),
  }),
  (draft, { device: id, name, index }) => {
    const device = draft.need('device', id);
    for (const port of portsOf(draft.plan, id)) {
      if (port.number === 0) continue;
      const fill = (pattern: string | undefined, field: string) => {
        if (pattern === undefined || pattern === '') return null;
        const filled = fillPattern(pattern, port.number);
        if (filled === null)
          throw badInput(
            `The pattern “${pattern}” does not work for port ${port.number}; write {n}, {n-1} or {24-n}.`,
            field,
          );
        return filled;
      };
      const named = fill(name, 'name');
      const indexed = fill(index, 'index');
      if (indexed !== null && !/^\d{1,5}$/.test(indexed))
        throw badInput(
          `The index pattern “${index}” gives “${indexed}”; an index is a whole number.`,
          'index',
        );
      draft.update('port', port.id, {
        ...(name === undefined ? {} : { name: named ?? '' }),
        ...(index === undefined ? {} : { index: indexed === null ? null : Number(indexed) }),
      });
    }
    return `${device.name}: ports named by pattern`;
  },
);

/** Makes a VLAN the one without a tag, PVID and untagged alike, or none; the one there was goes on with a tag. */
export const setNative = operation(
  'setNative',
  z.strictObject({ port: z.string(), vlan: z.string().nullable() }),
  (draft, { port: id, vlan: wanted }) => {
    const port = draft.need('port', id);
    const vlan = wanted === null ? null : draft.need('vlan', wanted);
    for (const member of together(draft, [id])) {
      const sent = member.untagged !== null && member.untagged !== wanted ? [member.untagged] : [];
      const listed = new Set(member.tagged);
      for (const old of sent) {
        if (member.taggedMode === 'except') listed.delete(old);
        if (member.taggedMode === 'list') listed.add(old);
      }
      const carried =
        sent.length || member.role === 'trunk'
          ? trunk([...listed], wanted, member.taggedMode)
          : { ...carriedOf(member), pvid: wanted, untagged: wanted };
      draft.update('port', member.id, { ...carried, profile: null });
    }
    return `${portTitle(draft.plan, port)}: ${vlan ? `${vlan.vid} ${vlan.code}` : 'nothing'} without a tag`;
  },
);
