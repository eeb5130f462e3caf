import { boxOf } from './box-of';
import type { Plan } from './plan';
import type { BoxModel, Present } from './records';

type PresentState = Omit<Present, 'id' | 'device'>;

/** Of a box of which nobody said anything: it is as it comes; most come in a subnet of this size. */
const UNSAID: PresentState = { state: 'as-it-comes', address: null, length: 24, asOf: null };

/** How a box is before work begins. */
export function presentOf(plan: Plan, device: string): PresentState {
  const { state, address, length, asOf } = plan.present.by('device', device)[0] ?? UNSAID;
  return { state, address, length, asOf };
}

/** What is known of a model by its name; small and capital letters are one. */
export const modelNamed = (plan: Plan, name: string): BoxModel | undefined =>
  plan.model.by('name', name.toLowerCase())[0];

/** What is known of the model of a box. */
export function modelOf(plan: Plan, device: string): BoxModel | undefined {
  const box = boxOf(plan, device);
  return box && modelNamed(plan, box.model);
}
