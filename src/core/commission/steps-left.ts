import { type Setting, type Step, comesEarlier } from './steps';

/** What is left to do at each box, and what of it waits for something else. */

/** Has one setting of a box to be made before another? */
function comesBefore(a: Setting, b: Setting): boolean {
  if (a.kind === 'vlans') return true;
  if (b.kind === 'check') return a.kind !== 'plug' || a.after === 'save';
  if (b.kind === 'plug') return a.kind !== 'check' || b.after === 'check';
  if (b.kind === 'save') return a.kind !== 'check' && a.kind !== 'plug';
  if (a.kind !== 'port') return false;
  if (b.kind === 'management') return a.part === 'add';
  return comesEarlier(a, b);
}

/** It is done when nothing else is left at a box. */
export const comesLast = ({ kind }: Setting): boolean => kind === 'save' || kind === 'check';

const NOTHING: readonly Step[] = [];

export class StepsLeft {
  private readonly byBox = new Map<string, readonly Step[]>();
  private count = 0;
  /** Those of a box that wait for no other of it, as long as nothing changed there. */
  private readonly due = new Map<string, readonly Step[]>();

  /** `parachutes`: the ports that are open for the installer now. */
  constructor(private readonly parachutes: ReadonlySet<string>) {}

  /** How many steps that is. */
  get open(): number {
    return this.count;
  }
  /** At how many boxes. */
  get size(): number {
    return this.byBox.size;
  }
  has(device: string): boolean {
    return this.byBox.has(device);
  }
  of(device: string): readonly Step[] {
    return this.byBox.get(device) ?? NOTHING;
  }
  devices(): Iterable<string> {
    return this.byBox.keys();
  }
  /** A parachute came to a box, or went. */
  lookAgain(device: string): void {
    this.due.delete(device);
  }

  add(step: Step): void {
    this.put(step.device, [...this.of(step.device), step]);
  }
  drop(step: Step): void {
    this.put(
      step.device,
      this.of(step.device).filter((other) => other !== step),
    );
  }
  private put(device: string, steps: readonly Step[]): void {
    this.count += steps.length - this.of(device).length;
    if (steps.length > 0) this.byBox.set(device, steps);
    else this.byBox.delete(device);
    this.due.delete(device);
  }

  all(): readonly Step[] {
    return [...this.byBox.values()].flat();
  }

  /** The steps of a box for which everything is done that has to come before. */
  dueAt(device: string): readonly Step[] {
    let due = this.due.get(device);
    if (due) return due;
    const steps = this.of(device);
    const working = steps.filter((step) => !this.isClosing(step));
    due = steps.filter(({ setting }) =>
      working.every((other) => other.setting === setting || !comesBefore(other.setting, setting)),
    );
    this.due.set(device, due);
    return due;
  }

  /** What was saved before is saved once more when something changed after. */
  saveAgain(device: string): void {
    for (const kind of ['save', 'check'] as const) this.addOnce({ device, setting: { kind } });
  }
  addOnce(step: Step): void {
    if (!this.of(step.device).some(({ setting }) => setting.kind === step.setting.kind)) this.add(step);
  }

  /** Does it take a parachute away? That waits until nobody needs it; what else there is to do does not wait for it. */
  isClosing({ setting }: Step): boolean {
    return setting.kind === 'port' && this.parachutes.has(setting.port);
  }
  isWork(step: Step): boolean {
    return !this.isClosing(step) && !comesLast(step.setting);
  }
}
