import * as z from 'zod';
import { idSchema } from '../codecs';
import { memo } from '../memo';
import { type Field, type Former, fieldOf } from './fields';

/** A plan as far as kinds need it: records by id, by bucket, and by what they are indexed under. */
export type Looked = Readonly<
  Record<
    string,
    {
      get(id: string): object | undefined;
      group(bucket: string): { values(): Iterable<object> };
      by(index: string, key: string): readonly object[];
    }
  >
>;

/** Records of one kind that are gone, as the rules of other kinds are told of them. */
export interface Gone {
  readonly table: string;
  readonly ids: ReadonlySet<string>;
}

type Shape = z.ZodRawShape;
type RecordIn<S extends Shape> = Readonly<z.output<z.ZodObject<S & { id: typeof idSchema }, z.core.$strict>>>;
type Key<R> = (record: R) => string | readonly string[] | null;

/** Everything that is said of a kind of record; see kinds/index.ts for the list of all. */
export interface Definition<S extends Shape> {
  /** What one is called in a sentence: uplink. */
  readonly word: string;
  /** What a record is, for docs/format.md. */
  readonly about: string;
  /** The version of the plan file it came with. */
  readonly since: number;
  /** What it was called before, in files and journals, and the last version that did. */
  readonly was?: Former;
  /** Its table in the database. */
  readonly table: string;
  /** Its fields besides the id. */
  readonly fields: S;
  /** What a person calls a record of it. */
  readonly title: (record: RecordIn<S>, plan: Looked) => string;
  /** The id, where there is only one record. */
  readonly only?: string;
  /** How records are bucketed: by a field, or `spread` where there are many. Without it all are one bucket. */
  readonly bucket?: (keyof S & string) | 'spread';
  /** What records are looked up by besides their ids. */
  readonly indexes?: Readonly<Record<string, Key<RecordIn<S>>>>;
  /** False: its fields are set by operations of its own only. */
  readonly edited?: boolean;
  /** No two may be given the same name: people tell them apart by it. */
  readonly uniqueName?: boolean;
  /** Laws between fields. */
  readonly rules?: readonly {
    readonly holds: (record: RecordIn<S>) => boolean;
    readonly message: string;
    readonly field: keyof S & string;
  }[];
  /** Why an edit of some fields is refused, where that depends on other records. What is in a plan already stays and is a finding. */
  readonly refused?: (
    record: RecordIn<S>,
    plan: Looked,
  ) => { readonly field: keyof S & string; readonly message: string } | null;
  /** What becomes of a record when some of other tables are gone, where that is more than the rule of a reference; null: it goes too. */
  readonly without?: {
    readonly tables: readonly string[];
    readonly rule: (record: RecordIn<S>, gone: Gone) => RecordIn<S> | null;
  };
}

export interface Kind<S extends Shape = Shape> extends Definition<S> {
  readonly schema: z.ZodType<RecordIn<S>, z.input<z.ZodObject<S & { id: typeof idSchema }, z.core.$strict>>>;
}

export function kind<S extends Shape>(definition: Definition<S>): Kind<S> {
  const id = definition.only === undefined ? idSchema : z.literal(definition.only);
  let schema: z.ZodType = z.strictObject({ id, ...definition.fields });
  for (const { holds, message, field } of definition.rules ?? [])
    schema = schema.refine(holds as never, { message, path: [field] });
  return { ...definition, schema: schema as never };
}

/** A field of a kind by name. */
export interface NamedField extends Field {
  readonly name: string;
  readonly schema: z.core.$ZodType;
}

/** The fields of a kind in order. Throws where one was not made by fields.ts. */
export const fieldsOf = memo((shape: Shape): readonly NamedField[] =>
  Object.entries(shape).map(([name, schema]) => {
    const field = fieldOf(schema);
    if (!field) throw new Error(`the field ${name} is in no registry`);
    return { ...field, name, schema };
  }),
);

const nameIn = (plan: Looked, table: string, id: string | null | undefined): string | undefined =>
  id ? (plan[table]!.get(id) as { name?: string } | undefined)?.name : undefined;
/** The name of a record, or what to call it where it is gone. */
export const nameOf = (plan: Looked, table: string, id: string | null | undefined, missing: string): string =>
  nameIn(plan, table, id) ?? missing;

export const deviceName = (plan: Looked, id: string | null | undefined): string =>
  nameOf(plan, 'device', id, 'a device');

/** Transport ports as people write them: tcp 443, udp 5000-5009, tcp+udp 53. */
export const portsText = (protocol: 'tcp' | 'udp' | 'both', from: number, to = from): string =>
  `${protocol === 'both' ? 'tcp+udp' : protocol} ${from === to ? from : `${from}-${to}`}`;
