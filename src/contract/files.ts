import * as z from 'zod';
import { type Other, route, siteGone } from './route';

const file = (type: Other['type'], says: string): Other => ({ type, says });
const csv = (name: string, says: string) =>
  route({
    method: 'GET',
    path: `/api/sites/{site}/${name}`,
    says,
    answer: file('text/csv', 'A file to save.'),
    problems: siteGone,
  });

export const files = {
  plan: route({
    method: 'GET',
    path: '/api/sites/{site}/export',
    says: 'The whole plan as one file.',
    answer: file('application/json', 'A plan file, see format.md.'),
    problems: siteGone,
  }),
  addresses: csv('schedule', 'The address schedule as CSV.'),
  ports: csv('ports', 'The port schedule as CSV.'),
  rules: csv('rules', 'The rule schedule as CSV.'),
  bindings: csv('bindings', 'The bindings entered at boxes as CSV.'),
  radiusClients: route({
    method: 'GET',
    path: '/api/sites/{site}/radius-clients',
    says: 'The boxes that ask whom to let in, for FreeRADIUS.',
    answer: file('text/plain', 'A clients.conf with placeholders for secrets.'),
    problems: siteGone,
  }),
  radiusUsers: route({
    method: 'GET',
    path: '/api/sites/{site}/radius-users',
    says: 'The devices that may be let in, for FreeRADIUS.',
    answer: file('text/plain', 'A users file with placeholders for passwords.'),
    problems: siteGone,
  }),
  telephones: route({
    method: 'GET',
    path: '/api/sites/{site}/telephones',
    says: 'What telephones are told with their lease, for dnsmasq.',
    answer: file('text/plain', 'Ranges and options of a dnsmasq.conf.'),
    problems: siteGone,
  }),
  hostapd: route({
    method: 'GET',
    path: '/api/sites/{site}/hostapd',
    says: 'A radio with its networks, or a port that asks who is there, for hostapd.',
    query: z.object({ of: z.string() }),
    answer: file('text/plain', 'A hostapd.conf with placeholders for keys and secrets.'),
    problems: { ...siteGone, 422: 'There is no such radio, and no port that asks.' },
  }),
  ruleset: route({
    method: 'GET',
    path: '/api/sites/{site}/ruleset',
    says: 'The nftables ruleset of one gateway.',
    query: z.object({ device: z.string() }),
    answer: file('text/plain', 'A ruleset for nft -f.'),
    problems: { ...siteGone, 422: 'There is no such gateway.', 503: 'It took longer than the limit.' },
  }),
};

export const machine = {
  health: route({
    method: 'GET',
    path: '/api/health',
    says: 'The process is alive.',
    answer: z.object({ ok: z.literal(true) }),
    problems: {},
  }),
  ready: route({
    method: 'GET',
    path: '/api/ready',
    says: 'The database answers, and can be written to.',
    answer: z.object({ ok: z.literal(true) }),
    problems: { 503: 'The database is away or full; the detail says which.' },
  }),
  metrics: route({
    method: 'GET',
    path: '/api/metrics',
    says: 'A few counters in the Prometheus text format.',
    answer: file('text/plain', 'Prometheus text format 0.0.4.'),
    problems: {},
  }),
};
