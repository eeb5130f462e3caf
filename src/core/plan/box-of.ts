import type { Collection } from './collection';
import { memo } from './memo';
import type { Plan } from './plan';
import type { Box } from './records';

const boxes = memo((all: Collection<Box>) => {
  const map = new Map<string, Box>();
  for (const box of all.values()) if (!map.has(box.device)) map.set(box.device, box);
  return map;
});

/** The box of a device; undefined for one without ports to assign. */
export const boxOf = (plan: Plan, device: string): Box | undefined => boxes(plan.box).get(device);
