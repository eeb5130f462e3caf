import { type IpAddress, formatAddress, parseAddress, type Prefix } from '../core/address';
import type { Bind } from './connection';

/** How one field of a record stands in columns: their names, reading from a row and writing to bind values. */
export interface FieldColumns {
  readonly field: string;
  readonly names: readonly string[];
  readonly read: (row: readonly unknown[], at: number) => unknown;
  readonly write: (value: never) => Bind[];
}

const column = (
  field: string,
  name: string,
  read: (value: unknown) => unknown,
  write: (value: never) => Bind,
): FieldColumns => ({
  field,
  names: [name],
  read: (row, at) => read(row[at]),
  write: (value) => [write(value)],
});

const same = (value: unknown) => value;
/** A string, a number or null as it is. */
export const plainColumn = (field: string, name = field): FieldColumns =>
  column(field, name, same, (value: Bind) => value);
export const flagColumn = (field: string, name = field): FieldColumns =>
  column(
    field,
    name,
    (value) => value === 1,
    (value: boolean) => (value ? 1 : 0),
  );
/** A moment: ISO text in the core, DATETIME(3) in UTC in the table. */
export const momentColumn = (field: string, name = field): FieldColumns =>
  column(field, name, (value) => fromSqlTime(value as string), toSqlTime);

export const toSqlTime = (iso: string): string => iso.replace('T', ' ').replace('Z', '');
export const fromSqlTime = (text: string): string => new Date(`${text.replace(' ', 'T')}Z`).toISOString();

const v6Bytes = (value: bigint): Buffer => Buffer.from(value.toString(16).padStart(32, '0'), 'hex');
const v6Value = (bytes: Buffer): bigint => BigInt(`0x${bytes.toString('hex')}`);

/** INT UNSIGNED for IPv4 and BINARY(16) for IPv6; both NULL when there is no address. */
export const addressColumn = (field: string, name = field): FieldColumns => ({
  field,
  names: [`${name}_v4`, `${name}_v6`],
  read: (row, at) =>
    (row[at] as number | null) ?? (row[at + 1] === null ? null : v6Value(row[at + 1] as Buffer)),
  write: (value: IpAddress | null) => (typeof value === 'bigint' ? [null, v6Bytes(value)] : [value, null]),
});

export const prefixColumn = (field: string, name = field): FieldColumns => {
  const network = addressColumn(field, name);
  return {
    field,
    names: [...network.names, `${name}_len`],
    read: (row, at) => ({ address: network.read(row, at), length: row[at + 2] }),
    write: (value: Prefix) => [...network.write(value.address as never), value.length],
  };
};

/** A prefix, or null when its length is. */
export const optionalPrefix = (field: string, name = field): FieldColumns => {
  const { names, read, write } = prefixColumn(field, name);
  return {
    field,
    names,
    read: (row, at) => (row[at + 2] === null ? null : read(row, at)),
    write: (value: Prefix | null) => (value === null ? [null, null, null] : write(value as never)),
  };
};

/** A short list of literal addresses, or null for none given. */
export const addressList = (field: string, name: string): FieldColumns =>
  column(
    field,
    name,
    (value) =>
      value === null
        ? null
        : (value as string)
            .split(',')
            .filter(Boolean)
            .map((item) => parseAddress(item)!),
    (value: readonly IpAddress[] | null) => value && value.map(formatAddress).join(','),
  );

/** A set of words from a fixed list, kept in one column. */
export const words = (field: string, name = field): FieldColumns =>
  column(
    field,
    name,
    (value) => (value as string).split(' ').filter(Boolean),
    (value: readonly string[]) => value.join(' '),
  );

/** An object of whole numbers, absent when its first column is NULL. */
export const numbers = (field: string, parts: Readonly<Record<string, string>>): FieldColumns => {
  const keys = Object.keys(parts);
  return {
    field,
    names: Object.values(parts),
    read: (row, at) =>
      row[at] === null ? null : Object.fromEntries(keys.map((key, i) => [key, row[at + i]])),
    write: (value: Record<string, number> | null) => keys.map((key) => value?.[key] ?? null),
  };
};
