import * as z from 'zod';
import { type Other, route, siteGone } from './route';
import { count } from './shapes';

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
  open: route({
    method: 'GET',
    path: '/api/sites/{site}/file',
    says: 'One file that another program reads as it is, by its place in the archive.',
    query: z.object({ path: z.string() }),
    answer: file('text/plain', 'The file, with placeholders for keys and secrets.'),
    problems: { ...siteGone, 422: 'There is no such file.', 503: 'It took longer than the limit.' },
  }),
  archive: route({
    method: 'GET',
    path: '/api/sites/{site}/archive',
    says: 'All files of a plan in one archive, with a manifest.',
    answer: file('application/zip', 'A zip archive.'),
    problems: { ...siteGone, 503: 'It took longer than the limit.' },
  }),
  book: route({
    method: 'GET',
    path: '/api/sites/{site}/book',
    says: 'The as-built book: what the site is, written from its plan and its log.',
    query: z.object({
      /** An unknown one is answered with those there are. */
      paper: z.string().optional(),
      /** Chapters to leave out, by name, with commas between. */
      without: z.string().optional(),
    }),
    answer: file('application/pdf', 'A tagged PDF with bookmarks.'),
    long: true,
    problems: {
      ...siteGone,
      422: 'There is no such paper or chapter.',
      503: 'It took longer than the limit.',
    },
  }),
  labels: route({
    method: 'GET',
    path: '/api/sites/{site}/labels',
    says: 'Sheets of labels for boxes, ports, cables or outlets, with codes that open their records.',
    query: z.object({
      /** What they are for, and the sheet: an unknown one is answered with those there are. */
      what: z.string(),
      grid: z.string(),
      /** Of one box alone. */
      device: z.string().optional(),
      /** How many labels of the first sheet are gone already. */
      skip: count().optional(),
      /** Where the codes lead to: the address at which this program is reached. */
      base: z
        .string()
        .regex(/^https?:\/\/\S{1,200}$/, 'is no address; write one like http://192.0.2.10:4380'),
    }),
    answer: file('application/pdf', 'A PDF in the size of the sheets.'),
    problems: { ...siteGone, 422: 'There is no such sheet, or nothing to stick a label on.' },
  }),
};

/** A file at the end of lines of JSON: its bytes in base 64 (RFC 4648 section 4). */
export const sentFile = z.object({ name: z.string(), type: z.string(), base64: z.string() });

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
