import * as z from 'zod';
import { addOffset, formatAddress } from '../address';
import { operations, perform } from '../edit';
import {
  type Operation,
  type Plan,
  Refusal,
  type Subnet,
  type TableName,
  type WireCall,
  fieldsOf,
  kinds,
  tableNames,
  toWire,
} from '../plan';
import { Drawing } from './kinds';

/**
 * Inputs of operations drawn from their schemas alone, on a given plan: mostly what a person could have typed or chosen
 * there, now and then nonsense. For laws that hold for any operation with any input.
 */

interface Shape {
  readonly type?: string;
  readonly properties?: Readonly<Record<string, Shape>>;
  readonly required?: readonly string[];
  readonly additionalProperties?: Shape | boolean;
  readonly propertyNames?: Shape;
  readonly items?: Shape;
  readonly minItems?: number;
  readonly anyOf?: readonly Shape[];
  readonly oneOf?: readonly Shape[];
  readonly allOf?: readonly Shape[];
  readonly enum?: readonly unknown[];
  readonly const?: unknown;
  readonly minimum?: number;
  readonly maximum?: number;
}

const shapes = new Map<string, Shape>();
function shapeOf({ name, input }: Operation): Shape {
  let shape = shapes.get(name);
  if (!shape)
    shapes.set(name, (shape = z.toJSONSchema(input, { io: 'input', unrepresentable: 'any' }) as Shape));
  return shape;
}

/** What is typed somewhere or other, right or wrong. */
const TYPED = [
  ...['', ' ', '0', '1', '7', '24', '300', '4094', '4095', '-3', '1.5', '1e9', 'NaN', '10, 20, 30-32', '1-4'],
  ...[
    'all',
    'any',
    'none',
    'free',
    'tcp',
    'tcp 443',
    '443',
    '8000-8080',
    'icmp',
    '12h',
    '3 days',
    '21:00-06:00',
  ],
  ...['10.20.30.0/24', '10.20.30.7', '10.20.30.7/24', '192.0.2.1', '0.0.0.0/0', '255.255.255.0', '300.1.2.3'],
  ...[
    '2001:db8::1',
    '2001:db8::/32',
    'fd00::/64',
    '::',
    '00:00:5E:00:53:0A',
    'nas.clinic.example.net',
    '*.example.net',
  ],
  ...[
    '2026-05-04',
    '2026-02-30',
    '2026-05-04T10:20:30.456Z',
    'printer-{n}',
    'cam-1..4',
    'sw-a 1-12 = phone-1..12',
  ],
  ...['x', 'Halle 3', 'ÄÖß ∑', '雪', '😀', "O'Brien; --", '<b>', 'x'.repeat(70), 'x'.repeat(300)],
];

/** Fields that hold a value here and name a record there. */
const SAID = new Set([
  'name',
  'label',
  'prefix',
  'address',
  'gateway',
  'at',
  'start',
  'end',
  'via',
  'to',
  'length',
]);

function tableOf(field: string): TableName | undefined {
  const plain = field.toLowerCase().replace(/ies$/, 'y').replace(/s$/, '');
  const [longest] = tableNames
    .filter((table) => plain.endsWith(table.toLowerCase()))
    .sort((a, b) => b.length - a.length);
  return longest;
}

class Inputs extends Drawing {
  constructor(
    private readonly plan: Plan,
    seed: number,
  ) {
    super(seed, plan);
    // The first draws of seeds that lie near one another are alike.
    for (let i = 0; i < 12; i++) this.number(0, 1);
  }

  /** The kind of record that was named last. */
  private spokenOf: TableName | undefined;

  private anyTable(): TableName {
    return this.one(tableNames.filter((table) => this.plan[table].size > 0));
  }
  idOf(table: TableName): string {
    return this.one(this.lists.get(table)!).id;
  }
  private somewhere(): string {
    const table = this.anyTable();
    const wire = toWire(table, this.one(this.lists.get(table)!) as never) as Readonly<
      Record<string, unknown>
    >;
    const texts = Object.values(wire).filter((value) => typeof value === 'string');
    return texts.length ? this.one(texts) : this.one(TYPED);
  }

  /** What a person would type into a field of this name. */
  private fitting(name: string): string {
    const subnets = this.lists.get('subnet') as Subnet[];
    switch (name) {
      case 'name':
      case 'label':
        return `new ${this.number(1, 999)}`;
      case 'prefix':
        return `10.${this.number(60, 99)}.${this.number(0, 255)}.0/24`;
      case 'address':
      case 'gateway':
      case 'at':
      case 'start':
      case 'end':
      case 'via':
      case 'to': {
        if (subnets.length === 0) return this.one(TYPED);
        return formatAddress(addOffset(this.one(subnets).prefix.address, this.number(1, 250)));
      }
      default:
        return this.one(TYPED);
    }
  }

  /** A text under this name: the id of a record it names, any id, a value that some record has, or what people type. */
  typed(name: string): string {
    // Before or after what: one of the same kind.
    const table = name === 'after' || name === 'before' ? this.spokenOf : tableOf(name);
    this.spokenOf = table;
    const dice = this.number(1, 100);
    const share = SAID.has(name) ? 40 : 80;
    if (dice <= share && table && this.plan[table].size > 0) return this.idOf(table);
    if (dice <= share + 4) return this.idOf(this.anyTable());
    if (dice <= share + 6) return this.somewhere();
    return dice <= share + 10 ? this.one(TYPED) : this.fitting(name);
  }

  private whole({ minimum = 0, maximum = 300 }: Shape): number {
    const most = Math.min(maximum, 1e6);
    const usual = [1, 2, 4, 10, 20, 64, 443, 3600, 4096].filter((count) => count >= minimum && count <= most);
    return this.one([minimum, most, this.number(minimum, most), ...usual]);
  }

  shaped(shape: Shape, name: string): unknown {
    if (this.chance(1)) return this.one([null, '', -1, 1.5, true, [], {}, 'x', [null], { x: 1 }]);
    if (shape.const !== undefined) return shape.const;
    if (shape.enum) return this.one(shape.enum);
    const forms = shape.anyOf ?? shape.oneOf;
    if (forms) return this.shaped(this.one(forms), name);
    if (shape.allOf) return this.shaped(Object.assign({}, ...shape.allOf) as Shape, name);
    switch (shape.type) {
      case 'object':
        return this.fields(shape, name);
      case 'array':
        return Array.from({ length: this.number(shape.minItems ?? 0, this.chance(5) ? 12 : 3) }, () =>
          this.shaped(shape.items ?? {}, name),
        );
      case 'boolean':
        return this.chance(50);
      case 'null':
        return null;
      case 'integer':
      case 'number':
        return this.whole(shape);
      default:
        return this.typed(name);
    }
  }

  private fields(
    { properties = {}, required = [], additionalProperties, propertyNames }: Shape,
    name: string,
  ): object {
    const entries = Object.entries(properties)
      .filter(([field]) => this.chance(required.includes(field) ? 99 : 60))
      .map(([field, shape]) => [field, this.shaped(shape, field)]);
    if (typeof additionalProperties === 'object' && propertyNames)
      for (let left = this.number(0, 3); left > 0; left--)
        entries.push([String(this.shaped(propertyNames, name)), this.shaped(additionalProperties, name)]);
    return Object.fromEntries(entries);
  }

  /** A field of a record set to anything its kind allows. */
  private editing(): object {
    const table = this.anyTable();
    const record = this.one(this.lists.get(table)!);
    const field = this.one(fieldsOf(kinds[table].fields));
    const seen = toWire(table, record as never) as Readonly<Record<string, unknown>>;
    const value = { ...record, [field.name]: this.value(field) };
    let set: unknown;
    try {
      set = (toWire(table, value as never) as Readonly<Record<string, unknown>>)[field.name];
    } catch {
      set = this.one(TYPED);
    }
    if (this.chance(5)) set = this.one(TYPED);
    return { table, id: record.id, set: { [field.name]: set }, seen: { [field.name]: seen[field.name] } };
  }

  call(names: readonly string[]): WireCall {
    const operation = this.one(names);
    if (operation === 'edit') return { operation, input: this.editing() };
    return { operation, input: this.shaped(shapeOf(operations.get(operation)!), '') };
  }
}

/** What takes steps, rows or whole plans that are read elsewhere: nothing a person fills in. */
const READ_ELSEWHERE = new Set(['takeSteps', 'acceptProposal', 'bringInRows', 'bringInPlan', 'several']);
export const filledIn = [...operations.keys()].filter((name) => !READ_ELSEWHERE.has(name));

type Path = readonly (string | number)[];
const isHolder = (value: unknown): value is Readonly<Record<string, unknown>> =>
  typeof value === 'object' && value !== null;

/** The input with another value in one place. */
function withAt(input: unknown, [key, ...rest]: Path, value: unknown): unknown {
  if (key === undefined) return value;
  const now = isHolder(input) ? input[key as string] : undefined;
  const then = withAt(now, rest, value);
  if (Array.isArray(input)) return input.map((item: unknown, at) => (at === key ? then : item));
  return { ...(isHolder(input) ? input : {}), [key]: then };
}
/** Where a value stands in an input. */
function placeOf(input: unknown, value: unknown): Path | null {
  if (input === value) return [];
  if (!isHolder(input)) return null;
  for (const [key, item] of Object.entries(input)) {
    const place = placeOf(item, value);
    if (place) return [Array.isArray(input) ? Number(key) : key, ...place];
  }
  return null;
}

/** What a message gives as an example of what to write. */
export function exampleIn(message: string): string | number | undefined {
  const example = /\blike (.+?)(?:,? or |, several| \(|\.$|$)/.exec(message)?.[1];
  if (example) return example;
  const number = /write a whole number from (-?\d+) to (-?\d+)/.exec(message);
  return number ? Number(number[1]) : undefined;
}

/** A call that heeds what was said against it: another record where one is missing, what the message says to write. */
export function heeding(
  plan: Plan,
  { operation, input }: WireCall,
  refusal: Refusal,
  seed: number,
): WireCall {
  const inputs = new Inputs(plan, seed);
  const [record] = refusal.records;
  if (refusal.code === 'missing' && record) {
    const place = placeOf(input, record.id);
    if (place && plan[record.table].size > 0)
      return { operation, input: withAt(input, place, inputs.idOf(record.table)) };
  }
  const example = exampleIn(refusal.message);
  if (refusal.path.length > 0)
    return {
      operation,
      input: withAt(input, refusal.path, example ?? inputs.typed(String(refusal.path.at(-1)))),
    };
  return { operation, input };
}

/** A call of one of these operations on a plan. */
export const callAtRandom = (plan: Plan, seed: number, names: readonly string[] = filledIn): WireCall =>
  new Inputs(plan, seed).call(names);

/** A call at random that this plan takes, or null where every refusal led to another. */
export function takenCall(plan: Plan, seed: number): WireCall | null {
  let call = callAtRandom(plan, seed);
  for (let tries = 0; tries < 14; tries++)
    try {
      perform(plan, call, 'tried');
      return call;
    } catch (error) {
      if (!(error instanceof Refusal)) throw error;
      call = heeding(plan, call, error, seed + tries);
    }
  return null;
}
