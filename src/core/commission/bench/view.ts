import { formatAddress, maskOf, parseAddress, parseMask } from '../../address';
import { type Plan, type Progress, badInput } from '../../plan';
import { socketTitle } from '../air-seats';
import type { Formers } from '../formers';
import { type LaptopSettings, laptopFor } from '../laptop';
import { type Entry, NOWHERE, type Standing } from '../entry';
import { ordering } from '../order';
import { ROUTED, reachedFrom } from '../reach';
import { type Result, restOf } from '../run';
import { placeIn } from '../state';
import { type Step, wantsSaving, settingsBetween } from '../steps';
import { type WireStep, decodeStep, encodeStep } from '../wire';
import { sayingOf } from '../words';
import { type Bench, type BenchAction, act, benchOf, cutOff, isFinished, whyShut } from './bench';

/** The bench as it is looked at: what was done so far is enough to know how all boxes are. */

export type WireBenchAction =
  | { readonly kind: 'sit'; readonly socket: string }
  /** Without an address the laptop takes what the segment gives. */
  | { readonly kind: 'laptop'; readonly address: string | null; readonly length: number }
  | { readonly kind: 'set' | 'console'; readonly step: WireStep }
  | { readonly kind: 'restart' | 'reset'; readonly device: string };

export interface BenchBox {
  readonly device: string;
  /** Why its page does not open; empty where it does. */
  readonly shut: string;
  /** What is otherwise than planned, as it would be set. */
  readonly left: readonly { readonly step: WireStep; readonly does: string }[];
  /** A restart would take something away. */
  readonly unsaved: boolean;
  /** Its cables to other boxes are not plugged in. */
  readonly apart: boolean;
}
export interface BenchView {
  readonly seat: string | null;
  /** Address and mask; empty for what the segment gives. */
  readonly laptop: string;
  readonly sockets: readonly string[];
  readonly boxes: readonly BenchBox[];
  /** Why the last thing was not done; empty where it was. */
  readonly refused: string;
  /** The boxes that the last thing cut off. */
  readonly cut: readonly string[];
  /** What the order says next: in words, and what to do; null where nothing is left. */
  readonly next: { readonly says: string; readonly actions: readonly WireBenchAction[] } | null;
  readonly finished: boolean;
}

function actionOf(action: WireBenchAction): BenchAction {
  if (action.kind === 'set' || action.kind === 'console')
    return { kind: action.kind, step: decodeStep(action.step) };
  if (action.kind !== 'laptop') return action as BenchAction;
  const address = action.address === null ? null : parseAddress(action.address);
  return { kind: 'laptop', laptop: address === null ? null : { address, length: action.length } };
}

const laptopAction = (laptop: LaptopSettings | null): WireBenchAction => ({
  kind: 'laptop',
  address: laptop && formatAddress(laptop.address),
  length: laptop?.length ?? 24,
});

/** An address with its mask, or nothing for the one that the segment gives. Throws a Refusal. */
export function laptopTyped(text: string): WireBenchAction {
  if (text === '') return { kind: 'laptop', address: null, length: 24 };
  const [host = '', mask = '24'] = text.trim().split(/[\s/]+/);
  const [address, length] = [parseAddress(host), parseMask(mask)];
  if (address === null || length === null)
    throw badInput(
      `“${text}” is no address with a mask; write one like 192.168.0.9 ${maskOf(24)}, or nothing.`,
      'address',
    );
  return { kind: 'laptop', address: formatAddress(address), length };
}

/** A bench with what was done on it, and what is left of its order where it was kept to. */
export class Practice {
  private bench: Bench;
  private rest: readonly Entry[] | null = null;
  private refused = '';
  private cut: readonly string[] = [];
  private readonly parachutes = new Set<string>();
  private readonly unchecked = new Set<string>();

  constructor(
    private readonly plan: Plan,
    formers?: Formers,
  ) {
    this.bench = benchOf(plan, formers);
  }

  do(wire: WireBenchAction): void {
    const action = actionOf(wire);
    const before = this.bench;
    const came = act(before, action);
    this.refused = 'refused' in came ? came.refused : '';
    this.cut = [];
    if ('refused' in came) return;
    this.bench = came.bench;
    this.cut = action.kind === 'sit' || action.kind === 'laptop' ? [] : cutOff(before, came.bench);
    this.rest = this.rest && this.after(this.rest, action, before);
    if (action.kind === 'set' || action.kind === 'console') this.note(action.step);
  }

  /** What is left of the order after an action; null where somebody went another way. */
  private after(rest: readonly Entry[], action: BenchAction, before: Bench): readonly Entry[] | null {
    if (action.kind === 'laptop') return rest;
    if (action.kind === 'restart')
      return before.now.boxes === this.bench.now.boxes || !this.isUnsaved(before, action.device)
        ? rest
        : null;
    if (action.kind === 'reset') return null;
    const result: Result =
      action.kind === 'sit' ? action : { kind: 'step', step: action.step, outcome: 'done' };
    return restOf(rest, [result]);
  }

  private note(step: Step): void {
    const { device, setting } = step;
    if (setting.kind === 'parachute') this.parachutes.add(setting.port);
    if (setting.kind === 'port') this.parachutes.delete(setting.port);
    if (setting.kind === 'check') this.unchecked.delete(device);
    else if (wantsSaving(step)) this.unchecked.add(device);
  }

  private isUnsaved({ now, saved }: Bench, device: string): boolean {
    const at = placeIn(now, device);
    return now.boxes[at] !== saved[at];
  }

  private standing(): Standing {
    const { now, seat } = this.bench;
    const unsaved = now.boxes
      .map(({ bridge }) => bridge.device)
      .filter((device) => this.isUnsaved(this.bench, device));
    return {
      ...NOWHERE,
      seat,
      parachutes: this.parachutes,
      unsaved: new Set(unsaved),
      unchecked: new Set(this.unchecked),
    };
  }

  *view(): Generator<Progress, BenchView> {
    const { bench, plan } = this;
    this.rest ??= (yield* ordering(bench.now, bench.then, this.standing())).entries;
    const { now, then, seat, laptop } = bench;
    const boxes = now.boxes.flatMap((box, at): BenchBox[] => {
      const { device } = box.bridge;
      if (!then.boxes[at]!.management) return [];
      const left = settingsBetween(now, box, then.boxes[at]!)
        .filter(({ setting }) => setting.kind !== 'save' && setting.kind !== 'check')
        .map((step) => ({ step: encodeStep(step), does: sayingOf(plan, step).does }));
      const unsaved = this.isUnsaved(bench, device);
      return [{ device, shut: whyShut(bench, device), left, unsaved, apart: now.apart.has(device) }];
    });
    return {
      seat,
      laptop: laptop ? `${formatAddress(laptop.address)} ${maskOf(laptop.length)}` : '',
      sockets: this.sockets(),
      boxes,
      refused: this.refused,
      cut: this.cut,
      next: this.next(),
      finished: isFinished(bench),
    };
  }

  /** Every socket somebody could sit at, in the order of the boxes. */
  private sockets(): string[] {
    const { now } = this.bench;
    return now.boxes.flatMap(({ bridge }) =>
      bridge.ports.flatMap(({ id }) => ('bench' in act(this.bench, { kind: 'sit', socket: id }) ? [id] : [])),
    );
  }

  private next(): BenchView['next'] {
    const { bench, plan } = this;
    const entry = this.rest!.find(({ kind }) => kind !== 'recorded');
    if (!entry || entry.kind === 'recorded') return null;
    if (entry.kind === 'sit')
      return {
        says: `Sit down at ${socketTitle(plan, entry.socket)}`,
        actions: [{ kind: 'sit', socket: entry.socket }],
      };
    const [step] = entry.kind === 'console' ? entry.steps : [entry.step];
    const says = `${plan.device.get(step!.device)!.name}: ${sayingOf(plan, step!).does}`;
    const wire = encodeStep(step!);
    if (entry.kind === 'console')
      return { says: `At the console, ${says}`, actions: [{ kind: 'console', step: wire }] };
    if (step!.setting.kind === 'plug' || whyShut(bench, step!.device) === '')
      return { says, actions: [{ kind: 'set', step: wire }] };
    const isRouted = (reachedFrom(bench.now, bench.seat!).get(step!.device) ?? 0) >= ROUTED;
    const laptop = isRouted ? null : laptopFor(plan, bench.now, step!.device);
    return { says, actions: [laptopAction(laptop), { kind: 'set', step: wire }] };
  }
}
