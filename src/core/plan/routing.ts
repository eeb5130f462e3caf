import { z } from 'zod';
import { addressCodec, idSchema, prefixCodec, text, whole } from './codecs';

/** The records of ways beyond the site's own segments: static routes, tunnels, 1:1 translation, the telephone box. */
const ref = idSchema;

/** A network a router does not stand in, and the next router on the way to it. */
export const routeSchema = z.strictObject({
  id: idSchema,
  device: ref,
  prefix: prefixCodec,
  via: addressCodec,
  note: text('The note', 120, 0),
});

/** A way to the networks of another site through the Internet. Its keys are kept elsewhere. */
export const tunnelSchema = z.strictObject({
  id: idSchema,
  device: ref,
  /** The uplink it is bound to; null for whichever is in use. */
  uplink: ref.nullable(),
  name: text('The tunnel’s name', 40),
  /** The other end: a name or an address. */
  peer: text('The other end', 120, 0),
  /** Does this side open it? Then it works from behind any translation. */
  initiates: z.boolean(),
  enabled: z.boolean(),
  /** The networks at the other end. */
  remote: z.array(prefixCodec),
});

/**
 * A 1:1 translation (RFC 2663 section 4.1.1): the hosts of a subnet are known elsewhere by the addresses of `outside`, of
 * the same size, each by the same place in it.
 */
export const translationSchema = z.strictObject({
  id: idSchema,
  device: ref,
  subnet: ref,
  outside: prefixCodec,
  note: text('The note', 120, 0),
});

/** A router's interface passes DHCP discovers on to servers in other networks (RFC 1542 section 4). One to an interface. */
export const relaySchema = z.strictObject({
  id: idSchema,
  interface: ref,
  /** The interfaces of the servers. */
  servers: z.array(ref),
});

/** A provider's box kept behind the site's own gateway, because the telephones hang on it. */
export const voiceBoxSchema = z.strictObject({
  id: idSchema,
  device: ref,
  uplink: ref,
  /** The network the box makes for itself; null when it makes none. */
  own: prefixCodec.nullable(),
  /** Does the box look for the provider’s tag on its line, and does the inside port repeat it? */
  needsTag: z.boolean(),
  tagRepeated: z.boolean(),
  /** The DSCP its packets are marked with on the way out (RFC 2474); voice is EF, 46 (RFC 3246). */
  dscp: whole('The DSCP', 0, 63),
  firstInQueue: z.boolean(),
  /** Do gateway and box run on when the mains fail? */
  backedUp: z.boolean(),
});
