import { z } from 'zod';
import { whole } from '../plan/codecs';
import type { Draft } from '../plan/draft';
import { cableMedia, cableSides, portSchema } from '../plan/gear';
import { operation } from '../plan/operation';
import type { Port } from '../plan/records';
import { badInput } from '../plan/refusal';
import { portTitle } from '../plan/words';
import { boxOf, cablesAt, isPassive, portsOf } from '../switching/wiring';
import { portsTitle } from './ports';
import { carriedOf, parked, undecided } from './roles';

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

/** The network socket of an end device. */
export const insertEndPort = (draft: Draft, device: string): Port =>
  draft.insert('port', {
    device,
    number: 1,
    index: null,
    name: '',
    row: 0,
    column: 0,
    media: 'copper',
    speed: 1000,
    poeClass: null,
    optic: '',
    defective: false,
    ...undecided,
    setsItself: 'no',
    enabled: true,
    exposed: false,
    label: '',
    profile: null,
    aggregate: null,
  });

export const connect = operation(
  'connect',
  z.strictObject({
    from: endInput,
    to: endInput,
    media: z.enum(cableMedia).default('copper'),
    length: whole('The length in metres', 0, 100_000).nullable().default(null),
    label: portSchema.shape.label.default(''),
  }),
  (draft, { from, to, media, length, label }) => {
    const a = portAt(draft, from, 'from');
    const b = portAt(draft, to, 'to');
    const title = (port: Port) => portTitle(draft.plan, port);
    if (a.id === b.id && from.side === to.side)
      throw badInput(`${title(a)} cannot be joined to itself; name two different ports.`, 'to');
    for (const [port, side, field] of [
      [a, from.side, 'from'],
      [b, to.side, 'to'],
    ] as const) {
      if (port.number === 0)
        throw badInput(`${title(port)} has no socket; it is the inside of the box.`, field);
      const passive = isPassive(draft.need('device', port.device).kind);
      if (side === 'rear' && !passive)
        throw badInput(`${title(port)} has no rear; only panels and outlets have one.`, field);
      const there = cablesAt(draft.plan, { port: port.id, side })[0];
      if (there)
        throw badInput(
          `${title(port)}${passive ? ` (${side})` : ''} holds a cable to ${title(draft.need('port', there.from === port.id ? there.to : there.from))} already; take that out first.`,
          field,
        );
    }
    draft.insert('cable', {
      from: a.id,
      fromSide: from.side,
      to: b.id,
      toSide: to.side,
      media,
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
    const there = cablesAt(draft.plan, { port: target.id, side: into.side })[0];
    const title = portTitle(draft.plan, target);
    if (target.number === 0 || target.device === id)
      throw badInput(`${title} has no socket for ${device.name}.`, 'into');
    if (there) throw badInput(`${title} holds a cable already; take that out first.`, 'into');
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
    return `${device.name} plugged into ${title}`;
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
    if (cablesAt(draft.plan, { port: next.id, side: 'front' }).length > 0)
      throw badInput(`${portTitle(draft.plan, next)} holds a cable already.`, 'port');
    draft.update('cable', id, { [end]: next.id, [`${end}Side`]: 'front' });
    if (withPlan) {
      draft.update('port', next.id, { ...carriedOf(old), profile: old.profile, label: old.label });
      draft.update('port', old.id, { ...parked(draft.plan), profile: null, label: '' });
    }
    return `${portTitle(draft.plan, old)} moved to ${portTitle(draft.plan, next)}${withPlan ? ' with its plan' : ''}`;
  },
);

/** Bundles ports of one device into one logical port (IEEE 802.1AX when LACP). */
export const bundlePorts = operation(
  'bundlePorts',
  z.strictObject({
    ports: z.array(z.string()).min(2, 'A bundle needs two ports.'),
    lacp: z.boolean().default(true),
  }),
  (draft, { ports: ids, lacp }) => {
    const ports = ids.map((id) => draft.need('port', id));
    const [first] = ports;
    const other = ports.find((port) => port.device !== first!.device);
    if (other)
      throw badInput(
        `${portsTitle(draft.plan, [first!, other])} are on two boxes; a bundle is on one.`,
        'ports',
      );
    const bundled = ports.find((port) => port.aggregate !== null);
    if (bundled) throw badInput(`${portTitle(draft.plan, bundled)} is in a bundle already.`, 'ports');
    const count = draft.plan.aggregate.group(first!.device).size;
    const bundle = draft.insert('aggregate', { device: first!.device, name: `bundle-${count + 1}`, lacp });
    for (const port of ports)
      draft.update('port', port.id, { ...carriedOf(first!), profile: first!.profile, aggregate: bundle.id });
    return `${portsTitle(draft.plan, ports)}: one bundle`;
  },
);

export const unbundle = operation('unbundle', z.strictObject({ aggregate: z.string() }), (draft, input) => {
  const bundle = draft.need('aggregate', input.aggregate);
  const ports = portsOf(draft.plan, bundle.device).filter((port) => port.aggregate === bundle.id);
  for (const port of ports) draft.update('port', port.id, { aggregate: null });
  draft.remove('aggregate', bundle.id);
  return `${portsTitle(draft.plan, ports)}: no longer bundled`;
});
