import * as z from 'zod';
import type { Given } from '../core/plan';
import { problem } from './shapes';

/**
 * What the server answers to, route by route: the handlers are made of it, the client asks by it, and the OpenAPI document is
 * written from it. Nothing about a route is said a second time.
 */

export const MEGABYTE = 1024 * 1024;
/** So large a body may be where a route does not say otherwise, in bytes. */
export const BODY_LIMIT = MEGABYTE;
/** A change may hold a plan file, which is read back however large the plan is that was written. */
export const CHANGE_LIMIT = 64 * MEGABYTE;
/** So large a plan file may be. */
export const FILE_LIMIT = 48 * MEGABYTE;
/** Its text as a string in JSON is longer by the signs that are escaped. */
export const FILE_BODY_LIMIT = 72 * MEGABYTE;

export type Method = 'GET' | 'POST' | 'PATCH' | 'DELETE';

/** A file to save, an event stream or a text instead of JSON. */
export interface Other {
  readonly type:
    | 'application/json'
    | 'text/csv'
    | 'text/plain'
    | 'text/event-stream'
    | 'image/jpeg'
    | 'application/zip'
    | 'application/pdf';
  readonly says: string;
}

/** What may come back instead of success, by status; each is a problem of RFC 9457. */
export type Problems = Readonly<Partial<Record<404 | 409 | 422 | 503, string>>>;

export interface Route<
  Q extends z.ZodObject = z.ZodObject,
  B extends z.ZodType = z.ZodType,
  A extends z.ZodType | Other = z.ZodType | Other,
> {
  readonly method: Method;
  /** With {site} where the id of a site stands. */
  readonly path: `/api/${string}`;
  readonly says: string;
  readonly query?: Q;
  readonly body?: B;
  /** The most bytes of a body. */
  readonly limit?: number;
  readonly answer: A;
  /** The status of success: 200 unless it is said. */
  readonly status?: 201;
  readonly problems: Problems;
  /** It may take long: who accepts lines of JSON is told on the way how far it has come. */
  readonly long?: true;
}

/** Accepted and answered where progress is told: a line of JSON for each, the last one with the answer or the problem. */
export const LINES = 'application/x-ndjson';
/** How many parts of a job are done, of how many at most; then what it comes to. */
export const line = z.union([
  z.object({ progress: z.object({ done: z.int(), of: z.int() }) }),
  z.object({ answer: z.unknown() }),
  z.object({ problem }),
]);
export type Line = z.input<typeof line>;

export const route = <Q extends z.ZodObject, B extends z.ZodType, A extends z.ZodType | Other>(
  definition: Route<Q, B, A>,
): Route<Q, B, A> => definition;

export type QueryOf<R extends Route> = R extends Route<infer Q> ? z.input<Q> : never;
export type BodyOf<R extends Route> = R extends Route<z.ZodObject, infer B> ? Given<z.input<B>> : never;
export type AnswerOf<R extends Route> =
  R extends Route<z.ZodObject, z.ZodType, infer A>
    ? A extends z.ZodType
      ? Given<z.output<A>>
      : string
    : never;

export const noSite = 'There is no such site.';
export const siteGone: Problems = { 404: noSite };
