import { reachedFrom } from './reach';
import type { SiteState } from './state';
import { type Step, after, settingsOf } from './steps';

/**
 * What people do who think of no order: box by box as listed, each page of settings as it comes, from one socket. The boxes
 * they lose on the way, whose other settings are then out of reach.
 */
export function lostWithoutOrder(now: SiteState, then: SiteState, socket: string): readonly string[] {
  let state = now;
  const lost = new Set<string>();
  const isWork = ({ setting }: Step) =>
    setting.kind !== 'plug' && !('part' in setting && setting.part !== 'set');
  for (const step of settingsOf(now, then).filter(isWork))
    if (reachedFrom(state, socket).has(step.device)) state = after(state, step);
    else lost.add(step.device);
  return [...lost];
}
