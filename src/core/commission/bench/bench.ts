import { type Plan, presentOf } from '../../plan';
import type { Formers } from '../formers';
import { type LaptopSettings, subnetOf, talksTo } from '../laptop';
import { pagesOfNew } from '../pages/left';
import { asItComes, comesOf, presentState } from '../present';
import { ROUTED, reachedFrom } from '../reach';
import { isSocket } from '../sockets';
import { ALONE, type BoxState, type SiteState, placeIn, plannedState, withBox } from '../state';
import { type Step, after, isAsPlanned } from '../steps';

/**
 * Pretend boxes on a bench: they take settings like the real ones, are reached as the rehearsal says, and come up after a restart
 * with what was saved. Whoever cuts themselves off is cut off.
 */
export interface Bench {
  readonly plan: Plan;
  readonly now: SiteState;
  readonly then: SiteState;
  /** What each box comes up with after a restart. */
  readonly saved: readonly BoxState[];
  /** The socket of the laptop; null before somebody sat down. */
  readonly seat: string | null;
  /** Its address; null: the one that the segment gives, if any. */
  readonly laptop: LaptopSettings | null;
}

/** The boxes of a site as they are before work begins. */
export function benchOf(plan: Plan, formers?: Formers): Bench {
  const now = presentState(plan, undefined, formers);
  return { plan, now, then: plannedState(plan), saved: now.boxes, seat: null, laptop: null };
}

export type BenchAction =
  | { readonly kind: 'sit'; readonly socket: string }
  | { readonly kind: 'laptop'; readonly laptop: LaptopSettings | null }
  | { readonly kind: 'set'; readonly step: Step }
  /** At the console of the box, which always answers. */
  | { readonly kind: 'console'; readonly step: Step }
  /** Pulls its plug and puts it in again. */
  | { readonly kind: 'restart'; readonly device: string }
  /** Presses the pin: it is as it comes. */
  | { readonly kind: 'reset'; readonly device: string };

/** Why the page of a box does not open for the laptop; empty where it does. */
export function whyShut({ now, seat, laptop }: Bench, device: string): string {
  if (seat === null) return 'The laptop is plugged in nowhere.';
  const far = reachedFrom(now, seat).get(device);
  if (far === undefined) return 'No answer: no frame from this socket gets there and back.';
  if (far >= ROUTED)
    return laptop === null
      ? ''
      : 'No answer: it is in another segment, and the laptop has no gateway. Take the address that the segment gives.';
  const management = now.boxes[placeIn(now, device)]!.management!;
  const subnet = subnetOf(management);
  // Nobody looked the address up: whoever does finds it on the label.
  if (subnet === null) return '';
  if (laptop === null) return 'No answer: the laptop has no address in its subnet.';
  if (laptop.address === management.address)
    return 'No answer: the laptop has the address of the box itself.';
  return talksTo(laptop, now, device) ? '' : 'No answer: the laptop is in another subnet than the box.';
}

/** What came of an action: the boxes after it, or why nothing changed. */
export type Came = { readonly bench: Bench } | { readonly refused: string };

/** Does something to the boxes, or says why it cannot be done. */
export function act(bench: Bench, action: BenchAction): Came {
  const { plan, now } = bench;
  switch (action.kind) {
    case 'sit':
      return isSocket(now, action.socket)
        ? { bench: { ...bench, seat: action.socket } }
        : { refused: 'Nobody can sit there: something is plugged in, or no untagged frame goes anywhere.' };
    case 'laptop':
      return { bench: { ...bench, laptop: action.laptop } };
    case 'set': {
      const { device, setting } = action.step;
      const why = setting.kind === 'plug' ? '' : whyShut(bench, device);
      return why === '' ? taken(bench, action.step) : { refused: why };
    }
    case 'console':
      return taken(bench, action.step);
    case 'restart':
      return { bench: restarted(bench, action.device) };
    case 'reset': {
      const at = placeIn(now, action.device);
      const { address, length } = presentOf(plan, action.device);
      const comes = comesOf(plan).get(action.device) ?? { address, length };
      const pages = pagesOfNew(plan, action.device);
      const box = asItComes(plan, { ...bench.then.boxes[at]!, pages }, comes);
      return { bench: { ...bench, now: withBox(now, at, box), saved: bench.saved.with(at, box) } };
    }
  }
}

/** After a restart a box is what was saved; a port to begin at is gone then. */
function restarted(bench: Bench, device: string): Bench {
  const { now, saved } = bench;
  const at = placeIn(now, device);
  const box = saved[at]!;
  const { management, bridge } = box;
  if (management?.way !== 'one-port') return { ...bench, now: withBox(now, at, box) };
  const facts = bridge.facts.map((one) => (one?.pvid === ALONE ? null : one));
  const lost = {
    ...box,
    bridge: { ...bridge, facts },
    management: { ...management, way: 'console' as const },
  };
  return { ...bench, now: withBox(now, at, lost), saved: saved.with(at, lost) };
}

function taken(bench: Bench, step: Step): Came {
  const { device, setting } = step;
  const at = placeIn(bench.now, device);
  if (setting.kind === 'save')
    return { bench: { ...bench, saved: bench.saved.with(at, bench.now.boxes[at]!) } };
  if (setting.kind === 'check') return { bench: restarted(bench, device) };
  return { bench: { ...bench, now: after(bench.now, step) } };
}

/** Are all boxes what they are to be, and stay so after a restart? */
export const isFinished = ({ now, then, saved }: Bench): boolean =>
  now.apart.size === 0 &&
  now.boxes.every((box, at) => isAsPlanned(box, then.boxes[at]!) && isAsPlanned(saved[at]!, then.boxes[at]!));

/** The boxes that answered before and do not now, from the same place. */
export function cutOff(before: Bench, bench: Bench): string[] {
  if (before.seat === null || bench.seat !== before.seat) return [];
  const now = reachedFrom(bench.now, bench.seat);
  return [...reachedFrom(before.now, before.seat).keys()].filter((device) => !now.has(device));
}
