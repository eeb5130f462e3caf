import { z } from 'zod';
import { Problem, problemOf, problemResponse } from './problem';

interface Context<P> {
  params: Promise<P>;
}
type Handler<P> = (request: Request, params: P) => Promise<Response>;

/** Wraps a route handler: whatever it throws becomes problem details, never an empty 500. */
export const handle =
  <P>(handler: Handler<P>) =>
  async (request: Request, context: Context<P>): Promise<Response> => {
    try {
      return await handler(request, await context.params);
    } catch (error) {
      return problemResponse(problemOf(error));
    }
  };

export const json = (value: unknown, status = 200): Response =>
  Response.json(value, { status, headers: { 'cache-control': 'no-store' } });

export const MEGABYTE = 1024 * 1024;

/** The body as text, counted while it streams and cut at the limit. Only JSON content types are accepted. */
export async function readText(request: Request, limit: number): Promise<string> {
  const type = request.headers.get('content-type') ?? '';
  if (!/^application\/json\s*(;|$)/i.test(type))
    throw new Problem(
      415,
      'Wrong content type',
      `The content type is “${type || 'none'}”; send application/json.`,
    );
  const tooLarge = () =>
    new Problem(
      413,
      'Too large',
      `The body is larger than ${limit / MEGABYTE} MB, the most this accepts; send a smaller one.`,
    );
  if (Number(request.headers.get('content-length') ?? 0) > limit) throw tooLarge();
  const parts: Uint8Array[] = [];
  let size = 0;
  const reader = request.body?.getReader();
  for (;;) {
    const chunk = await reader?.read();
    if (!chunk || chunk.done) break;
    size += chunk.value.byteLength;
    if (size > limit) {
      await reader?.cancel();
      throw tooLarge();
    }
    parts.push(chunk.value);
  }
  return new TextDecoder().decode(Buffer.concat(parts));
}

/** The body as JSON of a shape; 400 when it is not JSON, 422 with the path when the shape is wrong. */
export async function readBody<S extends z.ZodType>(
  request: Request,
  schema: S,
  limit = MEGABYTE,
): Promise<z.output<S>> {
  const text = await readText(request, limit);
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch (error) {
    throw new Problem(400, 'Not JSON', `The body is not JSON: ${(error as Error).message}`);
  }
  return decode(schema, value);
}

export function decode<S extends z.ZodType>(schema: S, value: unknown): z.output<S> {
  const parsed = schema.safeParse(value);
  if (parsed.success) return parsed.data;
  const issue = parsed.error.issues[0]!;
  throw new Problem(422, 'Wrong shape', `${issue.path.join('.') || 'the body'}: ${issue.message}`, {
    path: issue.path,
  });
}

/** A whole number from the query, or its default; 422 when it is something else. */
export function queryNumber(request: Request, name: string, otherwise: number): number {
  const text = new URL(request.url).searchParams.get(name);
  if (text === null) return otherwise;
  if (!/^\d{1,9}$/.test(text))
    throw new Problem(422, 'Wrong query', `${name} is “${text.slice(0, 40)}”; write a whole number.`, {
      path: [name],
    });
  return Number(text);
}
