import type { Plan } from './plan';
import type { Present } from './records';

type PresentState = Omit<Present, 'id' | 'device'>;

/** Of a box of which nobody said anything: it is as it comes; most come in a subnet of this size. */
const UNSAID: PresentState = { state: 'as-it-comes', address: null, length: 24 };

/** How a box is before work begins. */
export function presentOf(plan: Plan, device: string): PresentState {
  const { state, address, length } = plan.present.by('device', device)[0] ?? UNSAID;
  return { state, address, length };
}
