import { services } from './cell';
import { note, oneOf, rank } from './fields';
import { kind } from './kind';
import { groupPurposes } from './vlan';

/** Who a wish speaks of: segments by purpose, the Internet, and people who dial in for remote help. */
export const wishEnds = [...groupPurposes, 'internet', 'remote'] as const;
export const wishDecisions = ['allow', 'deny'] as const;

/** A rule the customer gives: who may reach whom, or must not. */
export const wish = kind({
  word: 'wish',
  about: 'a rule the customer gives: who may reach whom, or must not, and for what',
  since: 14,
  table: 'wish',
  fields: {
    rank: rank(),
    from: oneOf('from', wishEnds, { column: 'from_end' }),
    to: oneOf('to', wishEnds, { column: 'to_end' }),
    decision: oneOf('may', wishDecisions),
    /** None: everything. */
    services: services('wish_service'),
    why: note('why', 120, { said: 'The reason' }),
  },
  title: ({ from, to }) => `wish from ${from} to ${to}`,
  // A wish that spoke of nothing else goes too: with an empty list it would speak of everything.
  without: {
    tables: ['service'],
    rule: (record, gone) => {
      const left = record.services.filter((id) => !gone.ids.has(id));
      if (left.length === record.services.length) return record;
      return left.length === 0 ? null : { ...record, services: left };
    },
  },
});
