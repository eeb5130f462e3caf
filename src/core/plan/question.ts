import { z } from 'zod';
import { addressCodec, idSchema, text, whole } from './codecs';

/** The record of questions that are kept to be asked again. */
const ref = idSchema;

export const askedProtocols = ['tcp', 'udp', 'icmp'] as const;
export const expectations = ['delivered', 'stopped'] as const;

/**
 * A question with the answer that is expected. From a port, a device or a segment, or with none of them from the Internet;
 * to a device, a segment, an address or the gateway, or with none of them to the Internet.
 */
export const questionSchema = z.strictObject({
  id: idSchema,
  rank: z.string().regex(/^[A-Za-z0-9]{1,60}$/),
  fromPort: ref.nullable(),
  fromDevice: ref.nullable(),
  fromVlan: ref.nullable(),
  toDevice: ref.nullable(),
  toVlan: ref.nullable(),
  toAddress: addressCodec.nullable(),
  toGateway: z.boolean(),
  protocol: z.enum(askedProtocols),
  /** The port, or the type of ICMP. */
  port: whole('The port', 0, 65_535),
  expected: z.enum(expectations),
  why: text('The reason', 200, 0),
});
