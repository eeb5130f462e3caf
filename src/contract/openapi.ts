import * as z from 'zod';
import { BODY_LIMIT, LINES, MEGABYTE, type Other, type Route, line, problem } from '.';
import { allRoutes } from './all-routes';

/** The contract as an OpenAPI 3.1 document. */

const schemaOf = (schema: z.ZodType, io: 'input' | 'output'): unknown => {
  const { $schema: _schema, ...rest } = z.toJSONSchema(schema, { io, unrepresentable: 'any' });
  return rest;
};
const lineSchema = schemaOf(line, 'input') as object;
const isOther = (answer: z.ZodType | Other): answer is Other => !('safeParse' in answer);

/** What any route may answer besides its own problems. */
const ANYWHERE: Readonly<Record<number, string>> = {
  403: 'The request comes from another page, or the server is called by a name that is not its own.',
};
const WITH_INPUT: Readonly<Record<number, string>> = {
  400: 'The body is not JSON in UTF-8.',
  413: 'The body is larger than this accepts.',
  415: 'The content type is not application/json.',
  422: 'A field has a wrong value; the detail names field, value and remedy.',
};

const refusals = (list: Readonly<Record<string, string>>) =>
  Object.fromEntries(
    Object.entries(list).map(([status, description]) => [
      status,
      {
        description,
        content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } },
      },
    ]),
  );

function answerOf(route: Route) {
  const { answer } = route;
  const lines = route.long && {
    [LINES]: { schema: { description: 'Where it is accepted: a line for each.', ...lineSchema } },
  };
  if (isOther(answer))
    return {
      description: answer.says,
      content: { [answer.type]: { schema: { type: 'string' } }, ...lines },
    };
  return {
    description: 'As asked.',
    content: { 'application/json': { schema: schemaOf(answer, 'input') }, ...lines },
  };
}

function parametersOf(route: Route) {
  const site = {
    name: 'site',
    in: 'path',
    required: true,
    schema: { type: 'string', pattern: '^[a-z0-9]{1,32}$' },
  };
  const query = Object.entries(route.query?.shape ?? {}).map(([name, schema]) => ({
    name,
    in: 'query',
    required: !(schema as z.ZodType).safeParse(undefined).success,
    schema: schemaOf(schema as z.ZodType, 'input'),
  }));
  return [...(route.path.includes('{site}') ? [site] : []), ...query];
}

function operationOf(route: Route) {
  const { body, limit = BODY_LIMIT } = route;
  const problems = {
    ...ANYWHERE,
    ...(body || route.query ? { 422: WITH_INPUT[422]! } : {}),
    ...(body ? WITH_INPUT : {}),
    ...route.problems,
  };
  return {
    summary: route.says,
    parameters: parametersOf(route),
    ...(body
      ? {
          requestBody: {
            required: true,
            description: `At most ${limit / MEGABYTE} MB.`,
            content: { 'application/json': { schema: schemaOf(body, 'input') } },
          },
        }
      : {}),
    responses: { [route.status ?? 200]: answerOf(route), ...refusals(problems) },
  };
}

export function openApi() {
  const paths: Record<string, Record<string, unknown>> = {};
  for (const route of allRoutes) (paths[route.path] ??= {})[route.method.toLowerCase()] = operationOf(route);
  return {
    openapi: '3.1.0',
    info: {
      title: 'Dianome',
      version: '1',
      description:
        'What the web application of a network plan answers to. Every change is an operation with its input; the server runs it on the newest plan.',
    },
    paths,
    components: { schemas: { Problem: schemaOf(problem, 'input') } },
  };
}
