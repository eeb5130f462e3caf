import * as z from 'zod';
import {
  type Cable,
  type Draft,
  type Plan,
  cableMedia,
  cableSides,
  kinds,
  type Port,
  operation,
  badInput,
  portTitle,
  boxOf,
} from '../../plan';
import {
  type CableEnd,
  cablesAt,
  isPassive,
  portsOf,
  blankPort,
  carriedOf,
  parked,
  usualPoeClass,
} from '../../model/wiring';

const endInput = z.strictObject({
  device: z.string(),
  number: z.number().int().min(0).max(999).nullable(),
  side: z.enum(cableSides).default('front'),
});
export type EndInput = z.input<typeof endInput>;

/** The port of an end; an end device gets its one port when it is first plugged in. */
function portAt(draft: Draft, end: z.output<typeof endInput>, field: string): Port {
  const device = draft.need('device', end.device);
  const ports = portsOf(draft.plan, device.id).filter((port) => port.number > 0);
  const number = end.number ?? 1;
  const found = ports.find((port) => port.number === number);
  if (found) {
    if (end.number === null && ports.length > 1)
      throw badInput(`${device.name} has ${ports.length} ports; write which, like ${device.name} 1.`, field);
    return found;
  }
  if (boxOf(draft.plan, device.id) || number !== 1)
    throw badInput(
      `There is no port ${number} on ${device.name}; it has ${ports.length === 0 ? 'one, port 1' : `ports 1–${ports.at(-1)!.number}`}.`,
      field,
    );
  return insertEndPort(draft, device.id);
}

/** The network socket of an end device, which asks for the power such devices usually ask for. */
const insertEndPort = (draft: Draft, device: string): Port =>
  draft.insert('port', {
    ...blankPort,
    device,
    poeClass: usualPoeClass[draft.need('device', device).kind] ?? null,
  });

/** Refuses a port that has no such socket, or one in which a plug is already. */
function requireSocket(draft: Draft, port: Port, side: CableEnd['side'], field: string): void {
  const { plan } = draft;
  const title = portTitle(plan, port);
  if (port.number === 0) throw badInput(`${title} has no socket; it is the inside of the box.`, field);
  const passive = isPassive(draft.need('device', port.device).kind);
  if (side === 'rear' && !passive)
    throw badInput(`${title} has no rear; only panels and outlets have one.`, field);
  const there = cablesAt(plan, { port: port.id, side })[0];
  if (!there) return;
  const far = draft.need('port', there.from === port.id ? there.to : there.from);
  throw badInput(
    `${title}${passive ? ` (${side})` : ''} holds a cable to ${portTitle(plan, far)} already; take that out first.`,
    field,
  );
}

/** The cable that fits two sockets: between two that take fibre the kind of fibre that the site has most of, else copper. */
function fitting(plan: Plan, a: Port, b: Port): Cable['media'] {
  const light = (port: Port) => port.media === 'fibre';
  const takes = (port: Port) => light(port) || port.media === 'combo';
  if (!(light(a) && takes(b)) && !(light(b) && takes(a))) return 'copper';
  let single = 0;
  for (const { media } of plan.cable.values())
    single += media === 'single-mode' ? 1 : media === 'multi-mode' ? -1 : 0;
  return single > 0 ? 'single-mode' : 'multi-mode';
}

export const connect = operation(
  'connect',
  z.strictObject({
    from: endInput,
    to: endInput,
    /** What fits the two sockets, unless it is said. */
    media: z.enum(cableMedia).optional(),
    length: kinds.cable.fields.length.default(null),
    label: kinds.port.fields.label.default(''),
  }),
  (draft, { from, to, media, length, label }) => {
    const a = portAt(draft, from, 'from');
    const b = portAt(draft, to, 'to');
    const title = (port: Port) => portTitle(draft.plan, port);
    if (a.id === b.id && from.side === to.side)
      throw badInput(`${title(a)} cannot be joined to itself; name two different ports.`, 'to');
    requireSocket(draft, a, from.side, 'from');
    requireSocket(draft, b, to.side, 'to');
    draft.insert('cable', {
      from: a.id,
      fromSide: from.side,
      to: b.id,
      toSide: to.side,
      media: media ?? fitting(draft.plan, a, b),
      length,
      label,
    });
    return `${title(a)} = ${title(b)}`;
  },
);

export const disconnect = operation('disconnect', z.strictObject({ cable: z.string() }), (draft, input) => {
  const cable = draft.need('cable', input.cable);
  const title = `${portTitle(draft.plan, draft.need('port', cable.from))} = ${portTitle(draft.plan, draft.need('port', cable.to))}`;
  draft.remove('cable', cable.id);
  return `Cable ${title} taken out`;
});

/** Plugs an end device into a port of a box, wherever it was before; or pulls its plug. */
export const plugDevice = operation(
  'plugDevice',
  z.strictObject({ device: z.string(), into: endInput.nullable() }),
  (draft, { device: id, into }) => {
    const device = draft.need('device', id);
    if (boxOf(draft.plan, id))
      throw badInput(
        `${device.name} is a box with ports of its own; lay its cables under Gear & ports.`,
        'device',
      );
    for (const port of portsOf(draft.plan, id))
      for (const cable of cablesAt(draft.plan, { port: port.id, side: 'front' }))
        draft.remove('cable', cable.id);
    if (into === null) return `${device.name}: plug pulled`;
    const target = portAt(draft, into, 'into');
    if (target.device === id) throw badInput(`${device.name} cannot be plugged into itself.`, 'into');
    requireSocket(draft, target, into.side, 'into');
    const own = portsOf(draft.plan, id)[0] ?? insertEndPort(draft, id);
    draft.insert('cable', {
      from: target.id,
      fromSide: into.side,
      to: own.id,
      toSide: 'front',
      media: 'copper',
      length: null,
      label: '',
    });
    return `${device.name} plugged into ${portTitle(draft.plan, target)}`;
  },
);

/** Moves a plug: the far end stays where it is, and the plan of the old port goes along when asked. */
export const movePlug = operation(
  'movePlug',
  z.strictObject({ cable: z.string(), end: z.enum(['from', 'to']), port: z.string(), withPlan: z.boolean() }),
  (draft, { cable: id, end, port: target, withPlan }) => {
    const cable = draft.need('cable', id);
    const old = draft.need('port', cable[end]);
    const next = draft.need('port', target);
    requireSocket(draft, next, 'front', 'port');
    const carrying = [old, next].every((port) => !isPassive(draft.need('device', port.device).kind));
    if (withPlan && !carrying)
      throw badInput('A panel or outlet has no plan to take along; move the plug without it.', 'withPlan');
    draft.update('cable', id, { [end]: next.id, [`${end}Side`]: 'front' });
    if (withPlan) {
      draft.update('port', next.id, { ...carriedOf(old), profile: old.profile, label: old.label });
      draft.update('port', old.id, { ...parked(draft.plan), profile: null, label: '' });
    }
    return `${portTitle(draft.plan, old)} moved to ${portTitle(draft.plan, next)}${withPlan ? ' with its plan' : ''}`;
  },
);
