import { type BoxModel, type Plan, modelOf } from '../plan';
import type { SettingKind } from './steps';
import type { SheetSeat, SheetStep } from './worksheet';

/** How long the work takes, and until when it can be taken back. */

/** How long entries of a kind took in earlier runs, in seconds: the middle one of all. */
export type Pace = ReadonlyMap<SettingKind | 'sit', number>;

/** In seconds, where neither a model nor an earlier run says it. */
const ASSUMED = { page: 60, starts: 120, look: 60, save: 15, plug: 120, sit: 120, console: 180 } as const;
/** What each further port of several that are set alike takes, in seconds. */
const ANOTHER_PORT = 5;

/** The same for whoever only wants to know about how long it will take. */
export const assumedSeconds = { ...ASSUMED, anotherPort: ANOTHER_PORT };

const startsIn = (model: BoxModel | undefined): number => model?.starts ?? ASSUMED.starts;

/** What a step takes, in seconds: as it took before, as the model says, or as is assumed. */
function secondsOf(plan: Plan, { device, kind, count, pages }: Work, pace: Pace): number {
  const model = modelOf(plan, device);
  const page = model?.page ?? ASSUMED.page;
  switch (kind) {
    case 'check':
      return pace.get(kind) ?? startsIn(model) + ASSUMED.look;
    case 'save':
    case 'plug':
      return pace.get(kind) ?? ASSUMED[kind];
    case 'pages':
      return page * pages;
    default:
      return (pace.get(kind) ?? page) + ANOTHER_PORT * (count - 1);
  }
}

/** A step in time; all in seconds since the beginning. */
export interface TimedStep {
  /** When it is done. */
  readonly ends: number;
  /** How long it takes from then to take back everything that was done. */
  readonly back: number;
}

/** What of a step tells how long it takes. */
type Work = Pick<SheetStep, 'device' | 'kind' | 'pages' | 'count'>;

/** What was done so far, and how long it takes to take it back. */
class Done {
  /** By box, in seconds: what was set and saved, and what was set since. */
  private readonly saved = new Map<string, number>();
  private readonly since = new Map<string, number>();

  constructor(
    private readonly plan: Plan,
    private readonly pace: Pace,
  ) {}

  /** Returns how long it took, in seconds. */
  take(step: Work): number {
    const { saved, since } = this;
    const { device, kind } = step;
    const seconds = secondsOf(this.plan, step, this.pace);
    const add = (to: Map<string, number>, more: number) => to.set(device, (to.get(device) ?? 0) + more);
    if (kind === 'save') {
      add(saved, since.get(device) ?? 0);
      since.delete(device);
    } else if (kind === 'plug') add(saved, seconds);
    else if (kind !== 'check') add(since, seconds);
    return seconds;
  }

  /** One restart for what is not saved; what is saved page by page, saved again, with sitting down for it. */
  back(): number {
    let sum = 0;
    for (const seconds of this.saved.values())
      if (seconds > 0) sum += seconds + ASSUMED.save + sittingDown(this.pace);
    for (const device of this.since.keys()) sum += startsIn(modelOf(this.plan, device));
    return sum;
  }
}
const sittingDown = (pace: Pace): number => pace.get('sit') ?? ASSUMED.sit;

/** How long it takes to take back what was done, in seconds. */
export function wayBackOf(plan: Plan, steps: readonly Work[], pace: Pace = new Map()): number {
  const done = new Done(plan, pace);
  for (const step of steps) done.take(step);
  return done.back();
}

/**
 * The steps of a sheet in time. What a box was told since it was last saved goes with one restart; what was saved is taken
 * back page by page and saved again, wherever one has to sit down for it.
 */
export function timedSteps(plan: Plan, seats: readonly SheetSeat[], pace: Pace = new Map()): TimedStep[] {
  const done = new Done(plan, pace);
  let now = 0;
  return seats.flatMap((seat) => {
    now += seat.socket === null ? ASSUMED.console : sittingDown(pace);
    return seat.steps.map((step) => {
      now += done.take(step);
      return { ends: now, back: done.back() };
    });
  });
}

/**
 * How many steps may be done in a window of so many seconds so that all of it can still be taken back in time: the point of
 * no return is after them. All of them where everything fits.
 */
export function mayTurnBack(steps: readonly TimedStep[], window: number): number {
  const over = steps.findIndex(({ ends, back }) => ends + back > window);
  return over < 0 ? steps.length : over;
}
