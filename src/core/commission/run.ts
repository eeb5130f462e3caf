import type { Plan, Progress } from '../plan';
import { type Formers, NO_FORMERS, isSetUp } from './formers';
import type { Entry, Order } from './entry';
import { ordering } from './order';
import { presentState } from './present';
import { standingAfter } from './standing';
import { placeIn, plannedState } from './state';
import { type Step, isAsPlanned } from './steps';
import { type WireStep, encodeStep, stepKey } from './wire';
import { type Worksheet, sheetOf } from './worksheet';

/** An order as it is worked off: what was done stays done, and what is left is worked out from there. */

export const outcomes = ['done', 'differs', 'skipped'] as const;
export type Outcome = (typeof outcomes)[number];

/** Something somebody said of a step, or where they sat down. */
export type Result =
  | { readonly kind: 'sit'; readonly socket: string }
  | { readonly kind: 'step'; readonly step: Step; readonly outcome: Outcome };

/** Does the plan still have what a result speaks of? */
function isThere(plan: Plan, state: ReturnType<typeof presentState>, result: Result): boolean {
  if (result.kind === 'sit') return state.seats.has(result.socket);
  const { device, setting } = result.step;
  return (
    placeIn(state, device) >= 0 &&
    (!('port' in setting) || plan.port.get(setting.port)?.device === device) &&
    (setting.kind !== 'management' ||
      setting.socket === null ||
      plan.port.get(setting.socket.port) !== undefined)
  );
}

/** How the site is after what was done, as far as the plan still has the boxes and ports, and where one is. */
export function stoodAt(
  plan: Plan,
  results: readonly Result[],
  formers: Formers = NO_FORMERS,
): ReturnType<typeof standingAfter> {
  const now = presentState(plan, undefined, formers);
  const entries = results
    .filter((result) => isThere(plan, now, result))
    .flatMap((result): Entry[] => {
      if (result.kind === 'sit') return [result];
      const { step, outcome } = result;
      return outcome === 'done' ? [{ kind: 'step', step, socket: '', reached: 0, of: 0 }] : [];
    });
  const { state, standing } = standingAfter(now, entries);
  return { state, standing: { ...standing, skipped: skippedIn(results) } };
}

/** The steps that somebody leaves out, unless they said otherwise later. */
function skippedIn(results: readonly Result[]): ReadonlySet<string> {
  const skipped = new Set<string>();
  for (const result of results) {
    if (result.kind !== 'step') continue;
    const { step, outcome } = result;
    if (outcome === 'skipped') {
      skipped.add(stepKey(step));
      continue;
    }
    skipped.delete(stepKey(step));
    // What is set afterwards wants to be saved again.
    if (outcome === 'done' && step.setting.kind !== 'save' && step.setting.kind !== 'check')
      for (const kind of ['save', 'check'] as const)
        skipped.delete(stepKey({ device: step.device, setting: { kind } }));
  }
  return skipped;
}

/**
 * What is left of a run: the order from how the boxes are after everything that was done to how they are planned now. A step
 * that turned out otherwise is still to be done; one that was left out is not.
 */
export function* leftOf(
  plan: Plan,
  results: readonly Result[],
  formers?: Formers,
): Generator<Progress, Order> {
  const { state, standing } = stoodAt(plan, results, formers);
  return yield* ordering(state, plannedState(plan), standing);
}

/**
 * What is left of an order by its own entries, where everything was done in its turn; null where somebody went another way,
 * and the rest has to be worked out anew.
 */
export function restOf(entries: readonly Entry[], results: readonly Result[]): readonly Entry[] | null {
  let at = 0;
  /** How many steps are done of those at the console. */
  let within = 0;
  for (const result of results) {
    while (entries[at]?.kind === 'recorded') at++;
    const entry = entries[at];
    if (result.kind === 'sit') {
      if (entry?.kind !== 'sit' || entry.socket !== result.socket) return null;
      at++;
      continue;
    }
    if (result.outcome === 'skipped') return null;
    if (result.outcome === 'differs') continue;
    const key = stepKey(result.step);
    if (entry?.kind === 'step' && stepKey(entry.step) === key) at++;
    else if (entry?.kind === 'console' && stepKey(entry.steps[within]!) === key) {
      within++;
      if (within < entry.steps.length) continue;
      within = 0;
      at++;
    } else return null;
  }
  const rest = entries.slice(at);
  const [first] = rest;
  return first?.kind === 'console' && within > 0
    ? [{ ...first, steps: first.steps.slice(within) }, ...rest.slice(1)]
    : rest;
}

/** What is left, and after which results it was. */
export interface Rest {
  readonly after: number;
  readonly entries: readonly Entry[];
}

/**
 * What is left of a run by what was left before, as long as it is kept to; worked out anew where somebody went another way.
 * So nobody's list jumps because somebody ticked a step.
 */
export function* restAfter(
  plan: Plan,
  before: Rest,
  results: readonly Result[],
  formers?: Formers,
): Generator<Progress, Rest> {
  const kept = restOf(before.entries, results.slice(before.after));
  const entries = kept ?? (yield* leftOf(plan, results, formers)).entries;
  return { after: results.length, entries };
}

/** The steps to do next, together as the sheet shows them; where to sit down first; null where nothing is left. */
export type Next =
  | { readonly kind: 'sit'; readonly socket: string }
  | { readonly kind: 'steps'; readonly steps: readonly WireStep[] };

export interface RunSheet {
  readonly sheet: Worksheet;
  readonly next: Next | null;
  /** Once nothing is left: the boxes that are as planned, saved and looked at, while the plan says that they are otherwise. */
  readonly finished: readonly string[];
}

function finishedIn(
  plan: Plan,
  results: readonly Result[],
  { state, standing }: ReturnType<typeof stoodAt>,
  formers: Formers,
): string[] {
  const set = new Set(results.flatMap((result) => (result.kind === 'step' ? [result.step.device] : [])));
  const planned = plannedState(plan);
  const before = presentState(plan, undefined, formers);
  return state.boxes.flatMap((box, at) => {
    const { device } = box.bridge;
    const isDone =
      set.has(device) &&
      isAsPlanned(box, planned.boxes[at]!) &&
      !state.apart.has(device) &&
      !standing.unsaved.has(device) &&
      !standing.unchecked.has(device);
    // The plan says so already: it was set up by a plan that says the same of it.
    const isSaid = isSetUp(plan, device, formers) && isAsPlanned(before.boxes[at]!, planned.boxes[at]!);
    return isDone && !isSaid ? [device] : [];
  });
}

/** What is left of a run as a sheet, from where somebody sits. */
export function runSheetOf(
  plan: Plan,
  results: readonly Result[],
  entries: readonly Entry[],
  formers: Formers = NO_FORMERS,
): RunSheet {
  const stood = stoodAt(plan, results, formers);
  const { state, standing } = stood;
  const sheet = sheetOf(plan, state, entries, { from: standing });
  const first = entries.find(({ kind }) => kind !== 'recorded');
  const step = sheet.seats[0]?.steps[0];
  if (!first || !step) return { sheet, next: null, finished: finishedIn(plan, results, stood, formers) };
  if (first.kind === 'sit') return { sheet, next: { kind: 'sit', socket: first.socket }, finished: [] };
  const steps =
    first.kind === 'console'
      ? first.steps.slice(0, step.count)
      : entries
          .slice(step.at, step.at + step.count)
          .flatMap((entry) => (entry.kind === 'step' ? [entry.step] : []));
  return { sheet, next: { kind: 'steps', steps: steps.map(encodeStep) }, finished: [] };
}
