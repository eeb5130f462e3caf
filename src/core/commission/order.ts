import { type Progress, finish, groupBy } from '../plan';
import { isOnAir } from './air-seats';
import { type Entry, NOWHERE, type Order, type Standing } from './entry';
import { reachedFrom } from './reach';
import { type Seating, type Socket, isSocket, socketsIn, takesUntagged } from './sockets';
import { type SiteState, isVacant, placeIn, socketIn } from './state';
import { type Step, after, wantsSaving, leadsOn, settingsOf } from './steps';
import { StepsLeft, comesLast } from './steps-left';
import { stepKey } from './wire';

/**
 * The order of all settings of a site, in which nobody cuts themselves off. After every step whoever sits where the order
 * says still reaches every box that has steps left, or a socket that is ready by then reaches it.
 */

/** In which order steps are tried. */
const PHASES = { vlans: 0, parachute: 2, management: 3, pages: 6.5, save: 7, plug: 8, check: 9 } as const;
class Ordering {
  readonly entries: Entry[] = [];
  private readonly left: StepsLeft;
  private readonly parachutes: Set<string>;
  /** From which socket a box was found last. */
  private readonly foundFrom = new Map<string, string>();
  private seat: string | null;

  constructor(
    private state: SiteState,
    private readonly then: SiteState,
    standing: Standing,
  ) {
    this.seat = standing.seat;
    this.parachutes = new Set(standing.parachutes);
    this.left = new StepsLeft(this.parachutes);
    const isOpen = (step: Step) => standing.skipped.size === 0 || !standing.skipped.has(stepKey(step));
    const byBox = groupBy(settingsOf(state, then).filter(isOpen), ({ device }) => device);
    for (const steps of byBox.values()) {
      // What is saved and looked at comes with what is set; without it there is only what is plugged in.
      const plugs = steps.some(({ setting }) => setting.kind === 'plug' && setting.after === 'save');
      for (const step of steps)
        if (!comesLast(step.setting) || (step.setting.kind === 'check' && plugs)) this.left.add(step);
    }
    const again = [
      ...[...standing.unsaved].map((device): Step => ({ device, setting: { kind: 'save' } })),
      ...[...standing.unchecked].map((device): Step => ({ device, setting: { kind: 'check' } })),
    ];
    for (const step of again.filter(isOpen)) this.left.addOnce(step);
  }

  *run(): Generator<Progress, Order> {
    this.consolesFirst();
    while (this.left.size > 0) {
      const goesOn =
        this.stepOn() ||
        this.stay() ||
        this.move('free') ||
        this.move('lent') ||
        this.record() ||
        this.jump() ||
        this.move('air');
      if (!goesOn) this.byConsole();
      yield { done: this.entries.length, of: this.entries.length + this.left.open };
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

  /** The boxes that are still to be plugged in. */
  private awaited(): readonly Step[] {
    return [...this.state.apart].flatMap((device) =>
      this.left.of(device).filter(({ setting }) => setting.kind === 'plug'),
    );
  }

  private take(step: Step, socket: string): void {
    this.state = after(this.state, step);
    this.left.drop(step);
    if (wantsSaving(step)) this.left.saveAgain(step.device);
    const reached = [...reachedFrom(this.state, socket).keys()].filter((device) =>
      this.left.has(device),
    ).length;
    this.entries.push({ kind: 'step', step, socket, reached, of: this.left.size });
  }

  private phase({ device, setting }: Step, socket: string): number {
    if (setting.kind !== 'port') return PHASES[setting.kind];
    if (setting.part === 'add') return 1;
    // A parachute stays as long as boxes are still to be plugged in, which may be found by it alone.
    if (this.parachutes.has(setting.port) && this.awaited().length > 0) return 8.5;
    if (setting.port === socket || this.parachutes.has(setting.port)) return 6;
    if (!leadsOn(this.state, setting.port) || this.state.apart.has(device)) return 2;
    return setting.part === 'pvid' ? 4 : 5;
  }

  private safeStep(
    socket: string,
    reached: ReadonlyMap<string, number>,
    may: (step: Step) => boolean = () => true,
  ): Step | undefined {
    // Cables are plugged in by hand, wherever the laptop is.
    const cables = this.awaited().filter(({ device }) => !reached.has(device));
    const isDue = (step: Step) => this.left.dueAt(step.device).includes(step);
    const all = [
      ...[...reached.keys()].flatMap((device) => this.left.dueAt(device)),
      ...cables.filter(isDue),
    ];
    const byPhase = groupBy(all.filter(may), (step) => this.phase(step, socket));
    const far = ({ device }: Step) => reached.get(device) ?? 0;
    for (const phase of [...byPhase.keys()].sort((a, b) => a - b)) {
      const steps = byPhase.get(phase)!.toSorted((a, b) => far(b) - far(a));
      const found = steps.find((step) => this.isSafe(step, socket, reached));
      if (found) return found;
    }
    return undefined;
  }

  private isSafe(step: Step, socket: string, before: ReadonlyMap<string, number>): boolean {
    const { kind } = step.setting;
    if (kind === 'vlans' || kind === 'pages' || kind === 'save' || kind === 'check') return true;
    if (step.setting.kind === 'port' && step.setting.port !== socket && this.hasTwin(step.setting.port))
      return true;
    const next = after(this.state, step);
    const now = reachedFrom(next, socket);
    // Its own box is among them: whatever is set has to be saved afterwards.
    const isLast = kind === 'plug' && this.left.of(step.device).length === 1;
    const lost = [...this.left.devices()].filter(
      (device) => !now.has(device) && !(isLast && device === step.device),
    );
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

  /** Is there another socket at the same box where one would sit just as well? Then nobody needs this one. */
  private hasTwin(port: string): boolean {
    const { seats, boxes, links } = this.state;
    if (links.has(port)) return false;
    const at = seats.get(port)!;
    const { ports, facts } = boxes[at.bridge]!.bridge;
    const own = facts[at.port];
    if (!own) return true;
    return ports.some(({ id }, i) => {
      const other = facts[i];
      return (
        i !== at.port &&
        !isOnAir(ports[i]!) &&
        takesUntagged(ports[i]!, other) &&
        isVacant(this.state, id) &&
        other!.pvid === own.pvid &&
        other!.untagged === own.untagged
      );
    });
  }

  /** Does some socket reach it at all? */
  private isFound(device: string): boolean {
    return this.areReached(this.state, [device], () => true);
  }

  private areReached(state: SiteState, devices: readonly string[], may: (port: string) => boolean): boolean {
    if (devices.length === 0) return true;
    const missing = new Set(devices);
    const lookFrom = (port: string): boolean => {
      for (const device of reachedFrom(state, port).keys())
        if (missing.delete(device)) this.foundFrom.set(device, port);
      return missing.size === 0;
    };
    // From where it was found before it mostly is found again.
    for (const device of devices) {
      const port = missing.has(device) ? this.foundFrom.get(device) : undefined;
      if (port !== undefined && may(port) && isSocket(state, port) && lookFrom(port)) return true;
    }
    // What goes through the air is no way back to count on.
    return socketsIn(state, devices).some(
      ({ port, seating }) => seating !== 'air' && may(port) && lookFrom(port),
    );
  }

  /** Is a socket one that stays as it is until the end, or a parachute? */
  private isReady(state: SiteState, port: string): boolean {
    if (this.parachutes.has(port)) return true;
    const { device } = state.boxes[state.seats.get(port)!.bridge]!.bridge;
    return !this.left.of(device).some(({ setting }) => setting.kind === 'port' && setting.port === port);
  }

  /** At a box that stands apart everything is done in one go: from nowhere else it is reached. */
  private stay(): boolean {
    if (this.seat === null) return false;
    const at = this.state.seats.get(this.seat)!.bridge;
    const { device } = this.state.boxes[at]!.bridge;
    if (!this.state.apart.has(device)) return false;
    return this.move('free', ({ bridge }) => bridge === at) || this.jump([this.seat]);
  }

  /** Sits down elsewhere, where most boxes with steps left are reached and something can be done. */
  private move(by: Seating, may: (socket: Socket) => boolean = () => true): boolean {
    const places = socketsIn(this.state, [])
      .filter((socket) => socket.seating === by && socket.port !== this.seat && may(socket))
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
  private jump(from?: readonly string[]): boolean {
    const open = [...this.left.devices()].filter((device) =>
      this.left.of(device).some((step) => this.left.isWork(step)),
    );
    const awaited = new Set(this.awaited().map(({ device }) => device));
    if (this.parachutes.size > 2 * this.state.boxes.length) return false;
    const all = () => [
      ...(this.seat === null ? [] : [this.seat]),
      ...socketsIn(this.state, []).flatMap(({ port, seating }) => (seating === 'air' ? [] : [port])),
    ];
    for (const socket of from ?? all()) {
      const reached = reachedFrom(this.state, socket);
      const wanted = new Set(
        open.flatMap((device) => {
          const { management } = this.then.boxes[placeIn(this.then, device)]!;
          return management && (reached.has(device) || awaited.has(device)) ? [management.vid] : [];
        }),
      );
      const boxes = [...reached].sort((a, b) => a[1] - b[1]).map(([device]) => device);
      for (const vid of wanted)
        for (const device of boxes) {
          const step = this.parachuteOn(device, vid, socket);
          if (!step || !this.isSafe(step, socket, reached) || !this.helps(step, socket)) continue;
          this.openParachute(step, device);
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
    this.left.lookAgain(step.device);
    // To close another in its stead would lead in a circle.
    const found = this.safeStep(socket, reachedFrom(this.state, socket), (one) => this.left.isWork(one));
    this.state = before;
    this.parachutes.delete(port);
    this.left.lookAgain(step.device);
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
    const facts = socketIn(vid);
    return { device, setting: { kind: 'parachute', port: port.id, facts } };
  }

  /** Remembers to close a parachute, and to save once more where that was the last thing to do. */
  private openParachute(step: Step, device: string): void {
    const { port } = step.setting as Extract<Step['setting'], { kind: 'parachute' }>;
    this.parachutes.add(port);
    this.left.lookAgain(device);
    const then = this.then.boxes[placeIn(this.then, device)]!.bridge;
    const facts = then.facts[then.ports.findIndex(({ id }) => id === port)]!;
    const planned = this.left
      .of(device)
      .find(({ setting }) => setting.kind === 'port' && setting.port === port);
    if (planned) this.left.drop(planned);
    this.left.add(step);
    this.left.add({ device, setting: { kind: 'port', port, facts, part: 'set' } });
  }

  /** Where nothing but closing is left to do, a parachute stays that only itself leads back to. */
  private record(): boolean {
    const left = this.left.all();
    if (left.some((step) => this.left.isWork(step))) return false;
    const step = left.find((one) => this.left.isClosing(one));
    if (step?.setting.kind !== 'port') return false;
    this.left.drop(step);
    this.entries.push({ kind: 'recorded', device: step.device, port: step.setting.port });
    return true;
  }

  private byConsole(): void {
    const all = [...this.left.devices()];
    const device = all.find((one) => this.left.of(one).some((step) => this.left.isWork(step))) ?? all[0]!;
    this.atConsole(device, this.left.of(device));
  }

  /** Boxes that come without a page are given their address at the console, with what their links need besides. */
  private consolesFirst(): void {
    for (const { bridge, management } of this.state.boxes) {
      const { device } = bridge;
      if (management?.way !== 'console') continue;
      const steps = this.left
        .of(device)
        .filter(
          ({ setting }) =>
            setting.kind === 'vlans' ||
            setting.kind === 'management' ||
            (setting.kind === 'port' && setting.part === 'add'),
        );
      if (steps.length > 0) this.atConsole(device, steps);
    }
  }

  private atConsole(device: string, steps: readonly Step[]): void {
    this.entries.push({ kind: 'console', device, steps });
    for (const step of steps) {
      this.state = after(this.state, step);
      this.left.drop(step);
    }
    if (steps.some(wantsSaving)) this.left.saveAgain(device);
  }
}

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
export const orderOf = (now: SiteState, then: SiteState, from: Standing = NOWHERE): Order =>
  finish(ordering(now, then, from));
