import type * as z from 'zod';

/** Looking into schemas: what is under the wrappers that say that a value may be absent, and what lists hold. */

export type Schema = z.core.$ZodType;
interface Def {
  readonly type: string;
  readonly innerType?: Schema;
  readonly element?: Schema;
  readonly options?: readonly Schema[];
  readonly shape?: z.ZodRawShape;
}
const defOf = (schema: Schema) => schema._zod.def as unknown as Def;

/** The schema without what says that it may be absent or has a default. */
export function unwrapped(schema: Schema): Schema {
  const { innerType } = defOf(schema);
  return innerType ? unwrapped(innerType) : schema;
}

export function isNullable(schema: Schema): boolean {
  const { type, innerType } = defOf(schema);
  return type === 'nullable' || (innerType !== undefined && isNullable(innerType));
}

/** The fields of an object. */
export const shapeOf = (schema: Schema): z.ZodRawShape => defOf(unwrapped(schema)).shape!;

/** What a list holds: one value each, an object, or one of several objects. */
export type Items =
  | { readonly value: Schema }
  | { readonly shape: z.ZodRawShape }
  | { readonly forms: readonly z.ZodRawShape[] };

export function itemsOf(list: Schema): Items {
  const item = unwrapped(defOf(unwrapped(list)).element!);
  const { options, shape } = defOf(item);
  if (options) return { forms: options.map(shapeOf) };
  return shape ? { shape } : { value: item };
}
