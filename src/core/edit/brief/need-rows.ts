import type { Need } from '../../plan';
import { type ColumnKinds, type Columns, columnsIn, plainCell, rowsIn } from '../columns';
import { thingWords } from './thing-words';

/** A pasted table of devices read as needs: columns by their heads, or by what the cells look like. */

/** Other words people use for them, as they begin. */
const alsoCalled: Readonly<Record<Need['thing'], readonly string[]>> = {
  'exchange-server': ['exchange'],
  'safety-controller': ['safety'],
  'control-room': ['control room', 'scada', 'supervis', 'operator station'],
  'operator-panel': ['operator', 'panel', 'hmi', 'touch'],
  workstation: ['workstation', 'desk', 'pc', 'computer', 'staff'],
  laptop: ['laptop', 'notebook', 'tablet', 'mobile'],
  telephone: ['telephone', 'phone', 'voip', 'handset'],
  guest: ['guest', 'visitor', 'customer'],
  printer: ['printer', 'copier', 'mfp'],
  screen: ['screen', 'tv', 'television', 'display', 'signage'],
  camera: ['camera', 'cctv'],
  recorder: ['recorder', 'nvr', 'dvr'],
  server: ['server', 'nas', 'storage'],
  controller: ['controller', 'plc', 'machine'],
  drive: ['drive', 'inverter'],
  scanner: ['scanner', 'barcode', 'handheld'],
  sensor: ['sensor', 'building', 'heating', 'hvac', 'meter', 'door'],
  appliance: ['appliance', 'iot', 'thing', 'smart', 'plug', 'light', 'speaker', 'device'],
};

export type NeedColumn = 'count' | 'what' | 'place' | 'link' | 'growth' | 'power' | 'group';
const heads: Readonly<Record<NeedColumn, readonly string[]>> = {
  count: ['count', 'number', 'quantity', 'qty', 'how many', 'amount', 'no', 'no.', '#'],
  what: ['what', 'thing', 'device', 'devices', 'kind', 'type', 'name', 'item', 'description'],
  place: ['place', 'where', 'room', 'location', 'floor', 'building', 'site'],
  link: ['link', 'connected', 'connection', 'wired', 'wireless', 'cable', 'network'],
  growth: ['growth', 'more later', 'reserve', 'growth %'],
  power: ['power', 'poe', 'powered'],
  group: ['group', 'apart', 'machine', 'line', 'cell'],
};

export interface NeedRow {
  /** Line in the pasted text, from 1. */
  readonly line: number;
  readonly verdict: 'good' | 'repaired' | 'refused';
  /** What was repaired or why it is refused. */
  readonly why: readonly string[];
  readonly thing: Need['thing'];
  readonly name: string;
  readonly count: number;
  readonly place: string;
  readonly link: Need['link'];
  readonly growth: number | null;
  readonly power: Need['power'];
  readonly apart: string;
}

/** The kind of thing a text speaks of; undefined where nobody can tell. */
export function thingNamed(text: string): Need['thing'] | undefined {
  const words = plainCell(text);
  const things = Object.keys(alsoCalled) as Need['thing'][];
  return (
    things.find((thing) => words === thing || words === thingWords[thing]) ??
    things.find((thing) => alsoCalled[thing].some((word) => new RegExp(`(^|[^a-z])${word}`).test(words)))
  );
}

const linkNamed = (text: string): Need['link'] | undefined => {
  const words = plainCell(text);
  if (/wireless|wi-?fi|wlan|radio|^air$/.test(words)) return 'wireless';
  if (/wired|cable|copper|ethernet|lan|^yes$/.test(words)) return 'wired';
  return words === 'no' ? 'wireless' : undefined;
};
const isCount = (cell: string): boolean => /^\d{1,6}\s*(x|×|pcs?\.?)?$/i.test(cell.trim());

const kinds: ColumnKinds<NeedColumn> = {
  heads,
  looks: [
    ['count', isCount],
    ['what', (cell) => thingNamed(cell) !== undefined],
    ['link', (cell) => linkNamed(cell) !== undefined],
    ['growth', (cell) => /^\d+\s*%$/.test(cell)],
    ['place', (cell) => cell !== ''],
  ],
  isRow: isCount,
};
/** Which column is what: by the head row if there is one, else by what the cells look like. */
export const needColumnsOf = (cells: readonly (readonly string[])[]): Columns<NeedColumn> =>
  columnsIn(cells, kinds);

/** The rows of a table, each good, repaired (with what was mended) or refused (with why). */
export function readNeedRows(
  cells: readonly (readonly string[])[],
  order: readonly (NeedColumn | null)[] = needColumnsOf(cells).order,
): NeedRow[] {
  const { header } = needColumnsOf(cells);
  return rowsIn(cells, { order, header }).map(({ line, value }) => readRow(line, value));
}

function readRow(line: number, value: (column: NeedColumn) => string): NeedRow {
  const repaired: string[] = [];
  const refused: string[] = [];
  const what = value('what');
  const thing = thingNamed(what);
  if (what === '') refused.push('it does not say what is to be connected');
  else if (!thing) repaired.push(`nobody can tell what “${what}” is, taken as an appliance`);
  const count = countIn(value('count'), repaired, refused);
  const linkText = value('link');
  const link = linkNamed(linkText);
  if (linkText !== '' && !link) repaired.push(`“${linkText}” is neither wired nor wireless, taken as wired`);
  const usuallyWireless = thing === 'laptop' || thing === 'guest' || thing === 'scanner';
  const growthText = value('growth').replace('%', '').trim();
  const growth = growthText === '' ? null : Number(growthText);
  const wrongGrowth = growth !== null && !(Number.isInteger(growth) && growth >= 0 && growth <= 1000);
  if (wrongGrowth) repaired.push(`growth “${growthText}” is no percentage, left as usual`);
  const powerText = plainCell(value('power'));
  const power = /^(yes|y|poe|1|true|x)$/.test(powerText)
    ? 'yes'
    : /^(no|n|0|false)$/.test(powerText)
      ? 'no'
      : 'usual';
  return {
    line,
    verdict: refused.length > 0 ? 'refused' : repaired.length > 0 ? 'repaired' : 'good',
    why: [...refused, ...repaired],
    thing: thing ?? 'appliance',
    name: what.slice(0, 60),
    count,
    place: value('place').slice(0, 60),
    link: link ?? (usuallyWireless ? 'wireless' : 'wired'),
    growth: wrongGrowth ? null : growth,
    power,
    apart: value('group').slice(0, 40),
  };
}

function countIn(text: string, repaired: string[], refused: string[]): number {
  if (text === '') {
    repaired.push('no number, taken as 1');
    return 1;
  }
  const count = Number(/^\D*(\d{1,6})/.exec(text)?.[1] ?? NaN);
  if (Number.isNaN(count) || count > 100_000) {
    refused.push(`“${text}” is no number of things from 0 to 100,000`);
    return 0;
  }
  if (!isCount(text)) repaired.push(`“${text}” read as ${count}`);
  return count;
}
