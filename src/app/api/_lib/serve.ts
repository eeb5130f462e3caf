import type * as z from 'zod';
import { type AnswerOf, BODY_LIMIT, LINES, MEGABYTE, type Route } from '@/contract';
import { type Progress, idSchema } from '@/core/plan';
import { read, readBody } from '@/server/bodies';
import { Problem, problemOf, unknownSite } from '@/server/problems';
import { log } from '@/server/log';
import { inLines } from './lines';

interface Asked<R extends Route, B> {
  /** The id of the site, where the path has one; its form is checked. */
  readonly site: string;
  readonly query: R extends Route<infer Q> ? z.output<Q> : never;
  readonly body: B;
  readonly request: Request;
  /** Tells who asked how far it has come. */
  readonly hear: (progress: Progress) => void;
}
type ReadBody<R extends Route> = R extends Route<z.ZodObject, infer B> ? z.output<B> : never;

/** What a handler answers; a Response where it has the text already. */
type Answered<R extends Route> = (R['answer'] extends z.ZodType ? AnswerOf<R> : never) | Response;
type Handler<R extends Route, B> = (asked: Asked<R, B>) => Promise<Answered<R>>;
interface Context {
  /** Undefined where the path has no part that varies. */
  readonly params: Promise<{ readonly site?: string } | undefined>;
}

const NO_STORE = { 'cache-control': 'no-store' };

/** The handler of a route of the contract: reads what is asked, answers what is promised, and turns what is thrown into a problem. */
export const serve = <R extends Route>(route: R, handler: Handler<R, ReadBody<R>>) =>
  served(route, handler, (text) => readBody(route.body!, text) as ReadBody<R>);

/** The same for a body that is handed on as text, to be read in a thread: it may be large. */
export const serveUnread = <R extends Route>(route: R, handler: Handler<R, string>) =>
  served(route, handler, (text) => text);

/** An answer that is JSON already. */
export const jsonBytes = (bytes: Uint8Array<ArrayBuffer>): Response =>
  new Response(bytes, { headers: { ...NO_STORE, 'content-type': 'application/json' } });

function served<R extends Route, B>(route: R, handler: Handler<R, B>, bodyOf: (text: string) => B) {
  const answer = answering(route, handler, bodyOf);
  return (request: Request, context: Context): Promise<Response> =>
    route.long && request.headers.get('accept')?.includes(LINES)
      ? inLines((hear) => answer(request, context, hear))
      : answer(request, context, () => {});
}

const answering =
  <R extends Route, B>(route: R, handler: Handler<R, B>, bodyOf: (text: string) => B) =>
  async (request: Request, context: Context, hear: Asked<R, B>['hear']): Promise<Response> => {
    try {
      const { site = '' } = (await context.params) ?? {};
      if (route.path.includes('{site}') && !idSchema.safeParse(site).success) throw unknownSite(site);
      const query = route.query && read(route.query, queryOf(request), 'query');
      const body = route.body && bodyOf(await readText(request, route));
      const answer = await handler({ site, query, body, request, hear } as Asked<R, B>);
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

/** The body as text, counted while it streams and cut at the limit. Only JSON content types are accepted. */
async function readText(request: Request, { limit = BODY_LIMIT }: Route): Promise<string> {
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
