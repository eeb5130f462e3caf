import * as z from 'zod';
import { addressCodec } from '../plan';
import { type PortFacts, VidSet } from '../model/wiring';
import type { Setting, Step } from './steps';

/** Steps as they are written down: what was set on a box stays known when the plan has gone on. */

const vid = z.int().min(0).max(4095);
const factsCodec = z.codec(
  z.strictObject({
    pvid: vid.nullable(),
    untagged: vid.nullable(),
    tagged: z.strictObject({ except: z.boolean(), vids: z.array(vid).max(4096) }),
    accepts: z.enum(['all', 'tagged', 'untagged']),
    ingressFilter: z.boolean(),
  }),
  z.custom<PortFacts>(),
  {
    decode: ({ tagged, ...facts }): PortFacts => ({
      ...facts,
      tagged: new VidSet(tagged.except, new Set(tagged.vids)),
      blocked: null,
    }),
    encode: ({ pvid, untagged, tagged, accepts, ingressFilter }) => ({
      pvid,
      untagged,
      tagged: { except: tagged.except, vids: [...tagged.vids].sort((a, b) => a - b) },
      accepts,
      ingressFilter,
    }),
  },
);

const id = z.string().max(40);
const settingSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('vlans'), vids: z.array(vid).max(4096) }),
  z.strictObject({
    kind: z.literal('port'),
    port: id,
    facts: factsCodec.nullable(),
    part: z.enum(['add', 'pvid', 'set']),
  }),
  z.strictObject({
    kind: z.literal('management'),
    to: z.strictObject({ address: addressCodec.nullable(), length: z.int().min(0).max(128), vid }),
    inside: factsCodec.nullable(),
    socket: z.strictObject({ port: id, facts: factsCodec.nullable() }).nullable(),
  }),
  z.strictObject({ kind: z.literal('plug'), after: z.enum(['save', 'check']) }),
  z.strictObject({ kind: z.literal('parachute'), port: id, facts: factsCodec }),
  z.strictObject({ kind: z.literal('save') }),
  z.strictObject({ kind: z.literal('check') }),
]);

/** A step in wire form: JSON, VLAN ids in rising order, addresses as text. */
export const stepSchema = z.strictObject({ device: id, setting: settingSchema });
export type WireStep = z.input<typeof stepSchema>;

export const encodeStep = (step: Step): WireStep => z.encode(stepSchema, step as z.output<typeof stepSchema>);
export const decodeStep = (wire: WireStep): Step => z.decode(stepSchema, wire) as Step & { setting: Setting };

/** The same for the same setting of the same box, whenever it is worked out. */
export const stepKey = (step: Step): string => JSON.stringify(encodeStep(step));
