import type { Plan } from './plan';
import type { Box } from './records';

/** The box of a device; undefined for one without ports to assign. */
export const boxOf = (plan: Plan, device: string): Box | undefined => plan.box.by('device', device)[0];
