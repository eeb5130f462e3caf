import { type Entry, NOWHERE, type Standing } from './entry';
import type { SiteState } from './state';
import { after, wantsSaving } from './steps';

/** The site after the first entries of an order, and where somebody is then. */
export function standingAfter(
  now: SiteState,
  entries: readonly Entry[],
): { readonly state: SiteState; readonly standing: Standing } {
  let state = now;
  let seat: string | null = null;
  const parachutes = new Set<string>();
  const unsaved = new Set<string>();
  const unchecked = new Set<string>();
  for (const entry of entries) {
    if (entry.kind === 'sit') seat = entry.socket;
    if (entry.kind === 'recorded') parachutes.delete(entry.port);
    const steps = entry.kind === 'console' ? entry.steps : entry.kind === 'step' ? [entry.step] : [];
    for (const step of steps) {
      const { device, setting } = step;
      state = after(state, step);
      if (setting.kind === 'save') unsaved.delete(device);
      else if (setting.kind === 'check') unchecked.delete(device);
      else if (wantsSaving(step)) {
        unsaved.add(device);
        unchecked.add(device);
      }
      if (setting.kind === 'parachute') parachutes.add(setting.port);
      if (setting.kind === 'port') parachutes.delete(setting.port);
    }
  }
  return { state, standing: { ...NOWHERE, seat, parachutes, unsaved, unchecked } };
}
