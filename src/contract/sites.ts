import * as z from 'zod';
import { newSiteInput, templateInput } from '../core/edit';
import { FILE_BODY_LIMIT, noSite, route, siteGone } from './route';
import { count, madeSite, revisionSchema } from './shapes';

const counts = z.object({ stop: z.int(), fix: z.int(), note: z.int() });

export const siteSummary = z.object({
  id: z.string(),
  name: z.string(),
  kind: z.string(),
  revision: revisionSchema,
  archived: z.boolean(),
  changedAt: z.string(),
  segments: z.int(),
  fixed: z.int(),
  /** Open findings; null while faults are being looked for in it, and where they are still being counted. */
  findings: counts.nullable(),
  /** Are the findings those of this revision? */
  counted: z.boolean(),
  /** Why they cannot be counted; null when they can. */
  uncountable: z.string().nullable(),
  exercise: z.enum(['open', 'ended']).nullable(),
});
export type SiteSummary = z.output<typeof siteSummary>;

/** Sites in one part of the list. */
export const SITES_PART = 100;

export const sites = {
  list: route({
    method: 'GET',
    path: '/api/sites',
    says: 'Sites by name, in parts, with their size and open findings.',
    query: z.object({
      /** Only those with this in their name. */
      named: z.string().max(100).optional(),
      after: z.string().optional(),
      limit: count(SITES_PART).optional(),
      archived: z.enum(['yes', 'no']).optional(),
    }),
    answer: z.object({
      sites: z.array(siteSummary),
      /** How many there are that are archived. */
      archived: z.int(),
      /** Where the next part begins; null at the end. */
      next: z.string().nullable(),
    }),
    problems: {},
  }),
  create: route({
    method: 'POST',
    path: '/api/sites',
    says: 'A new site: from a few decisions, as a copy of another, or from the text of a plan file.',
    body: z.union([
      z.strictObject({ create: newSiteInput }),
      templateInput.extend({ duplicate: z.string() }),
      z.strictObject({ file: z.string() }),
    ]),
    limit: FILE_BODY_LIMIT,
    answer: madeSite,
    status: 201,
    problems: { 404: noSite, 422: 'The file or the decisions make no plan.' },
  }),
  archive: route({
    method: 'PATCH',
    path: '/api/sites/{site}',
    says: 'Archives a site or takes it back. Renaming is a change of the plan.',
    body: z.strictObject({ archived: z.boolean() }),
    answer: z.object({ archived: z.boolean() }),
    problems: siteGone,
  }),
  remove: route({
    method: 'DELETE',
    path: '/api/sites/{site}',
    says: 'Deletes a site for good; its name must be typed.',
    body: z.strictObject({ name: z.string() }),
    answer: z.object({ deleted: z.literal(true) }),
    problems: { ...siteGone, 422: 'The name is not that of the site.' },
  }),
  plan: route({
    method: 'GET',
    path: '/api/sites/{site}/plan',
    says: 'The plan with the revision it is: the newest, or as it was `at` an earlier one.',
    query: z.object({ at: count().optional() }),
    answer: z.object({
      revision: revisionSchema,
      plan: z.record(z.string(), z.array(z.record(z.string(), z.unknown()))),
    }),
    problems: { ...siteGone, 422: 'There is no such revision.' },
  }),
  find: route({
    method: 'GET',
    path: '/api/find',
    says: 'Finds in all sites: an address, prefix, MAC, VLAN id, name or code. Exercises are left out.',
    query: z.object({ q: z.string(), after: count(10_000).optional() }),
    answer: z.object({
      hits: z.array(
        z.object({
          site: z.string(),
          siteName: z.string(),
          kind: z.enum(['segment', 'address', 'gear']),
          vlan: z.string().nullable(),
          subnet: z.string().nullable(),
          address: z.string().nullable(),
          device: z.string().nullable(),
          port: z.string().nullable(),
          title: z.string(),
          detail: z.string(),
          score: z.number(),
        }),
      ),
      /** What to ask `after` for more; null when there is none. */
      next: z.int().nullable(),
    }),
    problems: {},
  }),
};
