import { sha256 } from '@noble/hashes/sha2.js';
import { utf8ToBytes } from '@noble/hashes/utils.js';
import { type AnyRecord, Draft, type Plan, type RecordOf, type TableName, equal, recordIn } from '../plan';

/** What was last accepted of proposals, by table and id. */
export type Accepted = ReadonlyMap<string, AnyRecord>;
export const acceptedKey = (table: TableName, id: string): string => `${table} ${id}`;

/** Ids by what they are for: proposals are made again and again, and side by side, with the same keys. */
const ids = new Map<string, string>();
const MOST_IDS = 50_000;

/** The id of a record that is proposed for something: the same in every proposal. */
function idFor(key: string): string {
  const known = ids.get(key);
  if (known !== undefined) return known;
  if (ids.size >= MOST_IDS) ids.clear();
  let number = 0n;
  for (const byte of sha256(utf8ToBytes(key)).subarray(0, 10)) number = (number << 8n) | BigInt(byte);
  const id = `p${number.toString(36)}`;
  ids.set(key, id);
  return id;
}

/**
 * A draft whose records get their ids by what they are for, so that proposing again names the same records. Fields that
 * somebody has set since they were accepted stay as they are, whatever is written over them.
 */
export class KeyedDraft extends Draft {
  private key = '';
  private count = 0;
  /** By record: for which part of the proposal it was written. */
  readonly partOf = new Map<string, string>();
  private part = '';

  constructor(
    /** The plan the proposal begins with. */
    private readonly start: Plan,
    /** The plan as it stands, with what the proposal may write anew. */
    private readonly present: Plan,
    private readonly accepted: Accepted,
  ) {
    super(start, '');
  }

  /** Runs `work` with ids for `key`; `part` is what the records are accepted by. */
  under<T>(part: string, key: string, work: () => T): T {
    const before = { key: this.key, count: this.count, part: this.part };
    Object.assign(this, { key, count: 0, part });
    try {
      return work();
    } finally {
      Object.assign(this, before);
    }
  }

  /** The record as it stands now under the next id, accepted earlier; whoever can keep to it does. */
  was<T extends TableName>(table: T, key: string, number = 0): RecordOf<T> | undefined {
    return recordIn(this.present, table, this.idOf(key, number)) as RecordOf<T> | undefined;
  }

  /** The id of what is first written under a key. */
  idOf(key: string, number = 0): string {
    return idFor(`${key}/${number}`);
  }

  /** Does a record come from a proposal, this one or one accepted earlier? */
  isProposed(table: TableName, id: string): boolean {
    const key = acceptedKey(table, id);
    return this.accepted.has(key) || this.partOf.has(key);
  }

  /** Sets fields of a record whoever set them before: of a socket that nothing is plugged into. */
  take<T extends TableName>(table: T, id: string, fields: Partial<RecordOf<T>>): void {
    super.put(table, id, { ...this.need(table, id), ...fields });
  }

  override newId(): string {
    return idFor(`${this.key}/${this.count++}`);
  }

  override insert<T extends TableName>(table: T, record: Omit<RecordOf<T>, 'id'>): RecordOf<T> {
    const { id } = super.insert(table, record);
    return this.need(table, id);
  }

  override update<T extends TableName>(table: T, id: string, fields: Partial<RecordOf<T>>): RecordOf<T> {
    super.update(table, id, fields);
    return this.need(table, id);
  }

  override put<T extends TableName>(table: T, id: string, after: RecordOf<T> | null): void {
    const key = acceptedKey(table, id);
    if (!this.partOf.has(key)) this.partOf.set(key, this.part);
    const had = recordIn(this.present, table, id);
    // What stood in some place of an order stays there.
    if (after && had && 'rank' in had) after = { ...after, rank: had.rank };
    const standing = recordIn(this.start, table, id);
    if (after === null || !standing) return super.put(table, id, after);
    const base = this.accepted.get(key) as Readonly<Record<string, unknown>> | undefined;
    const kept = Object.entries(standing).filter(
      ([field, value]) => base === undefined || !equal(value, base[field]),
    );
    super.put(table, id, { ...after, ...Object.fromEntries(kept) });
  }
}
