import * as z from 'zod';
import { type Band, type Device, type Plan, badInput, kinds, operation } from '../../plan';
import { deviceMeant } from '../../model/hosts';
import { radiosOf, readScan } from '../../model/wireless';

/** What was measured: how loud access points are at one another, and who else is on the air. */

/** A level as typed: ap-1 ap-2 5 -67, heard at the first from the second. */
function typedLevel(plan: Plan, line: string) {
  const [, at, of, band, dbm] =
    /^([^\s,;]+)[\s,;]+([^\s,;]+)[\s,;]+(2\.4|5|6)(?:\s*GHz)?[\s,;]+(-\d{1,3})(?:\s*dBm)?$/i.exec(line) ?? [];
  if (at === undefined)
    throw badInput(
      `“${line}” is no level; write where it was heard, from whom, the band and dBm, like ap-1 ap-2 5 -67.`,
      'text',
    );
  const named = (name: string): Device => {
    const device = deviceMeant(plan, name, 'text', ({ id }) => radiosOf(plan, id).length > 0);
    if (!device)
      throw badInput(`There is no device “${name}” in this site; correct the name in “${line}”.`, 'text');
    return device;
  };
  return { at: named(at), of: named(of!), band: band as Band, dbm: Number(dbm) };
}

/** Writes down levels, one to a line; what was measured before of the same two in the same band is replaced. */
export const noteLevels = operation(
  'noteLevels',
  z.strictObject({
    text: z.string().trim().min(1, 'Nothing is written; write lines like ap-1 ap-2 5 -67').max(200_000),
  }),
  (draft, { text }) => {
    const lines = text
      .split(/\r?\n/)
      .map((line) => line.trim())
      .filter(Boolean);
    const levels = lines.map((line) => typedLevel(draft.plan, line));
    for (const { at, of, band, dbm } of levels) {
      if (at.id === of.id) throw badInput(`${at.name} does not hear itself; name two access points.`, 'text');
      const known = [...draft.plan.level.values()].find(
        (one) => one.at === at.id && one.of === of.id && one.band === band,
      );
      if (known) draft.update('level', known.id, { dbm });
      else draft.insert('level', { at: at.id, of: of.id, band, dbm });
    }
    return levels.length === 1 ? 'A level noted' : `${levels.length} levels noted`;
  },
);

/** Notes who else is on the air from what a general tool printed; what was heard at the same place before is replaced. */
export const noteScan = operation(
  'noteScan',
  z.strictObject({ at: kinds.foreignSsid.fields.at.default(null), text: z.string().min(1).max(1_000_000) }),
  (draft, { at, text }) => {
    if (at !== null) draft.need('device', at);
    const { found, refused } = readScan(text);
    if (found.length === 0)
      throw badInput(
        refused[0]
          ? `Nothing could be read: line ${refused[0].line}, “${refused[0].text.slice(0, 60)}”, ${refused[0].why}.`
          : 'Nothing is written; paste a table with a head (name, channel, level), or what iw dev scan prints.',
        'text',
      );
    const own = new Set([...draft.plan.ssid.values()].map(({ name }) => name));
    const foreign = found.filter(({ name }) => !own.has(name));
    for (const known of [...draft.plan.foreignSsid.values()])
      if (known.at === at) draft.remove('foreignSsid', known.id);
    for (const one of foreign) draft.insert('foreignSsid', { ...one, at });
    const left = found.length - foreign.length;
    return `${foreign.length} networks of others noted${left > 0 ? `, ${left} of your own left out` : ''}${refused.length > 0 ? `, ${refused.length} lines not read` : ''}`;
  },
);
