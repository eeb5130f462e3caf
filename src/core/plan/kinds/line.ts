import { address, flag, oneOf, prefix, rank, text, whole } from './fields';
import { kind } from './kind';
import { lineOfOtherFamily } from './ranges';
import { addressings, outsides, upstreams } from './uplink';

/** A connection to the Internet as it was ordered, before anything is planned for it. */
export const line = kind({
  word: 'Internet connection',
  about: 'a connection to the Internet as it was ordered: what the provider gives and allows',
  since: 14,
  table: 'internet_line',
  uniqueName: true,
  fields: {
    rank: rank(),
    name: text('name', 40, { said: 'The name of the connection' }),
    addressing: oneOf('addressing', addressings),
    providerVlan: whole('provider VLAN', 1, 4094, { said: 'The provider’s VLAN id' }).nullable(),
    upstream: oneOf('what stands upstream', upstreams),
    outside: oneOf('outside address is', outsides),
    address: address('address').nullable(),
    network: prefix('outside network').nullable(),
    down: whole('Mbit/s down', 1, 800_000, { unit: 'Mbit/s', column: 'mbit_down' }).nullable(),
    up: whole('Mbit/s up', 1, 800_000, { unit: 'Mbit/s', column: 'mbit_up' }).nullable(),
    /** Does the provider let nothing in that was not asked for? */
    noForwards: flag('lets nothing in'),
    /** The IPv6 prefix the provider delegates. */
    delegated: prefix('IPv6 prefix delegated').nullable(),
    /** What is pinged to tell whether it works; null: nothing, and then nobody notices when it fails. */
    monitor: address('pings').nullable(),
    /** Used only while those before it fail; otherwise it carries its share. */
    standby: flag('stands by'),
  },
  refused: lineOfOtherFamily,
  title: ({ name }) => name,
});
