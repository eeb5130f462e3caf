import * as z from 'zod';
import { type Draft, badInput, equal, fieldName, kinds, operation, wireText } from '../../plan';
import { type PortGuards, factoryPortGuards, portGuardOf } from '../../model/guards';
import { portsTitle } from '../../model/wiring';
import { expectedMacs, isEdge, treeGuardsFor } from '../../rehearse';
import { portList } from '../gear/ports';
import { namesOf, setStpPortFields } from '../tree/operations';

/** What single ports are trusted with and held to. */

/** Sets guards of a port; what is as it comes needs no record. */
export function setPortGuardFields(draft: Draft, port: string, set: Partial<PortGuards>): void {
  draft.need('port', port);
  const known = portGuardOf(draft.plan, port);
  const before: Record<string, unknown> = { ...(known ?? {}) };
  const next = Object.fromEntries(
    Object.entries(factoryPortGuards).map(([field, value]) => [
      field,
      (set as Record<string, unknown>)[field] ?? (field in set ? null : (before[field] ?? value)),
    ]),
  ) as unknown as PortGuards;
  if (equal(next, factoryPortGuards)) {
    if (known) draft.remove('portGuard', known.id);
  } else if (known) draft.update('portGuard', known.id, next);
  else draft.insert('portGuard', { port, ...next });
}

export const setPortGuards = operation(
  'setPortGuards',
  z.strictObject({
    ports: portList,
    set: z.strictObject(kinds.portGuard.fields).omit({ port: true }).partial(),
  }),
  (draft, { ports: ids, set }) => {
    for (const id of ids) setPortGuardFields(draft, id, set);
    const fields = Object.entries(set).map(
      ([field, value]) => `${fieldName('portGuard', field)} ${wireText(value)}`,
    );
    const ports = ids.map((id) => draft.need('port', id));
    return `${portsTitle(draft.plan, ports)}: ${fields.join(', ')}`;
  },
);

/** Limits the MAC addresses of ports where only devices are plugged in to what is to be expected there. */
export const limitMacs = operation('limitMacs', z.strictObject({ ports: portList }), (draft, { ports }) => {
  const limited = ports.filter((id) => {
    const port = draft.need('port', id);
    const expected = expectedMacs(draft.plan, port);
    if (expected === 0) return false;
    setPortGuardFields(draft, id, { macLimit: expected });
    return true;
  });
  if (limited.length === 0)
    throw badInput(
      'Nothing is plugged in there, so no number is to be expected; set a limit by hand.',
      'ports',
    );
  return `${portsTitle(
    draft.plan,
    limited.map((id) => draft.need('port', id)),
  )}: as many MAC addresses as planned`;
});

/** Limits at every port of boxes where only devices are plugged in. */
export const limitEdges = operation(
  'limitEdges',
  z.strictObject({ devices: z.array(z.string()).min(1).max(1000) }),
  (draft, { devices }) => {
    let limited = 0;
    for (const device of devices)
      for (const port of draft.plan.port.group(device).values()) {
        if (port.number === 0 || !isEdge(draft.plan, port)) continue;
        setPortGuardFields(draft, port.id, { macLimit: expectedMacs(draft.plan, port) });
        limited++;
      }
    if (limited === 0) throw badInput('No device is plugged in there.', 'devices');
    return `${namesOf(draft, devices)}: MAC limits at ${limited} ${limited === 1 ? 'port' : 'ports'}`;
  },
);

/** Guards of the tree as the cabling asks for them. */
export const guardTree = operation(
  'guardTree',
  z.strictObject({ devices: z.array(z.string()).min(1).max(1000) }),
  (draft, { devices }) => {
    let guarded = 0;
    for (const device of devices)
      for (const { port, edge, guard } of treeGuardsFor(draft.plan, device)) {
        setStpPortFields(draft, port, 0, { edge, guard });
        guarded++;
      }
    if (guarded === 0)
      throw badInput('No port there wants a guard: no tree runs, or nothing is plugged in.', 'devices');
    return `${namesOf(draft, devices)}: guards of the tree at ${guarded} ${guarded === 1 ? 'port' : 'ports'}`;
  },
);
