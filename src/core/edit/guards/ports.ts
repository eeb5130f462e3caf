import * as z from 'zod';
import { type Draft, badInput, equal, fieldName, kinds, operation, pick, wireText } from '../../plan';
import { type PortGuards, factoryPortGuards, portGuardOf } from '../../model/guards';
import { portsTitle } from '../../model/wiring';
import { expectedMacs, treeGuardsFor } from '../../rehearse';
import { portList } from '../gear/ports';
import { namesOf, setStpPortFields } from '../tree/operations';

/** What single ports are trusted with and held to. */

const GUARDS = Object.keys(factoryPortGuards) as (keyof PortGuards)[];

/**
 * Sets guards of a port; what is as it comes needs no record. Who sets many ports hands over the plan as it was before the
 * first.
 */
export function setPortGuardFields(
  draft: Draft,
  port: string,
  set: Partial<PortGuards>,
  plan = draft.plan,
): void {
  draft.need('port', port);
  const known = portGuardOf(plan, port);
  const next: PortGuards = { ...factoryPortGuards, ...(known ? pick(known, GUARDS) : {}), ...set };
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
    const { plan } = draft;
    for (const id of new Set(ids)) setPortGuardFields(draft, id, set, plan);
    const { access, ...plain } = set;
    const asks =
      access === undefined
        ? []
        : [access === null ? 'asks nobody' : `asks as ${draft.need('access', access).name}`];
    const fields = [
      ...Object.entries(plain).map(([field, value]) => `${fieldName('portGuard', field)} ${wireText(value)}`),
      ...asks,
    ];
    const ports = ids.map((id) => draft.need('port', id));
    return `${portsTitle(draft.plan, ports)}: ${fields.join(', ')}`;
  },
);

/** Limits the MAC addresses of ports where only devices are plugged in to what is to be expected there. */
export const limitMacs = operation('limitMacs', z.strictObject({ ports: portList }), (draft, { ports }) => {
  // What is plugged in stays as it is, so all is looked at before anything is set.
  const { plan } = draft;
  const limited = [...new Set(ports)].flatMap((id) => {
    const expected = expectedMacs(plan, draft.need('port', id));
    return expected === 0 ? [] : [{ id, expected }];
  });
  for (const { id, expected } of limited) setPortGuardFields(draft, id, { macLimit: expected }, plan);
  if (limited.length === 0)
    throw badInput(
      'Nothing is plugged in there, so no number is to be expected; set a limit by hand.',
      'ports',
    );
  return `${portsTitle(
    draft.plan,
    limited.map(({ id }) => draft.need('port', id)),
  )}: as many MAC addresses as planned`;
});

/** Guards of the tree as the cabling asks for them. */
export const guardTree = operation(
  'guardTree',
  z.strictObject({ devices: z.array(z.string()).min(1).max(1000) }),
  (draft, { devices }) => {
    // As the trees are now: a guard must not be judged by the one that was set a moment ago.
    const { plan } = draft;
    const wanted = [...new Set(devices)].flatMap((device) => treeGuardsFor(plan, device));
    for (const { port, edge, guard } of wanted) setStpPortFields(draft, port, 0, { edge, guard }, plan);
    const guarded = wanted.length;
    if (guarded === 0) throw badInput('No port there lacks a guard of the tree.', 'devices');
    return `${namesOf(draft, devices)}: guards of the tree at ${guarded} ${guarded === 1 ? 'port' : 'ports'}`;
  },
);
