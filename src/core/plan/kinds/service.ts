import * as z from 'zod';
import { list, oneOf, text, whole } from './fields';
import { kind } from './kind';

export const transports = ['tcp', 'udp', 'icmp', 'ip'] as const;
/** What a service is on the wire: ports of tcp or udp, a type of icmp, or the number of another protocol over IP. */
export const matchSchema = z
  .strictObject({
    protocol: oneOf('protocol', transports),
    from: whole('from', 0, 65_535, { said: 'The first port', column: 'port_from' }),
    to: whole('to', 0, 65_535, { said: 'The last port', column: 'port_to' }),
  })
  .refine(({ from, to }) => from <= to, {
    message: 'The last port lies before the first; swap them',
    path: ['to'],
  });

/** The last port, type of ICMP (RFC 792) or protocol number (RFC 791). */
export const lastNumber = (protocol: (typeof transports)[number]): number =>
  protocol === 'icmp' || protocol === 'ip' ? 255 : 65_535;

/** A service of the installer’s own, beside the standard list. */
export const service = kind({
  word: 'service',
  about: 'a service of the site’s own: ports of tcp or udp, types of icmp, protocols over IP',
  since: 3,
  table: 'service',
  uniqueName: true,
  fields: {
    name: text('name', 40, { said: 'The service’s name' }),
    matches: list('matches', 'service_match', matchSchema).min(
      1,
      'A service with no port is nothing; write at least one',
    ),
  },
  refused: ({ matches }) => {
    const beyond = matches.find(({ protocol, to }) => to > lastNumber(protocol));
    return beyond
      ? {
          field: 'matches',
          message: `There is no ${beyond.protocol} ${beyond.to}; the last is ${lastNumber(beyond.protocol)}.`,
        }
      : null;
  },
  title: ({ name }) => name,
});
