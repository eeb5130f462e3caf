import * as z from 'zod';
import { services } from './cell';
import { day, flag, list, note, oneOf, prefix, rank, ref } from './fields';
import { type Gone, kind } from './kind';

/** One of those a rule speaks of. */
export const partySchema = z.union([
  z.strictObject({ zone: ref('zone', 'hook', 'zone') }),
  z.strictObject({ vlan: ref('vlan', 'hook', 'segment') }),
  z.strictObject({ device: ref('device', 'hook', 'device') }),
  z.strictObject({ prefix: prefix('prefix') }),
]);
export type Party = Readonly<z.output<typeof partySchema>>;

const names = (party: Party, { table, ids }: Gone): boolean =>
  ids.has((party as Readonly<Record<string, string>>)[table] ?? '');

/** A rule above the matrix. Empty lists mean anybody and anything. */
export const rule = kind({
  word: 'rule',
  about:
    'a rule above the cells, by rank: parties (zone, segment, device, prefix; none means anybody), services',
  since: 3,
  table: 'policy_rule',
  bucket: 'spread',
  fields: {
    rank: rank(),
    from: list('from', 'rule_from', partySchema),
    to: list('to', 'rule_to', partySchema),
    services: services('rule_service'),
    action: oneOf('action', ['allow', 'deny']),
    log: flag('written to the log', { column: 'logged' }),
    enabled: flag('switched on'),
    /** The last day it holds; null for good. */
    until: day('last day', { column: 'until_day' }).nullable(),
    /** The box that enforces it; null for the one that routes the pair. */
    device: ref('device', 'cleared', 'device').nullable(),
    note: note('note', 120),
  },
  title: ({ note: why }) => (why ? `rule “${why}”` : 'a rule'),
  // A rule that spoke of nobody else goes too: with an empty list it would speak of everybody.
  without: {
    tables: ['zone', 'vlan', 'device', 'service'],
    rule: (record, gone) => {
      const rest = <T>(list: T[], isGone: (item: T) => boolean) =>
        list.some(isGone) ? list.filter((item) => !isGone(item)) : list;
      const [from, to] = [record.from, record.to].map((list) => rest(list, (party) => names(party, gone)));
      const left = rest(record.services, (id) => gone.table === 'service' && gone.ids.has(id));
      const emptied = (now: readonly unknown[], was: readonly unknown[]) =>
        now.length === 0 && was.length > 0;
      if (emptied(from!, record.from) || emptied(to!, record.to) || emptied(left, record.services))
        return null;
      if (from === record.from && to === record.to && left === record.services) return record;
      return { ...record, from: from!, to: to!, services: left };
    },
  },
});
