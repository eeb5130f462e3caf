import * as z from 'zod';
import { boxOf, operation, type Plan, type Device, type Port, badInput } from '../../plan';
import { innerPort, carriedOf } from '../../model/wiring';

/** The other boxes of the same kind that the same device configures: a change made there reaches all of them. */
export function siblingsOf(plan: Plan, device: Device): Device[] {
  const controller = boxOf(plan, device.id)?.controller ?? null;
  if (controller === null) return [];
  return [...plan.box.values()]
    .filter((box) => box.controller === controller && box.device !== device.id)
    .map((box) => plan.device.get(box.device)!)
    .filter((other) => other.kind === device.kind);
}

const same = (a: Port, b: Port): boolean => JSON.stringify(carriedOf(a)) === JSON.stringify(carriedOf(b));

/** Those of the siblings whose inside takes part in other segments than this box's. */
export function unlikeInside(plan: Plan, device: Device): Device[] {
  const own = innerPort(plan, device.id);
  if (!own) return [];
  return siblingsOf(plan, device).filter((other) => {
    const inner = innerPort(plan, other.id);
    return inner !== undefined && !same(own, inner);
  });
}

/** One change reaches all: the boxes that the same controller configures get the segments of this one inside. */
export const likeInside = operation('likeInside', z.strictObject({ device: z.string() }), (draft, input) => {
  const device = draft.need('device', input.device);
  const others = unlikeInside(draft.plan, device);
  if (others.length === 0)
    throw badInput(`The boxes configured together with ${device.name} are like it already.`, 'device');
  const own = carriedOf(innerPort(draft.plan, device.id)!);
  for (const other of others)
    draft.update('port', innerPort(draft.plan, other.id)!.id, { ...own, profile: null });
  return `${others.map(({ name }) => name).join(', ')}: inside like ${device.name}`;
});
