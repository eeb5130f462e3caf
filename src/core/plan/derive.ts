import type { Collection, Differences } from './collection';
import { equal } from './equal';
import type { Plan } from './plan';
import { type Reader, readBy, reading } from './reads';
import { type AnyRecord, type TableName, tableNames } from './records';

/**
 * Values that follow from a plan. What a value is made of is recorded while it is made: records, buckets, whole tables, and
 * other derived values. For the next plan it is made again only when something it read has changed, and a value that comes
 * out equal to the one before stops there: whoever read it is left as it is. Nobody keeps a list of what depends on what.
 *
 * Law: a value kept is equal to the same value made from nothing.
 */

type Key = string | number;
type Make<K extends Key, V> = (plan: Plan, key: K, before: V | undefined) => V;

interface Derivation<K extends Key, V> {
  readonly make: Make<K, V>;
  readonly same: (a: V, b: V) => boolean;
}
type AnyDerivation = Derivation<never, unknown>;

/** What was read of one table. */
interface Reads {
  whole: boolean;
  readonly ids: Set<string>;
  readonly buckets: Set<string>;
  readonly keys: Set<string>;
}

/** A set of tables, by their places. */
type Tables = readonly [low: number, high: number];
const bit = (table: number): Tables => (table < 32 ? [1 << table, 0] : [0, 1 << (table - 32)]);
const join = (a: Tables, b: Tables): Tables => [a[0] | b[0], a[1] | b[1]];
const meet = (a: Tables, b: Tables): boolean => (a[0] & b[0]) !== 0 || (a[1] & b[1]) !== 0;
const NO_TABLES: Tables = [0, 0];
function* listed(tables: Tables): Generator<number> {
  for (let table = 0; table < tableNames.length; table++) if (meet(tables, bit(table))) yield table;
}

/** A value with what it was made of. */
interface Entry {
  readonly derivation: AnyDerivation;
  readonly key: Key;
  readonly value: unknown;
  /** By place of the table. */
  readonly reads: readonly (Reads | undefined)[];
  readonly parts: readonly Entry[];
  /** Every table it was made of, by itself or by its parts. */
  readonly tables: Tables;
}

class Recording implements Reader {
  readonly reads: (Reads | undefined)[] = [];
  readonly parts = new Set<Entry>();
  tables: Tables = NO_TABLES;

  constructor(readonly plan: Plan) {}

  private of(table: number): Reads {
    const known = this.reads[table];
    if (known) return known;
    this.tables = join(this.tables, bit(table));
    return (this.reads[table] = { whole: false, ids: new Set(), buckets: new Set(), keys: new Set() });
  }

  one(table: number, id: string): void {
    const reads = this.of(table);
    if (!reads.whole) reads.ids.add(id);
  }
  bucket(table: number, key: string): void {
    const reads = this.of(table);
    if (!reads.whole) reads.buckets.add(key);
  }
  key(table: number, key: string): void {
    const reads = this.of(table);
    if (!reads.whole) reads.keys.add(key);
  }
  whole(table: number): void {
    this.of(table).whole = true;
  }

  /**
   * A derived value was read. One of another plan, which somebody tries out on the way, is made of records of this one: all
   * tables it was made of count as read.
   */
  part(plan: Plan, entry: Entry): void {
    if (plan !== this.plan) for (const table of listed(entry.tables)) this.whole(table);
    else if (!this.parts.has(entry)) {
      this.parts.add(entry);
      this.tables = join(this.tables, entry.tables);
    }
  }
}

type AnyCollection = Collection<AnyRecord>;

/** What differs between two plans; each table is compared when first asked about. */
class Changes {
  readonly tables: Tables;
  private readonly list: readonly number[];
  private readonly known = new Map<number, Differences>();

  constructor(
    private readonly before: Plan,
    private readonly after: Plan,
  ) {
    this.list = tableNames.flatMap((name, table) => (before[name] === after[name] ? [] : [table]));
    this.tables = this.list.reduce((all, table) => join(all, bit(table)), NO_TABLES);
  }

  private of(table: number): Differences {
    let found = this.known.get(table);
    if (!found) {
      const name: TableName = tableNames[table]!;
      const [after, before] = [this.after[name], this.before[name]] as unknown as AnyCollection[];
      this.known.set(table, (found = after!.differences(before!)));
    }
    return found;
  }

  touch({ reads }: Entry): boolean {
    for (const table of this.list) {
      const read = reads[table];
      if (!read) continue;
      const changed = this.of(table);
      if (read.whole ? changed.ids.size > 0 : overlap(read.ids, changed.ids)) return true;
      if (overlap(read.buckets, changed.buckets) || overlap(read.keys, changed.keys)) return true;
    }
    return false;
  }
}

/** Do two sets share something? Only the smaller is walked. */
function overlap(a: ReadonlySet<string>, b: ReadonlySet<string>): boolean {
  const [small, large] = a.size < b.size ? [a, b] : [b, a];
  for (const item of small) if (large.has(item)) return true;
  return false;
}

/** So many plans back a value is looked for. */
const DEPTH = 6;
/** So many plans are kept alive for their values, whoever else has let go of them. */
const KEPT = 4;

/** The values known of one plan. */
class Store {
  readonly values = new Map<AnyDerivation, Map<Key, Entry>>();
  private readonly changes = new Map<Store, Changes>();

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
    let mine = this.values.get(derivation);
    if (!mine) this.values.set(derivation, (mine = new Map()));
    const known = mine.get(key);
    if (known) return known;
    let before: Entry | undefined;
    let from: Store | null = this.base;
    for (; from; from = from.base) {
      before = from.values.get(derivation)?.get(key);
      if (before) break;
    }
    const kept = before && this.kept(before, from!);
    const entry = kept ?? this.made(derivation, key, before);
    mine.set(key, entry);
    return entry;
  }

  /** A value of an earlier plan, should everything it was made of still be the same. */
  private kept(entry: Entry, from: Store): Entry | undefined {
    let changes = this.changes.get(from);
    if (!changes) this.changes.set(from, (changes = new Changes(from.plan, this.plan)));
    if (!meet(entry.tables, changes.tables)) return entry;
    if (changes.touch(entry)) return undefined;
    const parts: Entry[] = [];
    let renewed = false;
    for (const part of entry.parts) {
      let now: Entry;
      try {
        now = this.entry(part.derivation, part.key);
      } catch {
        // What it was asked of is there no more; whoever asks now says so.
        return undefined;
      }
      if (now.value !== part.value) return undefined;
      renewed ||= now !== part;
      parts.push(now);
    }
    // The parts may be made of other things now, though they came out the same.
    return renewed ? entryOf(entry, entry.value, entry.reads, parts) : entry;
  }

  private made(derivation: AnyDerivation, key: Key, before: Entry | undefined): Entry {
    const recording = new Recording(this.plan);
    const make = derivation.make as Make<Key, unknown>;
    const value = readBy(recording, () => make(this.plan, key, before?.value));
    const same = before !== undefined && (derivation.same as typeof equal)(before.value, value);
    return entryOf({ derivation, key }, same ? before.value : value, recording.reads, [...recording.parts]);
  }
}

function entryOf(
  { derivation, key }: Pick<Entry, 'derivation' | 'key'>,
  value: unknown,
  reads: Entry['reads'],
  parts: readonly Entry[],
): Entry {
  let tables = parts.reduce((all, part) => join(all, part.tables), NO_TABLES);
  reads.forEach((read, table) => {
    if (read) tables = join(tables, bit(table));
  });
  return { derivation, key, value, reads, parts, tables };
}

const stores = new WeakMap<Plan, Store>();
/** The plan that a plan was made from; steps in between of which nothing is known are passed over. */
const origins = new WeakMap<Plan, WeakRef<Plan>>();
const kept: Store[] = [];

/** Remembers that one plan was made by changing another, so that what is known of that one is looked at first. */
export function madeFrom(next: Plan, plan: Plan): void {
  const origin = stores.has(plan) ? undefined : origins.get(plan);
  origins.set(next, origin ?? new WeakRef(plan));
}

/** What is known of the plan that a plan was made from. */
function known(plan: Plan): Store | null {
  const origin = origins.get(plan)?.deref();
  return (origin && stores.get(origin)) ?? null;
}

let last: Store | null = null;
function storeOf(plan: Plan): Store {
  if (last?.plan === plan) return last;
  let store = stores.get(plan);
  if (!store) {
    store = new Store(plan, known(plan));
    stores.set(plan, store);
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
  else if (reader !== null) for (const table of listed(entry.tables)) reader.whole(table);
  return entry.value as V;
}

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
  const derivation: Derivation<string, V> = { make: (plan, _key, before) => make(plan, before), same };
  return (plan) => valueOf(derivation, plan, '');
}

/** A value of a plan for each key: an id, a name, a number. */
export function deriveBy<K extends Key, V>(
  make: Make<K, V>,
  same: (a: V, b: V) => boolean = equal,
): (plan: Plan, key: K) => V {
  const derivation: Derivation<K, V> = { make, same };
  return (plan, key) => valueOf(derivation, plan, key);
}
