import { formatAddress, maskOf } from '../address';
import { type Plan, type Progress, byName } from '../plan';
import { airSeatOf, boxAt } from './air-seats';
import { type CutOff, type OrderEdit, edited, followed } from './by-hand';
import { type LaptopSettings, laptopFor, talksTo } from './laptop';
import { type Entry, NOWHERE, type Standing } from './entry';
import { ordering } from './order';
import type { Formers } from './formers';
import { presentState } from './present';
import { type BoxState, type SiteState, lenderOf, placeIn, plannedState } from './state';
import { ROUTED, reachedFrom } from './reach';
import { type SettingKind, type Step, after, sameFacts, wantsSaving } from './steps';
import { type Saying, backOf, sayingOf } from './words';

/** The order as somebody works it off: where to sit, what to set on the laptop, what to do, and what must be seen. */

export interface SheetStep extends Saying {
  readonly device: string;
  readonly kind: SettingKind;
  /** The ports that are set, alike; none for what is set for the whole box. */
  readonly ports: readonly string[];
  /** Its first entry in the order, and of how many it is made up. */
  readonly at: number;
  readonly count: number;
  /** How many boxes with steps left are reached afterwards, of how many. */
  readonly reached: number;
  readonly of: number;
  /** How many pages of the box it is, where it is several. */
  readonly pages: number;
  /** How it is taken back; empty where there is nothing to take back. */
  readonly back: string;
  /** Until the box is saved a restart brings back everything that was set since. */
  readonly restarts: boolean;
  /** Why it must not stand here; empty where it may. */
  readonly cut: string;
}
/** Steps done from one place with one address. */
export interface SheetSeat {
  /** Null at the console of a box. */
  readonly socket: string | null;
  readonly device: string;
  /** Address and mask to set; null where the address of the box is not known, or where the segment gives one. */
  readonly laptop: string | null;
  /** The box is in another segment: the address that everybody gets there will do. */
  readonly given: boolean;
  /** Given to the installer for a while. */
  readonly parachute: boolean;
  /** The device that is unplugged meanwhile. */
  readonly lent: string | null;
  /** A wireless network to join; there is no lead then. */
  readonly air: boolean;
  readonly steps: readonly SheetStep[];
}
export interface Worksheet {
  readonly seats: readonly SheetSeat[];
  readonly boxes: number;
  readonly steps: number;
  /** What is set one by one. */
  readonly settings: number;
  /** Parachutes that stay, by port. */
  readonly recorded: readonly string[];
}

const laptopText = ({ address, length }: LaptopSettings): string =>
  `${formatAddress(address)} ${maskOf(length)}`;

const stepOf = (plan: Plan, step: Step, before: BoxState): Omit<SheetStep, 'at' | 'reached' | 'of'> => {
  const { device, setting } = step;
  const { kind } = setting;
  return {
    ...sayingOf(plan, step),
    device,
    kind,
    ports: 'port' in setting ? [setting.port] : [],
    count: 1,
    pages: kind === 'pages' ? setting.pages.length : 1,
    back: backOf(plan, step, before),
    restarts: wantsSaving(step),
    cut: '',
  };
};

/** Are two ports of one box set alike, so that they can be chosen together? */
const isAlike = (a: Step, b: Step): boolean =>
  a.device === b.device &&
  a.setting.kind === 'port' &&
  b.setting.kind === 'port' &&
  a.setting.part === b.setting.part &&
  sameFacts(a.setting.facts, b.setting.facts);

/** Why a step must not stand where somebody put it. */
function cutText(plan: Plan, { device }: Step, { own, devices, late, open, unsaved }: CutOff): string {
  const names = devices.map((id) => plan.device.get(id)!.name).sort(byName);
  return [
    own ? `From here you do not reach ${plan.device.get(device)!.name}.` : '',
    names.length > 0 ? `After it nothing reaches ${names.join(', ')} any more.` : '',
    late ? 'What is added to this port first comes only after it.' : '',
    open ? 'Nothing closes it afterwards.' : '',
    unsaved ? 'Nothing saves it afterwards.' : '',
  ]
    .filter(Boolean)
    .join(' ');
}

/** An order as a sheet: a new bracket wherever one sits down elsewhere or takes another address. */
export function sheetOf(
  plan: Plan,
  now: SiteState,
  entries: readonly Entry[],
  { cuts = [], from = NOWHERE }: { readonly cuts?: readonly CutOff[]; readonly from?: Standing } = {},
): Worksheet {
  const cutAt = new Map(cuts.map((cut) => [cut.at, cut]));
  const seats: (SheetSeat & { steps: SheetStep[] })[] = [];
  const parachutes = new Set(from.parachutes);
  const recorded: string[] = [];
  let state = now;
  let socket = from.seat;
  let laptop: LaptopSettings | null = null;
  let given = false;
  const isGiven = (device: string) =>
    socket !== null && (reachedFrom(state, socket).get(device) ?? 0) >= ROUTED;
  let begun = false;
  const boxOf = ({ device }: Step): BoxState => state.boxes[placeIn(state, device)]!;
  /** The step before, where no other place came between. */
  let last: Step | null = null;
  const note = (step: Step, at: number, reached: number, of: number) => {
    const { steps } = seats.at(-1)!;
    const cut = cutAt.get(at);
    const why = cut ? cutText(plan, step, cut) : '';
    const before = steps.at(-1);
    if (before && last && why === '' && before.cut === '' && isAlike(last, step)) {
      const ports = [...before.ports, (step.setting as { port: string }).port];
      const count = before.count + 1;
      // How they were before may differ; then each is said.
      const own = backOf(plan, step, boxOf(step), ports);
      const alone = backOf(plan, step, boxOf(step));
      const isOne = alone.slice(alone.indexOf(':')) === before.back.slice(before.back.indexOf(':'));
      const back = isOne ? own : `${before.back} ${alone}`;
      steps[steps.length - 1] = {
        ...before,
        ...sayingOf(plan, step, ports),
        ports,
        count,
        reached,
        of,
        back,
      };
    } else steps.push({ ...stepOf(plan, step, boxOf(step)), at, reached, of, cut: why });
    last = step;
  };
  const sit = (at: string | null, device: string) => {
    given = at !== null && isGiven(device);
    laptop = at === null || given ? null : laptopFor(plan, state, device);
    begun = true;
    seats.push({
      socket: at,
      device: at === null ? device : boxAt(plan, at),
      laptop: laptop && laptopText(laptop),
      given,
      parachute: at !== null && parachutes.has(at),
      lent: at === null ? null : lenderOf(state, at),
      air: at !== null && airSeatOf(plan, at) !== undefined,
      steps: [],
    });
  };
  entries.forEach((entry, at) => {
    switch (entry.kind) {
      case 'sit':
        socket = entry.socket;
        begun = false;
        break;
      case 'recorded':
        recorded.push(entry.port);
        break;
      case 'console':
        sit(null, entry.device);
        for (const step of entry.steps) {
          note(step, at, 0, 0);
          state = after(state, step);
        }
        begun = false;
        break;
      case 'step': {
        const { step, reached, of } = entry;
        const fits = given
          ? isGiven(step.device)
          : !isGiven(step.device) && talksTo(laptop, state, step.device);
        if (!begun || !fits) sit(socket, step.device);
        note(step, at, reached, of);
        state = after(state, step);
        if (step.setting.kind === 'parachute') parachutes.add(step.setting.port);
      }
    }
  });
  const steps = seats.flatMap((seat) => seat.steps);
  return {
    seats,
    boxes: new Set(steps.map(({ device }) => device)).size,
    steps: steps.length,
    settings: steps.reduce((sum, { count }) => sum + count, 0),
    recorded,
  };
}

/** An order worked out once, and what was made of it by hand. */
export interface WorkedOrder {
  readonly now: SiteState;
  readonly then: SiteState;
  readonly entries: readonly Entry[];
}

/** The order of a whole site, from how its boxes are to how they are planned. */
export function* workedOrder(plan: Plan, formers?: Formers): Generator<Progress, WorkedOrder> {
  const [now, then] = [presentState(plan, undefined, formers), plannedState(plan)];
  const { entries } = yield* ordering(now, then);
  return { now, then, entries };
}

/** An order with what somebody did to it, and where that cuts them off. */
export function madeOf({ now, then, entries }: WorkedOrder, edits: readonly OrderEdit[]) {
  if (edits.length === 0) return { entries, cuts: [] };
  return followed(now, edited(now, then, entries, edits));
}

/** The sheet of an order, with what somebody did to it and where that cuts them off. */
export function worksheetOf(plan: Plan, order: WorkedOrder, edits: readonly OrderEdit[] = []): Worksheet {
  const { entries, cuts } = madeOf(order, edits);
  return sheetOf(plan, order.now, entries, { cuts });
}
