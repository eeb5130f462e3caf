import { fieldsOf, type TableName, kinds, tableNames, references } from '../plan';
import { FORMAT, VERSION } from './plan-file';

/** What docs/format.md says of the kinds, read off them: the first line, the list of lists, the versions. */

const code = (text: string) => `\`${text}\``;

/** What a kind points at: each kind once, with the fields that are not called by it. */
function pointsAt(table: TableName): string {
  const byTarget = new Map<string, string[]>();
  for (const { field, to } of references[table]) byTarget.set(to, [...(byTarget.get(to) ?? []), field]);
  return [...byTarget]
    .map(([to, fields]) =>
      fields.length === 1 && fields[0] === to ? code(to) : `${code(to)} (${fields.map(code).join(', ')})`,
    )
    .join(', ');
}

const listed = (words: readonly string[]): string =>
  words.length > 1 ? `${words.slice(0, -1).join(', ')} and ${words.at(-1)}` : words[0]!;

const renamedIn = (
  version: number,
  was: { name: string; until: number } | undefined,
  now: string,
): string[] => (was?.until === version - 1 ? [`${code(was.name)} ${now}`] : []);

function addedIn(version: number): string {
  const whole = tableNames.filter((table) => kinds[table].since === version).map(code);
  const fields = tableNames.flatMap((table) =>
    fieldsOf(kinds[table].fields)
      .filter(({ since }) => since === version)
      .map(({ name }) => code(`${table}.${name}`)),
  );
  const added = [...whole, ...fields];
  const renamed = tableNames.flatMap((table) => [
    ...renamedIn(version, kinds[table].was, code(table)),
    ...fieldsOf(kinds[table].fields).flatMap(({ name, was }) =>
      renamedIn(version, was, code(`${table}.${name}`)),
    ),
  ]);
  return [
    version,
    ...(added.length > 0 ? [`adds ${listed(added)}`] : []),
    ...(renamed.length > 0 ? [`${added.length > 0 ? 'and ' : ''}calls ${listed(renamed)}`] : []),
  ].join(' ');
}

export const formatHead = (): string =>
  code(`{ "format": "${FORMAT}", "version": ${VERSION}, "plan": { … } }`);

export const formatTable = (): string =>
  [
    '| list | a record is | points at |',
    '| --- | --- | --- |',
    ...tableNames.map((table) => `| ${code(table)} | ${kinds[table].about} | ${pointsAt(table)} |`),
  ].join('\n');

export const formatVersions = (): string =>
  [
    '1 is the first',
    ...Array.from({ length: VERSION - 1 }, (_, i) => addedIn(i + 2)),
    'A file of an earlier version is read as one without what came later, and with the names of today',
    'A reader refuses newer versions',
  ].join('. ') + '.';

/** Puts what is generated between its marks in the page. */
export function formatPage(page: string): string {
  const parts = { head: formatHead(), lists: formatTable(), versions: formatVersions() };
  return Object.entries(parts).reduce(
    (text, [name, made]) =>
      text.replace(
        new RegExp(`(<!-- ${name} -->)[\\s\\S]*?(<!-- end -->)`),
        (_, open: string, close: string) => `${open}\n\n${made}\n\n${close}`,
      ),
    page,
  );
}
