import type { Pool } from 'mysql2/promise';
import { type IpAddress, type Prefix, familyOf, formatAddress, formatPrefix, lastOf } from '../core/address';
import { type FindQuery, type Hit, findQuery } from '../core/find';
import { addressColumn } from './columns';
import { type Bind, rows } from './connection';

/** Finding in all sites at once: the database looks, no plan is loaded. Exercises are copies and are left out. */

export interface SiteHit extends Hit {
  readonly site: string;
  readonly siteName: string;
}

/** So many hits of one sort are looked at before the best are shown. */
const MOST = 2000;

interface Asked {
  readonly sql: string;
  readonly values: readonly Bind[];
}
const any = (parts: readonly (Asked | null)[]): Asked | null => {
  const known = parts.filter((part) => part !== null);
  if (known.length === 0) return null;
  return {
    sql: known.map(({ sql }) => `(${sql})`).join(' OR '),
    values: known.flatMap(({ values }) => values),
  };
};

/** Signs that LIKE would take for more than themselves. */
const plain = (text: string) => text.replace(/[\\%_]/g, (sign) => `\\${sign}`);
const inside = (column: string, text: string): Asked => ({
  sql: `LOWER(${column}) LIKE ?`,
  values: [`%${plain(text)}%`],
});
/** 3 for the whole text, 2 for its beginning, 1 for a part. */
const score = (column: string, text: string): Asked => ({
  sql: `CASE WHEN LOWER(${column}) = ? THEN 3 WHEN LOWER(${column}) LIKE ? THEN 2 WHEN LOWER(${column}) LIKE ? THEN 1 ELSE 0 END`,
  values: [text, `${plain(text)}%`, `%${plain(text)}%`],
});

const v4 = addressColumn('address');
const columnsOf = (address: IpAddress) => v4.write(address as never);
const equals = (column: string, address: IpAddress): Asked => {
  const [four, six] = columnsOf(address);
  return familyOf(address) === 4
    ? { sql: `${column}_v4 = ?`, values: [four!] }
    : { sql: `${column}_v6 = ?`, values: [six!] };
};
/** Subnets that share an address with a prefix: neither ends before the other begins. */
function overlapping(prefix: Prefix): Asked {
  const [first, last] = [prefix.address, lastOf(prefix)];
  const at = familyOf(first) === 4 ? 0 : 1;
  const name = `s.prefix_v${at === 0 ? 4 : 6}`;
  const [lower, upper] = [columnsOf(first)[at]!, columnsOf(last)[at]!];
  if (at === 0)
    return {
      sql: `${name} <= ? AND ${name} + POW(2, 32 - s.prefix_len) > ?`,
      values: [upper, lower],
    };
  // 128 bits are more than SQL counts in: what begins inside, and what holds the beginning by its leading bits.
  const widths = Array.from({ length: prefix.length }, (_, length) => length);
  const holding = widths.map((length) => ({
    length,
    start: columnsOf(networkStart(first as bigint, length))[1]!,
  }));
  return {
    sql: `${name} BETWEEN ? AND ?${holding.map(() => ` OR (${name} = ? AND s.prefix_len = ?)`).join('')}`,
    values: [lower, upper, ...holding.flatMap(({ length, start }) => [start, length])],
  };
}
const networkStart = (address: bigint, length: number): bigint =>
  (address >> BigInt(128 - length)) << BigInt(128 - length);

const SITES = 'JOIN site_record r ON r.site_id = {t}.site_id LEFT JOIN exercise e ON e.site_id = {t}.site_id';
const from = (table: string) => SITES.replaceAll('{t}', table);

async function addresses(pool: Pool, asked: FindQuery): Promise<SiteHit[]> {
  const { text, address, mac, macPart, ending } = asked;
  const byText = { name: score('d.name', text), note: inside('a.note', text) };
  const exact = address !== null ? equals('a.address', address) : null;
  const where: Asked =
    exact ??
    (mac !== null
      ? { sql: 'i.mac = ?', values: [mac] }
      : ending !== null
        ? { sql: 'a.address_v4 & ? = ?', values: [ending.mask, ending.value] }
        : any([
            inside('d.name', text),
            byText.note,
            macPart ? { sql: "REPLACE(i.mac, ':', '') LIKE ?", values: [`%${macPart}%`] } : null,
          ])!);
  const worth: Asked =
    exact || mac !== null
      ? { sql: '5', values: [] }
      : ending !== null
        ? { sql: '2', values: [] }
        : {
            sql: `GREATEST(${byText.name.sql}, IF(${byText.note.sql}, 1, 0), ${macPart ? "IF(REPLACE(i.mac, ':', '') LIKE ?, 2, 0)" : '0'})`,
            values: [...byText.name.values, ...byText.note.values, ...(macPart ? [`%${macPart}%`] : [])],
          };
  const found = await rows(
    pool,
    `SELECT a.site_id, r.name, v.id, a.subnet_id, a.id, a.address_v4, a.address_v6, d.name, v.name, i.mac, a.note, ${worth.sql} AS worth
     FROM address a
     JOIN interface i ON i.site_id = a.site_id AND i.id = a.interface_id
     JOIN device d ON d.site_id = i.site_id AND d.id = i.device_id
     JOIN subnet s ON s.site_id = a.site_id AND s.id = a.subnet_id
     JOIN vlan v ON v.site_id = s.site_id AND v.id = s.vlan_id
     ${from('a')}
     WHERE e.site_id IS NULL AND (${where.sql}) ORDER BY worth DESC, a.site_id, a.id LIMIT ${MOST}`,
    [...worth.values, ...where.values],
  );
  return found.map((row) => ({
    site: row[0] as string,
    siteName: row[1] as string,
    kind: 'address',
    vlan: row[2] as string,
    subnet: row[3] as string,
    address: row[4] as string,
    device: null,
    port: null,
    title: `${formatAddress(v4.read(row, 5) as IpAddress)} ${row[7] as string}`,
    detail: [row[8], row[9], row[10]].filter(Boolean).join(', '),
    score: Number(row[11]),
  }));
}

async function segments(pool: Pool, asked: FindQuery): Promise<SiteHit[]> {
  const { text, address, prefix, vid } = asked;
  const name = score('v.name', text);
  const around =
    prefix ?? (address === null ? null : { address, length: familyOf(address) === 4 ? 32 : 128 });
  const subnet = around && overlapping(around);
  const wanted = any([
    vid === null ? null : { sql: 'v.vid = ?', values: [vid] },
    inside('v.name', text),
    { sql: 'LOWER(v.code) = ?', values: [text] },
    subnet,
  ])!;
  const worth: Asked = {
    sql: `GREATEST(${vid === null ? '0' : 'IF(v.vid = ?, 4, 0)'}, ${name.sql}, IF(LOWER(v.code) = ?, 3, 0), ${subnet ? `IF(${subnet.sql}, 2, 0)` : '0'})`,
    values: [...(vid === null ? [] : [vid]), ...name.values, text, ...(subnet?.values ?? [])],
  };
  const found = await rows(
    pool,
    `SELECT f.site_id, f.name, f.id, MAX(f.hit), f.vid, f.code, f.label, MAX(f.worth),
       GROUP_CONCAT(CONCAT_WS('/', IFNULL(f.v4, ''), IFNULL(HEX(f.v6), ''), f.len) ORDER BY f.v6, f.v4 SEPARATOR ' ')
     FROM (
       SELECT v.site_id, r.name, v.id, v.vid, v.code, v.name AS label, s.prefix_v4 AS v4, s.prefix_v6 AS v6, s.prefix_len AS len,
         ${worth.sql} AS worth, ${subnet ? `IF(${subnet.sql}, s.id, NULL)` : 'NULL'} AS hit
       FROM vlan v LEFT JOIN subnet s ON s.site_id = v.site_id AND s.vlan_id = v.id
       JOIN (
         SELECT DISTINCT v.site_id, v.id FROM vlan v LEFT JOIN subnet s ON s.site_id = v.site_id AND s.vlan_id = v.id
         WHERE ${wanted.sql}
       ) w ON w.site_id = v.site_id AND w.id = v.id
       ${from('v')}
       WHERE e.site_id IS NULL
     ) f
     GROUP BY f.site_id, f.id, f.name, f.vid, f.code, f.label HAVING MAX(f.worth) > 0 ORDER BY MAX(f.worth) DESC, f.site_id, f.id LIMIT ${MOST}`,
    [...worth.values, ...(subnet?.values ?? []), ...wanted.values],
  );
  return found.map((row) => ({
    site: row[0] as string,
    siteName: row[1] as string,
    kind: 'segment',
    vlan: row[2] as string,
    subnet: row[3] as string | null,
    address: null,
    device: null,
    port: null,
    title: `${row[4] as number} ${row[5] as string} ${row[6] as string}`,
    detail: prefixes(row[8] as string | null) || 'layer 2 only',
    score: Number(row[7]),
  }));
}

/** The prefixes of a segment as they came in one text: v4/v6 in hexadecimal/length. */
const prefixes = (text: string | null): string =>
  (text ?? '')
    .split(' ')
    .filter((part) => part.split('/').length === 3)
    .map((part) => {
      const [four, six, length] = part.split('/') as [string, string, string];
      return formatPrefix({ address: four ? Number(four) : BigInt(`0x${six}`), length: Number(length) });
    })
    .join(', ');

async function boxes(pool: Pool, asked: FindQuery): Promise<SiteHit[]> {
  const { text, port } = asked;
  const places = ['b.location', 'b.serial_number', 'b.asset_tag'].map((column) => inside(column, text));
  const name = score('d.name', text);
  const place = any(places)!;
  const worth: Asked = {
    sql: `${port ? 'IF(p.id IS NOT NULL, 6, ' : '('}GREATEST(${name.sql}, IF(${place.sql}, 1, 0)))`,
    values: [...name.values, ...place.values],
  };
  const found = await rows(
    pool,
    `SELECT d.site_id, r.name, d.id, ${port ? 'p.id, p.port_number, p.label' : 'NULL, NULL, NULL'}, d.name, b.model, b.location, ${worth.sql} AS worth
     FROM box b JOIN device d ON d.site_id = b.site_id AND d.id = b.device_id
     ${port ? 'LEFT JOIN port p ON p.site_id = d.site_id AND p.device_id = d.id AND p.port_number = ? AND LOWER(d.name) = ?' : ''}
     ${from('b')}
     WHERE e.site_id IS NULL HAVING worth > 0 ORDER BY worth DESC, d.site_id, d.id LIMIT ${MOST}`,
    [...worth.values, ...(port ? [port.number, port.box] : [])],
  );
  return found.map((row) => ({
    site: row[0] as string,
    siteName: row[1] as string,
    kind: 'gear',
    vlan: null,
    subnet: null,
    address: null,
    device: row[2] as string,
    port: row[3] as string | null,
    title: row[3] === null ? (row[6] as string) : `${row[6] as string} ${row[4] as number}`,
    detail: [row[7], row[8], row[5]].filter(Boolean).join(', '),
    score: Number(row[9]),
  }));
}

/** The hits of a query over all sites, the best first: at most `limit` from the `after`th on, and whether there are more. */
export async function findEverywhere(
  pool: Pool,
  typed: string,
  after: number,
  limit: number,
): Promise<{ readonly hits: readonly SiteHit[]; readonly more: boolean }> {
  const asked = findQuery(typed);
  if (!asked) return { hits: [], more: false };
  const found = (
    await Promise.all([addresses(pool, asked), segments(pool, asked), boxes(pool, asked)])
  ).flat();
  found.sort((a, b) => b.score - a.score || (a.siteName < b.siteName ? -1 : 1));
  return { hits: found.slice(after, after + limit), more: found.length > after + limit };
}
