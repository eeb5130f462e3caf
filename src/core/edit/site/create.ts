import type * as z from 'zod';
import { Draft, type Plan, planOf, SITE_ID, withRecord } from '../../plan';
import { type newSiteInput, siteDefaults } from './input';

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
