import type { z } from 'zod';
import { type AnswerOf, BODY_LIMIT, LINES, MEGABYTE, type Route } from '@/contract';
import { type Progress, decoded, idSchema, shownValue } from '@/core/plan';
import { Problem, problemOf, unknownSite } from '@/server/problems';
import { log } from '@/server/log';
import { inLines } from './lines';

interface Asked<R extends Route> {
  /** The id of the site, where the path has one; its form is checked. */
  readonly site: string;
  readonly query: R extends Route<infer Q> ? z.output<Q> : never;
  readonly body: R extends Route<z.ZodObject, infer B> ? z.output<B> : never;
  readonly request: Request;
  /** Tells who asked how far it has come. */
  readonly hear: (progress: Progress) => void;
}

/** What a handler answers; a Response where it has the text already. */
type Answered<R extends Route> = (R['answer'] extends z.ZodType ? AnswerOf<R> : never) | Response;
interface Context {
  /** Undefined where the path has no part that varies. */
  readonly params: Promise<{ readonly site?: string } | undefined>;
}

const NO_STORE = { 'cache-control': 'no-store' };

/** The handler of a route of the contract: reads what is asked, answers what is promised, and turns what is thrown into a problem. */
export function serve<R extends Route>(route: R, handler: (asked: Asked<R>) => Promise<Answered<R>>) {
  const answer = answering(route, handler);
  return (request: Request, context: Context): Promise<Response> =>
    route.long && request.headers.get('accept')?.includes(LINES)
      ? inLines((hear) => answer(request, context, hear))
      : answer(request, context, () => {});
}

const answering =
  <R extends Route>(route: R, handler: (asked: Asked<R>) => Promise<Answered<R>>) =>
  async (request: Request, context: Context, hear: Asked<R>['hear']): Promise<Response> => {
    try {
      const { site = '' } = (await context.params) ?? {};
      if (route.path.includes('{site}') && !idSchema.safeParse(site).success) throw unknownSite(site);
      const query = route.query && read(route.query, queryOf(request), 'query');
      const body = route.body && (await readBody(request, route));
      const answer = await handler({ site, query, body, request, hear } as Asked<R>);
      if (answer instanceof Response) return answer;
      return Response.json(answer, { status: route.status ?? 200, headers: NO_STORE });
    } catch (error) {
      const problem = problemOf(error);
      if (problem.status >= 500) log('error', { at: route.path, error });
      return Response.json(problem.details, {
        status: problem.status,
        headers: { ...NO_STORE, 'content-type': 'application/problem+json' },
      });
    }
  };

const queryOf = (request: Request): Record<string, string> =>
  Object.fromEntries(new URL(request.url).searchParams);

function read<S extends z.ZodType>(schema: S, value: unknown, where: string): z.output<S> {
  const result = decoded(schema, value);
  if ('value' in result) return result.value;
  const { path, message } = result.wrong;
  const place = path.length ? path.join('.') : `the ${where}`;
  throw new Problem(422, 'Wrong input', `${place}: ${message}`, { path: [...path], code: 'bad-input' });
}

async function readBody(request: Request, route: Route): Promise<unknown> {
  const text = await readText(request, route.limit ?? BODY_LIMIT);
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    const start =
      text.trim() === '' ? 'It is empty' : `It begins with ${shownValue(text.trim().slice(0, 30))}`;
    throw new Problem(400, 'Not JSON', `The body is not JSON. ${start}; send an object in JSON.`);
  }
  return read(route.body!, value, 'body');
}

/** The body as text, counted while it streams and cut at the limit. Only JSON content types are accepted. */
async function readText(request: Request, limit: number): Promise<string> {
  const type = request.headers.get('content-type') ?? '';
  if (!/^application\/json\s*(;|$)/i.test(type))
    throw new Problem(
      415,
      'Wrong content type',
      `The content type is “${type.slice(0, 60) || 'none'}”; send application/json.`,
    );
  const tooLarge = (size: number) =>
    new Problem(
      413,
      'Too large',
      `The body has ${Math.ceil(size / MEGABYTE)} MB; at most ${limit / MEGABYTE} MB are read here. Send a smaller one.`,
    );
  const announced = Number(request.headers.get('content-length') ?? 0);
  if (announced > limit) throw tooLarge(announced);
  const parts: Uint8Array[] = [];
  let size = 0;
  const reader = request.body?.getReader();
  for (;;) {
    const chunk = await reader?.read();
    if (!chunk || chunk.done) break;
    size += chunk.value.byteLength;
    if (size > limit) {
      await reader?.cancel();
      throw tooLarge(size);
    }
    parts.push(chunk.value);
  }
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(Buffer.concat(parts));
  } catch {
    throw new Problem(400, 'Not UTF-8', 'The body is not UTF-8 text; send JSON in UTF-8.');
  }
}
