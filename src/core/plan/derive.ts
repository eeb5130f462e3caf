import { equal } from './equal';
import type { Plan } from './plan';
import { reading } from './reads';
import { Changes, Recording, type Reads, type Tables } from './recording';

/**
 * Values that follow from a plan. What a value is made of is recorded while it is made: records, buckets, whole tables, and
 * other derived values. For the next plan it is made again only when something it read has changed, and a value that comes
 * out equal to the one before stops there: whoever read it is left as it is. Nobody keeps a list of what depends on what.
 *
 * Law: a value kept is equal to the same value made from nothing.
 */

type Key = string | number;
type Make<K extends Key, V> = (plan: Plan, key: K, before: V | undefined) => V;

/** A part whose changes may be of no concern. */
interface Despite<K extends Key, V> {
  /** Its place among all derivations. */
  readonly of: number;
  readonly holds: (value: V, was: unknown, is: unknown, key: K) => boolean;
}

interface Derivation<K extends Key, V> {
  readonly make: Make<K, V>;
  readonly same: (a: V, b: V) => boolean;
  readonly despite: Despite<K, V> | null;
  /** Its place among all derivations. */
  readonly place: number;
}
type AnyDerivation = Derivation<never, unknown>;

/** A value with what it was made of. */
class Entry {
  /** The number of the last store in which it was found to hold. */
  holdsIn = 0;
  /** The number of the last store in which it was found to hold no more. */
  endedIn = 0;
  seenBy = 0;

  constructor(
    readonly derivation: AnyDerivation,
    readonly key: Key,
    readonly value: unknown,
    readonly reads: Reads | null,
    /** Each is replaced by what came out equal later on, so that no older values are kept alive. */
    readonly parts: Entry[],
    /** Every table it was made of, by itself or by its parts; it may grow while parts are made of more. */
    public tables: Tables,
  ) {}
}

/** Would a value be the same with a part as it is now? */
function isNoConcern({ derivation, value, key }: Entry, was: Entry, is: Entry): boolean {
  const despite = derivation.despite as Despite<Key, unknown> | null;
  return despite?.of === was.derivation.place && despite.holds(value, was.value, is.value, key);
}

/** So many plans back a value is looked for. */
const DEPTH = 6;
/** So many plans are kept alive for their values, whoever else has let go of them. */
const KEPT = 4;

let stored = 0;

/** The values known of one plan. */
class Store {
  private readonly number = ++stored;
  /** By place of the derivation. */
  private readonly values: (Map<Key, Entry> | undefined)[] = [];
  private readonly changes = new WeakMap<Store, Changes>();

  constructor(
    readonly plan: Plan,
    private base: Store | null,
  ) {
    // Older ones are let go.
    let last = base;
    for (let depth = 2; depth < DEPTH && last; depth++) last = last.base;
    if (last) last.base = null;
  }

  entry(derivation: AnyDerivation, key: Key): Entry {
    const mine = (this.values[derivation.place] ??= new Map());
    const known = mine.get(key);
    if (known) return known;
    let before: Entry | undefined;
    let from: Store | null = this.base;
    for (; from; from = from.base) {
      before = from.values[derivation.place]?.get(key);
      if (before) break;
    }
    return this.heldOrMade(mine, derivation, key, before, from);
  }

  private heldOrMade(
    mine: Map<Key, Entry>,
    derivation: AnyDerivation,
    key: Key,
    before: Entry | undefined,
    from: Store | null,
  ): Entry {
    let entry = before;
    if (!entry || !this.stillHolds(entry, from!)) {
      if (entry) entry.endedIn = this.number;
      entry = this.made(derivation, key, before);
    }
    entry.holdsIn = this.number;
    mine.set(key, entry);
    return entry;
  }

  /** What a part of an earlier value is now. Mostly it is the very one known there, and needs no look into the maps. */
  private partNow(part: Entry, from: Store): Entry {
    const { derivation, key } = part;
    const isThere = from === this.base && part.holdsIn === from.number && part.endedIn !== this.number;
    if (!isThere) return this.entry(derivation, key);
    return this.heldOrMade((this.values[derivation.place] ??= new Map()), derivation, key, part, from);
  }

  /** Is everything that a value of an earlier plan was made of still the same? */
  private stillHolds(entry: Entry, from: Store): boolean {
    let changes = this.changes.get(from);
    if (!changes) this.changes.set(from, (changes = new Changes(from.plan, this.plan)));
    if (!entry.tables.meets(changes.tables)) return true;
    if (changes.touch(entry.reads)) return false;
    const { parts } = entry;
    for (let at = 0; at < parts.length; at++) {
      const part = parts[at]!;
      let now = part;
      if (part.holdsIn !== this.number) {
        try {
          now = this.partNow(part, from);
        } catch {
          // What it was asked of is there no more; whoever asks now says so.
          return false;
        }
        if (now.value !== part.value && !isNoConcern(entry, part, now)) return false;
        parts[at] = now;
      }
      entry.tables = entry.tables.with(now.tables);
    }
    return true;
  }

  private made(derivation: AnyDerivation, key: Key, before: Entry | undefined): Entry {
    const recording = new Recording<Entry>(this.plan);
    const make = derivation.make as Make<Key, unknown>;
    const outer = reading.reader;
    reading.reader = recording;
    let value: unknown;
    try {
      value = make(this.plan, key, before?.value);
    } finally {
      reading.reader = outer;
    }
    const same = before !== undefined && (derivation.same as typeof equal)(before.value, value);
    const { reads, parts, tables } = recording;
    return new Entry(derivation, key, same ? before.value : value, reads, parts, tables);
  }
}

/** A store hangs on its plan and goes with it, sooner than out of a weak map; equality, copies and files do not see it. */
const STORE = Symbol('store');
const storeOn = (plan: Plan): Store | undefined => (plan as { readonly [STORE]?: Store })[STORE];
/** The plan that a plan was made from; steps in between of which nothing is known are passed over. */
const origins = new WeakMap<Plan, WeakRef<Plan>>();
const kept: Store[] = [];

/** Remembers that one plan was made by changing another, so that what is known of that one is looked at first. */
export function madeFrom(next: Plan, plan: Plan): void {
  const origin = storeOn(plan) ? undefined : origins.get(plan);
  origins.set(next, origin ?? new WeakRef(plan));
}

/** What is known of the plan that a plan was made from. */
function known(plan: Plan): Store | null {
  const origin = origins.get(plan)?.deref();
  return (origin && storeOn(origin)) ?? null;
}

let last: Store | null = null;
function storeOf(plan: Plan): Store {
  if (last?.plan === plan) return last;
  let store = storeOn(plan);
  if (!store) {
    store = new Store(plan, known(plan));
    Object.defineProperty(plan, STORE, { value: store });
    kept.push(store);
    if (kept.length > KEPT) kept.shift();
  }
  last = store;
  return store;
}

function valueOf<K extends Key, V>(derivation: Derivation<K, V>, plan: Plan, key: K): V {
  const { reader } = reading;
  const entry = storeOf(plan).entry(derivation as unknown as AnyDerivation, key);
  if (reader instanceof Recording) reader.part(plan, entry);
  else if (reader !== null) for (const table of entry.tables.places()) reader.whole(table);
  return entry.value as V;
}

let derivations = 0;

/**
 * A value of a plan. `make` reads the plan and other derived values and nothing else; `before` is the same value of an earlier
 * plan, for who can go on from there: what comes out must not depend on it. It must be worked out when `make` returns, as what
 * is read later is not recorded. `same` says when a new value is as good as the one before; without it, when it is equal in
 * all its parts.
 */
export function derive<V>(
  make: (plan: Plan, before: V | undefined) => V,
  same: (a: V, b: V) => boolean = equal,
): (plan: Plan) => V {
  const derived = deriveBy((plan, _key: string, before: V | undefined) => make(plan, before), same);
  return placedAt((plan: Plan) => derived(plan, ''), derivations - 1);
}

/** A value of a plan for each key: an id, a name, a number. */
export function deriveBy<K extends Key, V>(
  make: Make<K, V>,
  same: (a: V, b: V) => boolean = equal,
  despite: Despite<K, V> | null = null,
): (plan: Plan, key: K) => V {
  const derivation: Derivation<K, V> = { make, same, despite, place: derivations++ };
  return placedAt((plan: Plan, key: K) => valueOf(derivation, plan, key), derivation.place);
}

/** By the functions that give derived values, their places. */
const placesOf = new WeakMap<object, number>();
function placedAt<F extends object>(give: F, place: number): F {
  placesOf.set(give, place);
  return give;
}

/**
 * A large part that a value reads little of: a value is left as it is when that part changes and `holds` says that it would
 * come out the same. It must be sure: false costs time only.
 */
export const despite = <K extends Key, V, P>(
  part: (plan: Plan) => P,
  holds: (value: V, was: P, is: P, key: K) => boolean,
): Despite<K, V> => ({ of: placesOf.get(part)!, holds: holds as Despite<K, V>['holds'] });
