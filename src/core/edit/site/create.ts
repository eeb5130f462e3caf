import * as z from 'zod';
import { parsePrefix } from '../../address';
import { Draft, type Plan, planOf, SITE_ID, type Site, kinds, withRecord } from '../../plan';

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

/** A new site: its record, one LAN and one gateway device, so that addresses have something to stand on. */
export function newSitePlan(input: z.output<typeof newSiteInput>, seed: string): Plan {
  const draft = new Draft(planOf({}), seed);
  const defaults = siteDefaults[input.kind];
  draft.put('site', SITE_ID, {
    id: SITE_ID,
    ...defaults,
    name: input.name,
    kind: input.kind,
    space: input.space ?? defaults.space,
    foreign: [],
    numbering: input.numbering ?? 'third-octet',
    sizing: input.sizing ?? defaults.sizing,
    fixed: input.fixed ?? defaults.fixed,
    reservationInPool: true,
    management: input.management ?? 'own-segment',
    gatewayHabit: 'first',
    namingPattern: '{code}-{kind}-{nn}',
    domain: input.domain ?? '',
    documentation: false,
    country: '',
    wirelessNames: 'one',
    radarChannels: 'used',
    staging: 'on-site',
    separation: 'vlans',
    routedBy: 'gateway',
    backbone: 'star',
    spare: 15,
    usualGrowth: 25,
    timeZone: input.timeZone ?? 'UTC',
    notes: '',
  });
  draft.insert('lan', { name: 'LAN' });
  draft.insert('device', { name: 'gw-1', kind: 'gateway', firewall: 'unknown' });
  return draft.plan;
}

/** A plan as the beginning of a site: what it says of changes of another is not said of this one. */
export function asANewSite(plan: Plan): Plan {
  let made = plan;
  for (const present of plan.present.values())
    if (present.asOf !== null) made = withRecord(made, 'present', present.id, { ...present, asOf: null });
  return made;
}
