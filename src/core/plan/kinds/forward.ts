import { type Prefix, formatPrefix, prefixFamily } from '../../address';
import { flag, list, note, oneOf, prefix, ref, whole } from './fields';
import { kind, portsText } from './kind';
import { protocols } from './uplink';

/** Why some cannot be let in by a forward; null where all can. */
export function notForwarded(sources: readonly Prefix[]): string | null {
  const six = sources.find((prefix) => prefixFamily(prefix) === 6);
  return six
    ? `${formatPrefix(six)} is IPv6, and a forward is for IPv4, which is translated. Let it in by a rule.`
    : null;
}

/** A port forward: destination NAT, and the opening in the filter that goes with it. */
export const forward = kind({
  word: 'forward',
  about: 'outside ports of an uplink that lead to a network card inside; who may come',
  since: 3,
  table: 'forward',
  indexes: { uplink: ({ uplink }) => uplink },
  fields: {
    uplink: ref('uplink', 'removed', 'uplink'),
    protocol: oneOf('protocol', protocols),
    from: whole('from', 1, 65_535, { said: 'The first outside port', column: 'outside_from' }),
    to: whole('to', 1, 65_535, { said: 'The last outside port', column: 'outside_to' }),
    /** The network card inside that gets it. */
    target: ref('interface', 'removed', 'target', { column: 'interface_id' }),
    /** The inside port that the first outside port becomes; the others follow in order. */
    inside: whole('inside port', 1, 65_535, { column: 'inside_port' }),
    /** Who may come; empty for anybody. */
    sources: list('allowed sources', 'forward_source', prefix('prefix')),
    /** Does it work from inside too, by the outside address? */
    hairpin: flag('works from inside by the outside address too (hairpin)'),
    enabled: flag('switched on'),
    note: note('note', 120),
  },
  rules: [
    {
      holds: ({ from, to }) => from <= to,
      message: 'The last outside port lies before the first; swap them',
      field: 'to',
    },
    {
      holds: ({ from, to, inside }) => inside + (to - from) <= 65_535,
      message: 'The inside ports would end after 65535; begin lower',
      field: 'inside',
    },
  ],
  refused: ({ sources }) => {
    const message = notForwarded(sources);
    return message === null ? null : { field: 'sources', message };
  },
  title: ({ protocol, from, to }) => `forward ${portsText(protocol, from, to)}`,
});
