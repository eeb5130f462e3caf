import * as z from 'zod';
import { type ExerciseReport, type ExerciseView, levels, mostFaults } from '../core/exercises';
import { noSite, route, siteGone } from './route';
import { authorSchema, madeSite, revisionSchema } from './shapes';

const telling = z.object({ by: z.string(), now: z.string(), meant: z.string() });
const report = z.object({
  points: z.number(),
  of: z.number(),
  faults: z.array(
    z.object({
      complaint: z.string(),
      told: z.string(),
      mended: z.enum(['back', 'otherwise', 'no']),
      hints: z.int(),
      points: z.number(),
      tellings: z.array(telling),
      findings: z.array(z.string()),
    }),
  ),
  harm: z.array(telling),
  left: z.array(z.string()),
}) satisfies z.ZodType<ExerciseReport>;

const kept = {
  original: z.object({ id: z.string(), name: z.string(), revision: revisionSchema }),
  seed: z.int(),
  level: z.literal(levels),
  learner: z.string(),
  startedAt: z.string(),
  endedAt: z.string().nullable(),
  report: report.nullable(),
};
const view = z.object({
  ...kept,
  complaints: z.array(
    z.object({
      text: z.string(),
      stands: z.boolean(),
      hints: z.array(z.string()),
      nextCost: z.number().nullable(),
    }),
  ),
  points: z.number(),
  of: z.number(),
}) satisfies z.ZodType<ExerciseView>;
const shown = z.object({ exercise: view });

const typed = z.string().max(200);
const said = z.object({
  delivered: z.boolean(),
  summary: z.string(),
  forth: z.array(z.unknown()),
  back: z.array(z.unknown()).nullable(),
});
const titles = z.array(z.string());
const asked = z.object({ question: z.string(), before: z.string(), after: z.string() });

export const rehearsal = {
  exercises: route({
    method: 'GET',
    path: '/api/sites/{site}/exercises',
    says: 'The exercises made of a site, newest first, without their faults.',
    answer: z.object({
      exercises: z.array(z.object({ site: z.string(), hints: z.array(z.int()), ...kept })),
    }),
    problems: siteGone,
  }),
  setExercise: route({
    method: 'POST',
    path: '/api/sites/{site}/exercises',
    says: 'Sets an exercise: a copy of the site with faults in it, as a site of its own.',
    long: true,
    body: z.strictObject({
      seed: z.int().min(1).max(999_999),
      level: z.literal(levels),
      count: z.int().min(1).max(mostFaults),
      learner: authorSchema,
    }),
    answer: madeSite,
    status: 201,
    problems: { ...siteGone, 422: 'No such faults fit this plan.', 503: 'It took longer than the limit.' },
  }),
  exercise: route({
    method: 'GET',
    path: '/api/sites/{site}/exercise',
    says: 'The exercise this site is, as far as its solver may see it; null for a site that is none.',
    answer: z.object({ exercise: view.nullable() }),
    problems: siteGone,
  }),
  takeHint: route({
    method: 'POST',
    path: '/api/sites/{site}/exercise/hints',
    says: 'Takes the next hint of a complaint, counted from 0; it costs points.',
    body: z.strictObject({ fault: z.int().min(0) }),
    answer: shown,
    problems: {
      404: 'There is no such site, or it is no exercise.',
      409: 'It was handed in, or another hint was taken.',
    },
  }),
  handIn: route({
    method: 'POST',
    path: '/api/sites/{site}/exercise/report',
    says: 'Hands the exercise in as the plan is now, and judges it.',
    long: true,
    body: z.strictObject({ revision: revisionSchema }),
    answer: shown,
    problems: {
      404: noSite,
      409: 'The plan was changed, or it was handed in before.',
      503: 'It took longer than the limit.',
    },
  }),
  rehearse: route({
    method: 'POST',
    path: '/api/sites/{site}/rehearse',
    says: 'The rehearsal without a browser: the same core, asked in the words that are typed on the page.',
    long: true,
    body: z.union([
      z.strictObject({ ask: z.strictObject({ from: typed, to: typed, service: typed }) }),
      z.strictObject({ questions: z.literal(true) }),
      z.strictObject({
        faults: z
          .array(
            z.strictObject({
              kind: z.enum(['cable', 'box', 'uplink', 'taken', 'plug']),
              what: typed,
              to: typed.default(''),
            }),
          )
          .min(1)
          .max(50),
      }),
      z.strictObject({ singleFaults: z.literal(true) }),
    ]),
    answer: z.object({
      revision: revisionSchema,
      answer: said.optional(),
      questions: z
        .array(said.extend({ question: z.string(), expected: z.string(), asExpected: z.boolean() }))
        .optional(),
      impact: z
        .object({
          faults: titles,
          cutOff: titles,
          joined: titles,
          rerouted: titles,
          answers: z.array(asked),
          lost: z.array(z.unknown()),
          roots: z.array(z.unknown()),
          intruders: z.array(z.unknown()),
          networks: z.array(z.object({ name: z.string(), lostAt: titles, everywhere: z.boolean() })),
        })
        .optional(),
      ranked: z.array(z.looseObject({ fault: z.string() })).optional(),
    }),
    problems: {
      ...siteGone,
      422: 'There is no such end, service or fault.',
      503: 'It took longer than the limit.',
    },
  }),
};
