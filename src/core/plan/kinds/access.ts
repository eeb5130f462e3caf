import { services } from './cell';
import { flag, note, oneOf, ref, text, whole } from './fields';
import { kind } from './kind';

/** Whether a port that asks also keeps out: never, all but a few services, everything. */
export const accessModes = ['watch', 'limited', 'closed'] as const;
/** What is tried, in order. */
export const accessMethods = ['dot1x', 'dot1x-mac', 'mac-dot1x', 'mac'] as const;
/** Whom one answer lets in. */
export const hostModes = ['one', 'phone-and-one', 'each', 'all'] as const;

/** How a port asks who is there (IEEE 802.1X-2020), shared by the ports that name it. */
export const access = kind({
  word: 'way in',
  about:
    'how ports ask who is there: by 802.1X or MAC, how long, what passes before, and the segment for each outcome',
  since: 10,
  table: 'access',
  uniqueName: true,
  fields: {
    name: text('name', 40),
    mode: oneOf('mode', accessModes),
    methods: oneOf('asks by', accessMethods),
    hosts: oneOf('lets in', hostModes),
    /** Seconds between two questions who is there (IEEE 802.1X-2020 clause 8: tx-period), and how often it is asked. */
    period: whole('seconds between questions', 1, 65_535, { unit: 's' }),
    tries: whole('questions', 1, 10),
    /** What passes before anybody is let in, where the mode is limited. */
    services: services('access_service'),
    /** Does it take a segment from the server (RFC 3580)? */
    takesVlan: flag('takes the segment from the server'),
    /** Does it take a list of what passes from the server (RFC 4849)? */
    takesList: flag('takes a list from the server'),
    /** For who does not answer; null: kept out. */
    guest: ref('vlan', 'cleared', 'segment for who cannot answer', { edited: true }).nullable(),
    /** For who is refused; null: kept out. */
    failed: ref('vlan', 'cleared', 'segment for who is refused', { edited: true }).nullable(),
    /** While no server answers; null: kept out. */
    critical: ref('vlan', 'cleared', 'segment without a server', { edited: true }).nullable(),
    /** Null: never again. */
    again: whole('asks again after', 60, 604_800, { unit: 's' }).nullable(),
    accounting: flag('accounting'),
    /** The servers it asks: those of this group; empty for all. */
    group: note('servers of group', 40, { column: 'server_group' }),
  },
  title: ({ name }) => `way in ${name}`,
  without: {
    tables: ['service'],
    rule: (record, gone) => ({ ...record, services: record.services.filter((id) => !gone.ids.has(id)) }),
  },
});
