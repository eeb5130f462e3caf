import type { Collection, ChangedKeys } from './collection';
import type { Plan } from './plan';
import type { Reader } from './reads';
import { type AnyRecord, type TableName, tableNames } from './records';

/** What was read while a value was made, and whether it differs between two plans. */

/** A set of tables, by their places. */
export class Tables {
  constructor(
    private readonly low = 0,
    private readonly high = 0,
  ) {}

  static of(table: number): Tables {
    return table < 32 ? new Tables(1 << table, 0) : new Tables(0, 1 << (table - 32));
  }
  /** This one itself should the other hold nothing more. */
  with(other: Tables): Tables {
    const low = this.low | other.low;
    const high = this.high | other.high;
    return low === this.low && high === this.high ? this : new Tables(low, high);
  }
  meets(other: Tables): boolean {
    return (this.low & other.low) !== 0 || (this.high & other.high) !== 0;
  }
  *places(): Generator<number> {
    for (let table = 0; table < tableNames.length; table++) if (this.meets(single[table]!)) yield table;
  }
}
export const NO_TABLES = new Tables();
const single = tableNames.map((_, table) => Tables.of(table));

/** Who reads so many records of a table one by one is taken to read them all: keeping the list would cost more. */
const MANY = 1000;

/** Names that were read. They are only listed while a value is made; most are never asked for again. */
class Names {
  private list: string[] = [];
  private set: Set<string> | null = null;

  /** Says whether there are too many to keep. */
  add(name: string): boolean {
    const { list } = this;
    if (list[list.length - 1] === name) return false;
    list.push(name);
    if (list.length <= 2 * MANY) return false;
    const once = new Set(list);
    this.list = [...once];
    return once.size > MANY;
  }

  /** Is one of them among others? Only the smaller set is walked. */
  meet(others: ReadonlySet<string>): boolean {
    if (others.size === 0) return false;
    const own = (this.set ??= new Set(this.list));
    this.list = [];
    const [small, large] = own.size < others.size ? [own, others] : [others, own];
    for (const name of small) if (large.has(name)) return true;
    return false;
  }
}

/** What was read of one table, and of the next: mostly there are few. */
export class Reads {
  whole = false;
  private ids: Names | null = null;
  private buckets: Names | null = null;
  /** By index. */
  private keys: Map<string, Names> | null = null;

  constructor(
    readonly table: number,
    readonly next: Reads | null,
  ) {}

  read(id: string): void {
    if (!this.whole && (this.ids ??= new Names()).add(id)) this.all();
  }
  readBucket(key: string): void {
    if (!this.whole && (this.buckets ??= new Names()).add(key)) this.all();
  }
  readKey(index: string, key: string): void {
    if (this.whole) return;
    this.keys ??= new Map();
    let names = this.keys.get(index);
    if (!names) this.keys.set(index, (names = new Names()));
    if (names.add(key)) this.all();
  }
  all(): void {
    this.whole = true;
    this.ids = this.buckets = this.keys = null;
  }

  /** Is any of it among what differs? */
  meets(changed: ChangedKeys): boolean {
    if (this.whole) return changed.ids.size > 0;
    if (this.ids?.meet(changed.ids) || this.buckets?.meet(changed.buckets)) return true;
    if (this.keys)
      for (const [index, names] of this.keys) {
        const others = changed.keys.get(index);
        if (others && names.meet(others)) return true;
      }
    return false;
  }
}

/** Something else derived that was read: what it is made of counts as read too. */
interface Part {
  readonly tables: Tables;
  /** The number of the last recording it was read in, so that most repeated reads need no look into the set. */
  seenBy: number;
}

let recordings = 0;

/** What is read while one value is made. */
export class Recording<P extends Part> implements Reader {
  reads: Reads | null = null;
  /** Each once, but for those that another value read in between. */
  readonly parts: P[] = [];
  tables = NO_TABLES;
  private latest: Reads | null = null;
  private readonly number = ++recordings;

  constructor(readonly plan: Plan) {}

  private of(table: number): Reads {
    if (this.latest?.table === table) return this.latest;
    let found = this.reads;
    while (found && found.table !== table) found = found.next;
    if (!found) {
      found = this.reads = new Reads(table, this.reads);
      this.tables = this.tables.with(single[table]!);
    }
    return (this.latest = found);
  }

  one(table: number, id: string): void {
    this.of(table).read(id);
  }
  bucket(table: number, key: string): void {
    this.of(table).readBucket(key);
  }
  key(table: number, index: string, key: string): void {
    this.of(table).readKey(index, key);
  }
  whole(table: number): void {
    this.of(table).all();
  }

  /**
   * A derived value was read. One of another plan, which somebody tries out on the way, is made of records of this one: all
   * tables it was made of count as read.
   */
  part(plan: Plan, part: P): void {
    if (plan !== this.plan) for (const table of part.tables.places()) this.whole(table);
    else if (part.seenBy !== this.number) {
      part.seenBy = this.number;
      this.parts.push(part);
      this.tables = this.tables.with(part.tables);
    }
  }
}

type AnyCollection = Collection<AnyRecord>;

/** What differs between two plans; each table is compared when first asked about. */
export class Changes {
  readonly tables: Tables;
  /** By place of the table. */
  private readonly known: (ChangedKeys | undefined)[] = [];

  constructor(
    private readonly before: Plan,
    private readonly after: Plan,
  ) {
    this.tables = tableNames.reduce(
      (all, name, table) => (before[name] === after[name] ? all : all.with(single[table]!)),
      NO_TABLES,
    );
  }

  private of(table: number): ChangedKeys {
    const name: TableName = tableNames[table]!;
    const [after, before] = [this.after[name], this.before[name]] as unknown as AnyCollection[];
    return (this.known[table] ??= after!.differences(before!));
  }

  /** Did anything change that was read? */
  touch(first: Reads | null): boolean {
    for (let reads = first; reads; reads = reads.next)
      if (this.tables.meets(single[reads.table]!) && reads.meets(this.of(reads.table))) return true;
    return false;
  }
}
