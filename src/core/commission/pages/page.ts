import {
  type AnyRecord,
  type Plan,
  type TableName,
  equal,
  fieldText,
  fieldsOf,
  groupBy,
  kinds,
  toWire,
} from '../../plan';

/** What is set on a box, page by page as boxes usually group it. */

export const pageNames = [
  'identity',
  'management',
  'vlans',
  'ports',
  'addresses',
  'dhcp',
  'routes',
  'internet',
  'rules',
  'wireless',
  'guards',
  'trees',
  'time',
  'save',
] as const;
export type PageName = (typeof pageNames)[number];

export interface SettingLine {
  readonly what: string;
  /** Empty where the name of the setting says all. */
  readonly value: string;
}
export interface SettingsPage {
  readonly page: PageName;
  readonly lines: readonly SettingLine[];
}

export const line = (what: string, value = ''): SettingLine => ({ what, value });

/** The fields of a record that are otherwise than on a box as it comes: what they are called, and what they are to be. */
export function differing(
  plan: Plan,
  table: TableName,
  record: AnyRecord,
  comes: Readonly<Record<string, unknown>>,
): SettingLine[] {
  const is = toWire(table, record);
  return fieldsOf(kinds[table].fields)
    .filter(({ name }) => name in comes && !equal(is[name], comes[name]))
    .map(({ name, label, unit }) =>
      line(label, `${fieldText(plan, table, name, is[name])}${unit && is[name] !== null ? ` ${unit}` : ''}`),
    );
}

/** The same in one line; what is switched on is named only. */
export const inOneLine = (lines: readonly SettingLine[]): string =>
  lines
    .map(({ what, value }) => (value === 'yes' ? what : value === 'no' ? `no ${what}` : `${what} ${value}`))
    .join(', ');

/** A segment as it is found on boxes: by the number of its VLAN. */
export function vlanText(plan: Plan, id: string): string {
  const { vid, name } = plan.vlan.get(id)!;
  return `VLAN ${vid} ${name}`;
}

/** What is otherwise on a page than it was: what is new there, and what goes. A line in place of another says enough. */
export function changedLines(was: readonly SettingLine[], is: readonly SettingLine[]): SettingLine[] {
  const [before, after] = [groupBy(was, ({ what }) => what), groupBy(is, ({ what }) => what)];
  const lacks = (all: readonly SettingLine[] | undefined, { value }: SettingLine) =>
    !all?.some((one) => one.value === value);
  const news = is.filter((one) => lacks(before.get(one.what), one));
  const gone = [...before].flatMap(([what, lines]) => {
    const replaced = news.filter((one) => one.what === what).length;
    return lines.filter((one) => lacks(after.get(what), one)).slice(replaced);
  });
  return [...news, ...gone.map(({ what, value }) => line(`No longer: ${what}`, value))];
}
