import type { Progress } from '../plan';
import { type PortFacts, VidSet } from '../model/wiring';
import { reachedFrom } from './reach';
import { type SiteState, placeIn } from './state';
import { type Setting, type Step, after, leadsOn, settingsOf } from './steps';

/**
 * The order of all settings of a site, in which nobody cuts themselves off. After every step whoever sits where the order
 * says still reaches every box that has steps left, or a socket that is ready by then reaches it.
 */

/** What there is to do next. */
export type Entry =
  /** Sit down at a socket, with an address in the subnet of the box that comes next. */
  | { readonly kind: 'sit'; readonly socket: string }
  | {
      readonly kind: 'step';
      readonly step: Step;
      readonly socket: string;
      /** How many boxes with steps left are reached from there afterwards. */
      readonly reached: number;
    }
  /** No socket reaches the box any more: its console, or a reset. */
  | { readonly kind: 'console'; readonly device: string; readonly steps: readonly Step[] }
  /** A parachute that has to stay, as nothing else reaches its box. */
  | { readonly kind: 'recorded'; readonly device: string; readonly port: string };

export interface Order {
  readonly entries: readonly Entry[];
  readonly end: SiteState;
}

/** In which order steps are tried. */
const PHASES = { vlans: 0, parachute: 2, management: 3, save: 7, plug: 8, check: 9 } as const;
const PARTS = ['add', 'pvid', 'set'] as const;
/** Has one setting of a box to be made before another? */
function comesBefore(a: Setting, b: Setting): boolean {
  if (a.kind === 'vlans') return true;
  if (b.kind === 'check') return true;
  if (b.kind === 'plug') return a.kind !== 'check';
  if (b.kind === 'save') return a.kind !== 'check' && a.kind !== 'plug';
  if (a.kind !== 'port') return false;
  if (b.kind === 'management') return a.part === 'add';
  return b.kind === 'port' && a.port === b.port && PARTS.indexOf(a.part) < PARTS.indexOf(b.part);
}

const comesLast = ({ kind }: Setting): boolean => kind === 'save' || kind === 'plug' || kind === 'check';

/** A socket somebody may sit down at: nothing is plugged in, and untagged frames go somewhere. */
interface Socket {
  readonly port: string;
  readonly bridge: number;
  readonly vid: number;
}

class Ordering {
  readonly entries: Entry[] = [];
  /** What is left to do, by box. */
  private readonly left = new Map<string, Step[]>();
  private readonly parachutes: Set<string>;
  private seat: string | null;

  constructor(
    private state: SiteState,
    private readonly then: SiteState,
    { seat, parachutes }: Standing,
  ) {
    this.seat = seat;
    this.parachutes = new Set(parachutes);
    for (const step of settingsOf(state, then)) this.add(step);
  }

  *run(): Generator<Progress, Order> {
    while (this.left.size > 0) {
      if (!this.stepOn() && !this.move() && !this.record() && !this.jump()) this.byConsole();
      const open = this.all().length;
      yield { done: this.entries.length, of: this.entries.length + open };
    }
    return { entries: this.entries, end: this.state };
  }

  /** Does the first step that is safe where one sits: adding before removing, the far boxes before the near ones. */
  private stepOn(): boolean {
    if (this.seat === null) return false;
    const reached = reachedFrom(this.state, this.seat);
    const step = this.safeStep(this.seat, reached);
    if (!step) return false;
    this.take(step, this.seat);
    return true;
  }

  private add(step: Step): void {
    this.left.set(step.device, [...(this.left.get(step.device) ?? []), step]);
  }
  private drop(step: Step): void {
    const others = this.left.get(step.device)!.filter((other) => other !== step);
    if (others.length > 0) this.left.set(step.device, others);
    else this.left.delete(step.device);
  }
  private all(): readonly Step[] {
    return [...this.left.values()].flat();
  }

  private take(step: Step, socket: string): void {
    this.state = after(this.state, step);
    this.drop(step);
    if (!comesLast(step.setting)) this.saveAgain(step.device);
    const reached = [...reachedFrom(this.state, socket).keys()].filter((device) =>
      this.left.has(device),
    ).length;
    this.entries.push({ kind: 'step', step, socket, reached });
  }

  private phase({ device, setting }: Step, socket: string): number {
    if (setting.kind !== 'port') return PHASES[setting.kind];
    if (setting.part === 'add') return 1;
    if (setting.port === socket || this.parachutes.has(setting.port)) return 6;
    if (!leadsOn(this.state, setting.port) || this.state.apart.has(device)) return 2;
    return setting.part === 'pvid' ? 4 : 5;
  }

  /** What has to be done before on the same box is done. */
  private isDue({ device, setting }: Step): boolean {
    return this.left
      .get(device)!
      .every(
        (other) => other.setting === setting || this.isClosing(other) || !comesBefore(other.setting, setting),
      );
  }

  private safeStep(socket: string, reached: ReadonlyMap<string, number>): Step | undefined {
    return [...reached.keys()]
      .flatMap((device) => (this.left.get(device) ?? []).filter((step) => this.isDue(step)))
      .map((step) => ({ step, phase: this.phase(step, socket), far: reached.get(step.device)! }))
      .sort((a, b) => a.phase - b.phase || b.far - a.far)
      .find(({ step }) => this.isSafe(step, socket, reached))?.step;
  }

  private isSafe(step: Step, socket: string, before: ReadonlyMap<string, number>): boolean {
    const { kind } = step.setting;
    if (kind === 'vlans' || kind === 'save' || kind === 'check') return true;
    const next = after(this.state, step);
    const now = reachedFrom(next, socket);
    // Its own box is among them: whatever is set has to be saved afterwards.
    const lost = [...this.left.keys()].filter((device) => !now.has(device));
    if (!this.left.has(step.device) && !now.has(step.device)) lost.push(step.device);
    if (lost.length === 0) return true;
    // Who was not reached from here is reached from somewhere else as before, and others by what is ready.
    const own = lost.filter((device) => before.has(device));
    return (
      this.areReached(next, own, (port) => this.isReady(next, port)) &&
      this.areReached(
        next,
        lost.filter((device) => !before.has(device) && this.isFound(device)),
        () => true,
      )
    );
  }

  /** Does some socket reach it at all? */
  private isFound(device: string): boolean {
    return this.areReached(this.state, [device], () => true);
  }

  private areReached(state: SiteState, devices: readonly string[], may: (port: string) => boolean): boolean {
    if (devices.length === 0) return true;
    const missing = new Set(devices);
    for (const { port } of socketsIn(state, devices)) {
      if (!may(port)) continue;
      for (const device of reachedFrom(state, port).keys()) missing.delete(device);
      if (missing.size === 0) return true;
    }
    return false;
  }

  /** Is a socket one that stays as it is until the end, or a parachute? */
  private isReady(state: SiteState, port: string): boolean {
    if (this.parachutes.has(port)) return true;
    const { device } = state.boxes[state.seats.get(port)!.bridge]!.bridge;
    return !(this.left.get(device) ?? []).some(
      ({ setting }) => setting.kind === 'port' && setting.port === port,
    );
  }

  /** Sits down elsewhere, where most boxes with steps left are reached and something can be done. */
  private move(): boolean {
    const places = socketsIn(this.state, [])
      .filter(({ port }) => port !== this.seat)
      .map(({ port }) => {
        const reached = reachedFrom(this.state, port);
        return { port, reached, count: [...reached.keys()].filter((device) => this.left.has(device)).length };
      })
      .filter(({ count }) => count > 0)
      .sort(
        (a, b) =>
          b.count - a.count ||
          Number(this.isReady(this.state, b.port)) - Number(this.isReady(this.state, a.port)),
      );
    const found = places.find(({ port, reached }) => this.safeStep(port, reached));
    if (!found) return false;
    this.sit(found.port);
    return true;
  }

  private sit(socket: string): void {
    this.seat = socket;
    this.entries.push({ kind: 'sit', socket });
  }

  /** Gives the installer a socket for a while, in the VLAN where a box will be found that has steps left. */
  private jump(): boolean {
    const open = [...this.left.keys()].filter((device) =>
      this.left.get(device)!.some((step) => this.isWork(step)),
    );
    if (this.parachutes.size > 2 * this.state.boxes.length) return false;
    const sockets = socketsIn(this.state, []).map(({ port }) => port);
    for (const socket of this.seat === null ? sockets : [this.seat, ...sockets]) {
      const reached = reachedFrom(this.state, socket);
      const wanted = new Set(
        open.flatMap((device) => {
          const { management } = this.then.boxes[placeIn(this.then, device)]!;
          return management && reached.has(device) ? [management.vid] : [];
        }),
      );
      const boxes = [...reached].sort((a, b) => a[1] - b[1]).map(([device]) => device);
      for (const vid of wanted)
        for (const device of boxes) {
          const step = this.parachuteOn(device, vid, socket);
          if (!step || !this.isSafe(step, socket, reached) || !this.helps(step, socket)) continue;
          this.open(step, device);
          if (this.seat !== socket) this.sit(socket);
          this.take(step, socket);
          return true;
        }
    }
    return false;
  }

  /** Can something be done with a parachute that could not be done without? */
  private helps(step: Step, socket: string): boolean {
    const { port } = step.setting as Extract<Step['setting'], { kind: 'parachute' }>;
    const before = this.state;
    this.state = after(before, step);
    this.parachutes.add(port);
    const found = this.safeStep(socket, reachedFrom(this.state, socket));
    this.state = before;
    this.parachutes.delete(port);
    return found !== undefined;
  }

  private parachuteOn(device: string, vid: number, socket: string): Step | null {
    const at = placeIn(this.state, device);
    const box = this.state.boxes[at]!;
    if (!box.vids.has(vid)) return null;
    const free = box.bridge.ports.filter(
      ({ id, number }) =>
        number > 0 && id !== socket && !this.state.links.has(id) && !this.parachutes.has(id),
    );
    if (free.length === 0) return null;
    // One that is closed in the end is missed by nobody.
    const then = this.then.boxes[at]!.bridge;
    const factsThen = (id: string) => then.facts[then.ports.findIndex((port) => port.id === id)];
    const port = free.find(({ id }) => factsThen(id) === null) ?? free.at(-1)!;
    const facts: PortFacts = {
      pvid: vid,
      untagged: vid,
      tagged: new VidSet(false, new Set()),
      accepts: 'all',
      ingressFilter: false,
      blocked: null,
    };
    return { device, setting: { kind: 'parachute', port: port.id, facts } };
  }

  /** Remembers to close a parachute, and to save once more where that was the last thing to do. */
  private open(step: Step, device: string): void {
    const { port } = step.setting as Extract<Step['setting'], { kind: 'parachute' }>;
    this.parachutes.add(port);
    const then = this.then.boxes[placeIn(this.then, device)]!.bridge;
    const facts = then.facts[then.ports.findIndex(({ id }) => id === port)]!;
    const planned = this.left
      .get(device)
      ?.find(({ setting }) => setting.kind === 'port' && setting.port === port);
    if (planned) this.drop(planned);
    this.add(step);
    this.add({ device, setting: { kind: 'port', port, facts, part: 'set' } });
  }

  /** What was saved before is saved once more when something changed after. */
  private saveAgain(device: string): void {
    for (const kind of ['save', 'check'] as const)
      if (!this.left.get(device)?.some(({ setting }) => setting.kind === kind))
        this.add({ device, setting: { kind } });
  }

  /** Does it take a parachute away? That waits until nobody needs it; what else there is to do does not wait for it. */
  private isClosing({ setting }: Step): boolean {
    return setting.kind === 'port' && this.parachutes.has(setting.port);
  }
  private isWork(step: Step): boolean {
    return !this.isClosing(step) && !comesLast(step.setting);
  }

  /** Where nothing but closing is left to do, a parachute stays that only itself leads back to. */
  private record(): boolean {
    const left = this.all();
    if (left.some((step) => this.isWork(step))) return false;
    const step = left.find((one) => this.isClosing(one));
    if (step?.setting.kind !== 'port') return false;
    this.drop(step);
    this.entries.push({ kind: 'recorded', device: step.device, port: step.setting.port });
    return true;
  }

  private byConsole(): void {
    const [device, steps] = [...this.left][0]!;
    this.entries.push({ kind: 'console', device, steps });
    for (const step of steps) this.state = after(this.state, step);
    this.left.delete(device);
  }
}

/** The sockets to sit at: one for each box and VLAN, those of some devices first. */
function socketsIn({ boxes, links }: SiteState, first: readonly string[]): readonly Socket[] {
  const found: Socket[] = [];
  const seen = new Set<string>();
  boxes.forEach(({ bridge: { box, ports, facts } }, at) => {
    if (!box.vlanAware) return;
    ports.forEach(({ id, number }, i) => {
      const own = facts[i];
      if (number === 0 || !own || own.accepts === 'tagged' || own.pvid === null || links.has(id)) return;
      const key = `${at} ${own.pvid} ${own.untagged}`;
      if (seen.has(key)) return;
      seen.add(key);
      found.push({ port: id, bridge: at, vid: own.pvid });
    });
  });
  const rank = ({ bridge }: Socket) => (first.includes(boxes[bridge]!.bridge.device) ? 0 : 1);
  return first.length === 0 ? found : found.sort((a, b) => rank(a) - rank(b));
}

/** Where somebody sits in the middle of an order, and which sockets they gave themselves. */
export interface Standing {
  readonly seat: string | null;
  readonly parachutes: ReadonlySet<string>;
}
const NOWHERE: Standing = { seat: null, parachutes: new Set() };

/** One socket for each box and VLAN where somebody may sit. */
export const socketsOf = (state: SiteState): string[] => socketsIn(state, []).map(({ port }) => port);

/**
 * The order of everything that makes of a site as it is what it is to be; from where somebody is in the middle of one. It
 * says how far it has got.
 */
export const ordering = (
  now: SiteState,
  then: SiteState,
  from: Standing = NOWHERE,
): Generator<Progress, Order> => new Ordering(now, then, from).run();

/** The same at once. */
export function orderOf(now: SiteState, then: SiteState, from: Standing = NOWHERE): Order {
  const work = ordering(now, then, from);
  for (let next = work.next(); ; next = work.next()) if (next.done) return next.value;
}
