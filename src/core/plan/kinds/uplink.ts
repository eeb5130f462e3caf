import { address, flag, note, oneOf, prefix, ref, text, whole } from './fields';
import { kind } from './kind';
import { lineOfOtherFamily } from './ranges';

export const addressings = ['dhcp', 'static', 'pppoe'] as const;
export const upstreams = ['modem', 'bridged', 'routing', 'satellite', 'mobile'] as const;
export const passings = ['nothing', 'listed', 'everything'] as const;
export const outsides = ['public', 'private', 'shared', 'unknown'] as const;
export const protocols = ['tcp', 'udp', 'both'] as const;

/** A way out of a gateway. No secret has a field here: how it logs in is kept where the customer keeps it. */
export const uplink = kind({
  word: 'uplink',
  about: 'a gateway’s way out: addressing, what stands upstream, what kind of address, tier, what is pinged',
  since: 3,
  table: 'uplink',
  uniqueName: true,
  fields: {
    device: ref('device', 'removed', 'device'),
    /** The segment of this site its outside stands in: a router behind a router. Null where it faces a provider. */
    segment: ref('vlan', 'cleared', 'stands in segment', { since: 4 }).nullable().default(null),
    /** The port that faces the provider; null while nobody recorded it. */
    port: ref('port', 'cleared', 'port').nullable(),
    name: text('name', 40, { said: 'The uplink’s name' }),
    addressing: oneOf('addressing', addressings),
    /** The provider’s VLAN on the wire: a name space of its own, no segment of this site. Null for none. */
    providerVlan: whole('provider VLAN', 1, 4094, { said: 'The provider’s VLAN id' }).nullable(),
    /** What stands between the gateway and the provider. */
    upstream: oneOf('what stands upstream', upstreams),
    /** What a routing box upstream passes on to this gateway. `listed`: the ports of the forwards recorded here. */
    passes: oneOf('passes on', passings),
    /** What is known of the outside address when the address itself is not recorded. */
    outside: oneOf('outside address is', outsides),
    address: address('address').nullable(),
    /** The network between the gateway and what stands upstream. */
    network: prefix('outside network').nullable(),
    /** Largest IP packet where it differs from what the addressing gives; null for that. */
    mtu: whole('MTU', 576, 9216, { said: 'The MTU in bytes', unit: 'bytes' }).nullable(),
    /** As ordered. */
    down: whole('Mbit/s down', 1, 800_000, {
      said: 'The speed down in Mbit/s',
      unit: 'Mbit/s',
      column: 'mbit_down',
    }).nullable(),
    up: whole('Mbit/s up', 1, 800_000, {
      said: 'The speed up in Mbit/s',
      unit: 'Mbit/s',
      column: 'mbit_up',
    }).nullable(),
    /** Null without a limit. */
    cap: whole('GB a month', 1, 1_000_000, {
      said: 'The data cap in GB a month',
      unit: 'GB',
      column: 'cap_gb',
    }).nullable(),
    /** The provider, or this port of the gateway, lets no forward in. */
    noForwards: flag('lets no forward in'),
    enabled: flag('enabled'),
    /** The IPv6 prefix the provider delegates. */
    delegated: prefix('IPv6 prefix delegated').nullable(),
    /** 1 is used first; uplinks of one tier share the traffic by weight, a later tier waits for the earlier to fail. */
    tier: whole('tier', 1, 9),
    weight: whole('weight', 1, 256),
    /** What is asked over this uplink alone to tell whether it works; null for nothing. */
    monitor: address('pings').nullable(),
    /** Between two questions, and how many in a row decide. */
    monitorEvery: whole('seconds between pings', 1, 3600, {
      said: 'The seconds between two pings',
      unit: 's',
    }),
    lossesDown: whole('lost pings until down', 1, 100, { said: 'The lost pings before it counts as down' }),
    repliesUp: whole('answered pings until up', 1, 100, {
      said: 'The answered pings before it counts as up',
    }),
    /** The name in the DNS that follows its address; empty for none. */
    dynamicName: note('dynamic name', 120),
    /** The one device that keeps the name up to date. */
    updater: ref('device', 'cleared', 'updater').nullable(),
  },
  refused: lineOfOtherFamily,
  title: ({ name }) => `uplink ${name}`,
});
