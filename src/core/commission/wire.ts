import * as z from 'zod';
import { formatAddress, parseAddress } from '../address';
import { idSchema } from '../plan';
import { type PortFacts, VidSet } from '../model/wiring';
import type { OrderEdit } from './by-hand';
import { plainPages } from './pages/plain';
import type { Setting, Step } from './steps';

/** Steps as they are written down: what was set on a box stays known when the plan has gone on. */

const vid = z.int().min(0).max(4095);
const vids = z.array(vid).max(4096);
const factsSchema = z.strictObject({
  pvid: vid.nullable(),
  untagged: vid.nullable(),
  tagged: z.strictObject({ except: z.boolean(), vids }),
  accepts: z.enum(['all', 'tagged', 'untagged']),
  ingressFilter: z.boolean(),
});
const address = z
  .string()
  .refine((text) => parseAddress(text) !== null, 'is no IP address; write one like 192.168.20.1');

const settingSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('vlans'), vids }),
  z.strictObject({
    kind: z.literal('port'),
    port: idSchema,
    facts: factsSchema.nullable(),
    part: z.enum(['add', 'pvid', 'set']),
  }),
  z.strictObject({
    kind: z.literal('management'),
    to: z.strictObject({ address: address.nullable(), length: z.int().min(0).max(128), vid }),
    inside: factsSchema.nullable(),
    socket: z.strictObject({ port: idSchema, facts: factsSchema.nullable() }).nullable(),
  }),
  z.strictObject({ kind: z.literal('pages'), pages: z.array(z.enum(plainPages)).max(plainPages.length) }),
  z.strictObject({ kind: z.literal('plug'), after: z.enum(['save', 'check']) }),
  z.strictObject({ kind: z.literal('parachute'), port: idSchema, facts: factsSchema }),
  z.strictObject({ kind: z.literal('save') }),
  z.strictObject({ kind: z.literal('check') }),
]);

/** A step in wire form: JSON, VLAN ids in rising order, addresses as text. */
export const stepSchema = z.strictObject({ device: idSchema, setting: settingSchema });
export type WireStep = z.output<typeof stepSchema>;
type WireFacts = z.output<typeof factsSchema>;

const place = z.int().min(0).max(100_000);
/** What somebody did to an order by hand, in wire form. */
export const orderEditSchema: z.ZodType<OrderEdit> = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('move'), at: place, count: place, to: place }),
  z.strictObject({ kind: z.literal('mend'), keep: place }),
]);

const factsToWire = ({ pvid, untagged, tagged, accepts, ingressFilter }: PortFacts): WireFacts => ({
  pvid,
  untagged,
  tagged: { except: tagged.except, vids: [...tagged.vids].sort((a, b) => a - b) },
  accepts,
  ingressFilter,
});
const factsOf = ({ tagged, ...facts }: WireFacts): PortFacts => ({
  ...facts,
  tagged: new VidSet(tagged.except, new Set(tagged.vids)),
  blocked: null,
});

function settingToWire(setting: Setting): WireStep['setting'] {
  switch (setting.kind) {
    case 'vlans':
      return { kind: 'vlans', vids: [...setting.vids] };
    case 'port':
      return { ...setting, facts: setting.facts && factsToWire(setting.facts) };
    case 'parachute':
      return { ...setting, facts: factsToWire(setting.facts) };
    case 'pages':
      return { kind: 'pages', pages: [...setting.pages] };
    case 'management': {
      const { to, inside, socket } = setting;
      return {
        kind: 'management',
        to: { ...to, address: to.address === null ? null : formatAddress(to.address) },
        inside: inside && factsToWire(inside),
        socket: socket && { port: socket.port, facts: socket.facts && factsToWire(socket.facts) },
      };
    }
    default:
      return setting;
  }
}

function settingOf(setting: WireStep['setting']): Setting {
  switch (setting.kind) {
    case 'port':
      return { ...setting, facts: setting.facts && factsOf(setting.facts) };
    case 'parachute':
      return { ...setting, facts: factsOf(setting.facts) };
    case 'management': {
      const { to, inside, socket } = setting;
      return {
        kind: 'management',
        to: { ...to, address: to.address === null ? null : parseAddress(to.address) },
        inside: inside && factsOf(inside),
        socket: socket && { port: socket.port, facts: socket.facts && factsOf(socket.facts) },
      };
    }
    default:
      return setting;
  }
}

export const encodeStep = ({ device, setting }: Step): WireStep => ({
  device,
  setting: settingToWire(setting),
});
export const decodeStep = ({ device, setting }: WireStep): Step => ({ device, setting: settingOf(setting) });

/** The same for the same setting of the same box, whenever it is worked out. */
export const stepKey = (step: Step): string => JSON.stringify(encodeStep(step));
