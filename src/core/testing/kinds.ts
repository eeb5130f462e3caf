import fc from 'fast-check';
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import { uniformInt } from 'pure-rand/distribution/uniformInt';
import { type IpAddress, networkOf } from '../address';
import {
  schemaOf,
  toWire,
  type NamedField,
  fieldsOf,
  type Schema,
  isNullable,
  itemsOf,
  shapeOf,
  type Plan,
  planOf,
  withRecord,
  type AnyRecord,
  type TableName,
  kinds,
  tableNames,
} from '../plan';
import { without } from './plans';

/**
 * Plans drawn from the definitions of the kinds alone: records of every kind with every field filled and empty, whatever
 * limits allow, references that hold and nothing else that makes sense. For laws that hold for any plan.
 */

const TEXTS = ['Halle 3', 'a', '“quoted”', "O'Brien; --", 'ÄÖß ∑', '雪', '😀 x', '<b>&amp;</b>', '\\n % _'];

export class Drawing {
  private readonly random: ReturnType<typeof xoroshiro128plus>;
  readonly lists = new Map<TableName, AnyRecord[]>();

  /** With a plan, what is drawn refers to its records. */
  constructor(seed: number, plan?: Plan) {
    this.random = xoroshiro128plus(seed);
    if (plan)
      for (const table of tableNames)
        this.lists.set(table, [...(plan[table].values() as Iterable<AnyRecord>)]);
  }

  number(from: number, to: number): number {
    return uniformInt(this.random, from, to);
  }
  one<T>(items: readonly T[]): T {
    return items[this.number(0, items.length - 1)]!;
  }
  chance(percent: number): boolean {
    return this.number(1, 100) <= percent;
  }

  private ip(): IpAddress {
    return this.chance(70)
      ? this.number(0, 2 ** 31 - 1) * 2 + this.number(0, 1)
      : (0xfd00n << 112n) + BigInt(this.number(0, 2 ** 31 - 1));
  }

  private idIn(to: string): string | null {
    const records = this.lists.get(to as TableName) ?? [];
    return records.length === 0 ? null : this.one(records).id;
  }

  private text(min: number, max: number): string {
    if (min === 0 && this.chance(30)) return '';
    return this.chance(10) ? 'x'.repeat(max) : [...this.one(TEXTS)].slice(0, max).join('').trim();
  }

  value(field: NamedField): unknown {
    const { schema, stored, min = 0, max = 0, values, example, reference } = field;
    if (isNullable(schema) && this.chance(30)) return null;
    switch (stored) {
      case 'text':
      case 'long-text':
        return this.text(min, max);
      case 'whole':
        return this.one([min, max, this.number(min, max)]);
      case 'flag':
        return this.chance(50);
      case 'choice':
        return this.one(values!);
      case 'code':
        return example;
      case 'address':
        return this.ip();
      case 'addresses':
        return [this.ip(), this.ip()].slice(this.number(0, 2));
      case 'prefix': {
        const address = this.ip();
        return networkOf(address, this.number(8, typeof address === 'number' ? 32 : 128));
      }
      case 'mac':
        return `00:00:5E:00:53:${this.number(0, 255).toString(16).toUpperCase().padStart(2, '0')}`;
      case 'day':
        return `20${this.number(10, 40)}-0${this.number(1, 9)}-${this.number(10, 28)}`;
      case 'moment':
        return new Date(Date.UTC(2026, this.number(0, 11), this.number(1, 28))).toISOString();
      case 'id':
        return reference ? this.idIn(reference.to) : 'stdhttp';
      case 'words':
        return values!.filter(() => this.chance(50));
      case 'parts':
        return this.object(shapeOf(schema));
      case 'list':
        return Array.from({ length: this.number(0, 2) }, () => this.item(schema));
    }
  }

  private object(shape: Parameters<typeof fieldsOf>[0]): Record<string, unknown> {
    return Object.fromEntries(fieldsOf(shape).map((field) => [field.name, this.value(field)]));
  }

  private item(list: Schema): unknown {
    const items = itemsOf(list);
    if ('forms' in items) return this.object(this.one(items.forms));
    return 'shape' in items
      ? this.object(items.shape)
      : this.value(fieldsOf({ item: items.value as never })[0]!);
  }

  /** A record that its schema takes; null where what it must refer to is not there. */
  record(table: TableName, id: string): AnyRecord | null {
    for (let tries = 0; tries < 40; tries++) {
      const drawn = { id, ...this.object(kinds[table].fields) } as unknown as AnyRecord;
      try {
        const parsed = schemaOf(table).safeDecode(toWire(table, drawn));
        if (parsed.success) return parsed.data;
      } catch {
        // Broken laws between fields: draw again.
      }
    }
    return null;
  }
}

/** A plan of up to so many records of each kind. */
export function drawPlan(seed: number, most = 4): Plan {
  const drawing = new Drawing(seed);
  for (const table of tableNames) {
    const count = table === 'site' ? 1 : most;
    const records = Array.from({ length: count }, (_, i) =>
      drawing.record(table, table === 'site' ? 'site' : `${table.toLowerCase()}${i}`),
    ).filter((record) => record !== null);
    drawing.lists.set(table, records);
  }
  return planOf(Object.fromEntries(drawing.lists));
}

const drawn = new Map<number, Plan>();
/** One of eighty plans, each drawn once. */
export const drawnPlan = fc.nat(79).map((seed) => {
  let plan = drawn.get(seed);
  if (!plan) drawn.set(seed, (plan = drawPlan(seed)));
  return plan;
});

/** A plan with one record more. */
function withInserted(plan: Plan, drawing: Drawing): Plan {
  const table = drawing.one(tableNames.filter((name) => name !== 'site'));
  const id = `k${drawing.number(0, 1_000_000).toString(36)}`;
  const record = plan[table].get(id) ? null : drawing.record(table, id);
  return record ? withRecord(plan, table, id, record) : plan;
}

/** A plan in which one field of one record has another value its kind allows. */
function withEdited(plan: Plan, drawing: Drawing): Plan {
  const table = drawing.one(tableNames.filter((name) => plan[name].size > 0));
  const record = drawing.one(drawing.lists.get(table)!);
  const field = drawing.one(fieldsOf(kinds[table].fields));
  const value = drawing.value(field);
  if (value === null && !isNullable(field.schema)) return plan;
  const edited = { ...record, [field.name]: value } as unknown as AnyRecord;
  try {
    const parsed = schemaOf(table).safeDecode(toWire(table, edited));
    return parsed.success ? withRecord(plan, table, record.id, parsed.data) : plan;
  } catch {
    return plan;
  }
}

function withRemoved(plan: Plan, drawing: Drawing): Plan {
  const least = (name: TableName) => (name === 'site' || name === 'lan' ? 1 : 0);
  const table = drawing.one(tableNames.filter((name) => plan[name].size > least(name)));
  return without(plan, { table, id: drawing.one(drawing.lists.get(table)!).id });
}

/** One change to any record of a plan, of any kind and in any field. */
export function changeAtRandom(plan: Plan, seed: number): Plan {
  const drawing = new Drawing(seed, plan);
  const what = drawing.number(0, 9);
  if (what < 6) return withEdited(plan, drawing);
  return what < 9 ? withInserted(plan, drawing) : withRemoved(plan, drawing);
}

/** A plan with a record of each kind it has none of. */
export const withEveryKind = (plan: Plan, seed: number): Plan =>
  tableNames.reduce((now, table) => {
    const record =
      now[table].size > 0 ? null : new Drawing(seed, now).record(table, `every${table.toLowerCase()}`);
    return record ? withRecord(now, table, record.id, record) : now;
  }, plan);
