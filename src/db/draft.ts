import {
  type NamedField,
  fieldsOf,
  isNullable,
  shapeOf,
  type TableName,
  kinds,
  tableNames,
} from '../core/plan';
import { type ChildTable, columnName, tables } from './tables';

/** What the tables of the kinds look like in SQL: to draft a migration from, and to hold the database against. */

export interface Column {
  readonly name: string;
  readonly type: string;
  readonly nullable: boolean;
}
export interface ForeignKey {
  readonly column: string;
  readonly to: string;
}
export interface Table {
  readonly name: string;
  /** The table whose lists it keeps; null for records. */
  readonly owner: string | null;
  readonly columns: readonly Column[];
  readonly keys: readonly ForeignKey[];
}

const ID = 'VARCHAR(32) CHARACTER SET ascii COLLATE ascii_bin';
const WHOLE: readonly (readonly [string, number, number])[] = [
  ['TINYINT UNSIGNED', 0, 255],
  ['SMALLINT UNSIGNED', 0, 65_535],
  ['INT UNSIGNED', 0, 2 ** 32 - 1],
  ['TINYINT', -128, 127],
  ['SMALLINT', -32_768, 32_767],
  ['INT', -(2 ** 31), 2 ** 31 - 1],
];

function typeOf({ stored, min = 0, max = 0, values = [] }: NamedField): string {
  const longest = Math.max(...values.map((value) => value.length), 0);
  switch (stored) {
    case 'long-text':
      return 'TEXT';
    case 'whole':
      return WHOLE.find(([, least, most]) => min >= least && max <= most)![0];
    case 'flag':
      return 'BOOLEAN';
    case 'choice':
      return `VARCHAR(${longest})`;
    case 'words':
      return `VARCHAR(${values.join(' ').length})`;
    case 'moment':
      return 'DATETIME(3)';
    case 'id':
      return ID;
    case 'code':
      // A row holds 65,535 bytes; long texts are kept beside it.
      return max > 4000
        ? 'MEDIUMTEXT CHARACTER SET ascii'
        : `VARCHAR(${max}) CHARACTER SET ascii COLLATE ascii_bin`;
    case 'mac':
    case 'day':
    case 'addresses':
      return `VARCHAR(${max}) CHARACTER SET ascii COLLATE ascii_bin`;
    default:
      return `VARCHAR(${max})`;
  }
}

function columnsOf(field: NamedField, absent = isNullable(field.schema)): Column[] {
  const name = columnName(field);
  const address = [
    { name: `${name}_v4`, type: 'INT UNSIGNED', nullable: true },
    { name: `${name}_v6`, type: 'BINARY(16)', nullable: true },
  ];
  switch (field.stored) {
    case 'address':
      return address;
    case 'prefix':
      return [...address, { name: `${name}_len`, type: 'TINYINT UNSIGNED', nullable: absent }];
    case 'parts':
      return fieldsOf(shapeOf(field.schema)).flatMap((part) => columnsOf(part, true));
    default:
      return [{ name, type: typeOf(field), nullable: absent }];
  }
}

const keysOf = (fields: readonly NamedField[]): ForeignKey[] =>
  fields.flatMap((field) =>
    field.stored === 'id' && field.reference && field.reference.onDelete !== 'hook'
      ? [{ column: columnName(field), to: kinds[field.reference.to as TableName].table }]
      : [],
  );

const childTable = (owner: string, { sql, fields }: ChildTable): Table => ({
  name: sql,
  owner,
  columns: fields.flatMap((field) => columnsOf(field)),
  keys: keysOf(fields),
});

/** Every table of the plan, parents before children. */
export const draftedTables = (): Table[] =>
  tableNames.flatMap((table) => {
    const { sql, fields, children } = tables[table];
    const columns = fields.flatMap((field) => columnsOf(field));
    return [
      { name: sql, owner: null, columns, keys: keysOf(fields) },
      ...children.map((child) => childTable(sql, child)),
    ];
  });

const columnLine = ({ name, type, nullable }: Column): string =>
  `${name} ${type} ${nullable ? 'NULL' : 'NOT NULL'}`;
const keyLine = (table: string, { column, to }: ForeignKey): string =>
  `CONSTRAINT ${table}_${column.replace(/_id$/, '')} FOREIGN KEY (site_id, ${column}) REFERENCES ${to} (site_id, id)`;

function createTable({ name, owner, columns, keys }: Table): string {
  const own =
    owner === null ? [`id ${ID} NOT NULL`] : [`owner_id ${ID} NOT NULL`, 'pos INT UNSIGNED NOT NULL'];
  const parent =
    owner === null
      ? [
          'PRIMARY KEY (site_id, id)',
          `CONSTRAINT ${name}_site FOREIGN KEY (site_id) REFERENCES site (id) ON DELETE CASCADE`,
        ]
      : [
          'PRIMARY KEY (site_id, owner_id, pos)',
          `CONSTRAINT ${name}_owner FOREIGN KEY (site_id, owner_id) REFERENCES ${owner} (site_id, id) ON DELETE CASCADE`,
        ];
  const lines = [
    `site_id ${ID} NOT NULL`,
    ...own,
    ...columns.map(columnLine),
    ...parent,
    ...keys.map((key) => keyLine(name, key)),
  ];
  return `CREATE TABLE ${name} (\n${lines.map((line) => `  ${line}`).join(',\n')}\n);\n`;
}

/**
 * The statements that bring a database with some tables up to the kinds: new tables, and new columns with a default that
 * has to be thought about. What the kinds no longer have is left as it is.
 */
export function draftMigration(there: ReadonlyMap<string, ReadonlySet<string>>): string {
  return draftedTables()
    .flatMap((table) => {
      const known = there.get(table.name);
      if (!known) return [createTable(table)];
      const missing = table.columns.filter(({ name }) => !known.has(name));
      const keys = table.keys.filter(({ column }) => missing.some(({ name }) => name === column));
      return [
        ...missing.map((column) => `ALTER TABLE ${table.name} ADD COLUMN ${columnLine(column)};\n`),
        ...keys.map((key) => `ALTER TABLE ${table.name} ADD ${keyLine(table.name, key)};\n`),
      ];
    })
    .join('\n');
}
