import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import type { WireStep } from './wire';

/** SHA-256 of steps in wire form, in hexadecimal: two that worked out the same change have the same. */
export const digestOf = (steps: readonly WireStep[]): string =>
  bytesToHex(sha256(utf8ToBytes(JSON.stringify(steps))));
