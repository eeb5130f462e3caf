import * as z from 'zod';
import {
  type IpAddress,
  formatAddress,
  parseAddress,
  parseMac,
  type Prefix,
  formatPrefix,
  parsePrefix,
} from '../address';

/**
 * The edge codecs: text in JSON, values in the core. `decode` reads what a person or a file says and names the
 * wrong value with a remedy; `encode` writes the canonical text, so that encode(decode(x)) is stable.
 */
export const addressCodec = z.codec(z.string(), z.custom<IpAddress>(), {
  decode: (text, ctx) => {
    const value = parseAddress(text);
    if (value !== null) return value;
    const message = `“${text}” is not an IP address; write four numbers 0–255 like 192.168.20.1, or IPv6 like fd00::1`;
    ctx.issues.push({ code: 'custom', input: text, message });
    return z.NEVER;
  },
  encode: formatAddress,
});

export const prefixCodec = z.codec(z.string(), z.custom<Prefix>(), {
  decode: (text, ctx) => {
    const parsed = parsePrefix(text);
    if (parsed?.aligned) return parsed.prefix;
    const message = parsed
      ? `“${text}” is a host in ${formatPrefix(parsed.prefix)}; write the network itself, ${formatPrefix(parsed.prefix)}`
      : `“${text}” is not a subnet; write an address and a length, like 192.168.20.0/24`;
    ctx.issues.push({ code: 'custom', input: text, message });
    return z.NEVER;
  },
  encode: formatPrefix,
});

export const macCodec = z.codec(z.string(), z.string(), {
  decode: (text, ctx) => {
    const mac = parseMac(text);
    if (mac !== null) return mac;
    const message = `“${text}” is not a MAC address; write twelve hexadecimal digits like 00:00:5E:00:53:01`;
    ctx.issues.push({ code: 'custom', input: text, message });
    return z.NEVER;
  },
  encode: (mac) => mac,
});

export const idSchema = z
  .string()
  .regex(/^[a-z0-9]{1,32}$/, 'an id has 1 to 32 lower-case letters or digits');

/** Text without half surrogate pairs: it would not be stored as it was sent. */
export const wellFormed = z
  .string()
  .refine((text) => text.isWellFormed(), 'holds half a character (a lone surrogate); write it again');

/** Who did something, by name. */
export const authorSchema = wellFormed
  .trim()
  .min(1, 'your name is empty; write it once')
  .max(60, 'your name is longer than 60 characters; write a shorter one');

/** A moment in UTC, always written with milliseconds, so that equal moments are equal text. */
export const timeCodec = z.codec(z.iso.datetime(), z.string(), {
  decode: (text) => new Date(text).toISOString(),
  encode: (text) => text,
});
