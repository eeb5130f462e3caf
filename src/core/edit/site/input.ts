import * as z from 'zod';
import { parsePrefix } from '../../address';
import { type Site, kinds, prefixCodec } from '../../plan';

/** What somebody says of a site that is to be made, and what is usual for its kind. */

const fields = kinds.site.fields;
export const newSiteInput = z.strictObject({
  name: fields.name,
  kind: fields.kind,
  space: fields.space.optional(),
  numbering: fields.numbering.optional(),
  sizing: fields.sizing.optional(),
  fixed: fields.fixed.optional(),
  management: fields.management.optional(),
  domain: fields.domain.optional(),
  timeZone: fields.timeZone.optional(),
});

const prefix = (text: string) => parsePrefix(text)!.prefix;

/** What a site of a kind starts with; each can be changed in Brief. */
export const siteDefaults: Readonly<
  Record<Site['kind'], Pick<Site, 'space' | 'sizing' | 'infrastructureBand' | 'fixedBand' | 'fixed'>>
> = {
  home: {
    space: [prefix('192.168.0.0/16')],
    sizing: 'slash-24',
    infrastructureBand: 9,
    fixedBand: 90,
    fixed: 'reservation',
  },
  office: {
    space: [prefix('10.20.0.0/16')],
    sizing: 'slash-24',
    infrastructureBand: 9,
    fixedBand: 90,
    fixed: 'outside-pool',
  },
  industrial: {
    space: [prefix('10.44.0.0/16')],
    sizing: 'need',
    infrastructureBand: 8,
    fixedBand: 60,
    fixed: 'outside-pool',
  },
};

/** A site as the template of another. */
export const templateInput = z.strictObject({
  name: kinds.site.fields.name,
  /** In place of the first IPv4 space; left out, the addresses stay. */
  space: prefixCodec.optional(),
  domain: kinds.site.fields.domain.optional(),
  /** A part of device names, and what stands in its place. */
  names: z.strictObject({ from: z.string().min(1).max(80), to: z.string().max(80) }).optional(),
});
export type Template = z.output<typeof templateInput>;
