import { address, flag, note, oneOf, rank, ref, whole } from './fields';
import { kind } from './kind';

export const askedProtocols = ['tcp', 'udp', 'icmp'] as const;
export const expectations = ['delivered', 'stopped'] as const;

/**
 * A question that is kept, with the answer that is expected. From a port, a device, a segment, a tunnel or a wireless network, or
 * with none of them from the Internet; to a device, a segment, an address or the gateway, or with none of them to the Internet.
 */
export const question = kind({
  word: 'question',
  about:
    'a question with the answer that is expected: from, to, service; none of the ends means the Internet',
  since: 5,
  table: 'question',
  fields: {
    rank: rank(),
    fromPort: ref('port', 'removed', 'from port').nullable(),
    fromDevice: ref('device', 'removed', 'from device').nullable(),
    fromVlan: ref('vlan', 'removed', 'from segment').nullable(),
    /** People who dial in, or the far side of a tunnel. */
    fromTunnel: ref('tunnel', 'removed', 'from tunnel', { since: 7 }).nullable().default(null),
    /** Somebody on a wireless network, at the access point that `fromDevice` names. */
    fromSsid: ref('ssid', 'removed', 'from network', { since: 8 }).nullable().default(null),
    toDevice: ref('device', 'removed', 'to device').nullable(),
    toVlan: ref('vlan', 'removed', 'to segment').nullable(),
    toAddress: address('to address').nullable(),
    toGateway: flag('to the gateway'),
    protocol: oneOf('protocol', askedProtocols),
    /** The port, or the type of ICMP. */
    port: whole('port', 0, 65_535),
    expected: oneOf('expected', expectations),
    why: note('why', 200, { said: 'The reason' }),
  },
  title: ({ why }) => (why ? `question “${why}”` : 'a question'),
});
