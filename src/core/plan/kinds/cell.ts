import { list, oneOf, plainId, ref } from './fields';
import { kind, nameOf } from './kind';

/** Services by id; those of the standard list are no records. */
export const services = (table: string) => list('services', table, plainId('service'));

/** What passes from one zone to another where it differs from what is usual. */
export const cell = kind({
  word: 'cell of the matrix',
  about:
    'what passes from one zone to another where it is not as usual; services by id, `std…` are standard ones',
  since: 3,
  table: 'policy_cell',
  bucket: 'spread',
  edited: false,
  fields: {
    from: ref('zone', 'removed', 'from'),
    to: ref('zone', 'removed', 'to'),
    decision: oneOf('passes', ['allow', 'deny', 'services']),
    services: services('cell_service'),
  },
  title: ({ from, to }, plan) =>
    `${nameOf(plan, 'zone', from, 'a zone')} to ${nameOf(plan, 'zone', to, 'a zone')}`,
  // A service that goes leaves what allowed it alone: the cell denies then.
  without: {
    tables: ['service'],
    rule: (record, gone) => {
      const left = record.services.filter((id) => !gone.ids.has(id));
      if (left.length === record.services.length) return record;
      return { ...record, services: left, ...(left.length === 0 ? { decision: 'deny' as const } : {}) };
    },
  },
});
