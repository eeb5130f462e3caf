import type { AnswerOf, BodyOf, ProblemDetails, QueryOf, Route } from '@/contract';
import { problem as problemSchema } from '@/contract';

/** An answer of the server that is not success, with its problem details. */
export class ApiProblem extends Error {
  constructor(
    readonly status: number,
    readonly problem: Partial<ProblemDetails>,
  ) {
    super(problem.detail ?? problem.title ?? `The server answered ${status}.`);
  }
}

/** The server could not be reached; what was sent may or may not have arrived. */
export class Offline extends Error {
  constructor() {
    super('The server cannot be reached.');
  }
}

/** Told the version of the program that answered, whenever one does. */
let hearVersion: (version: string) => void = () => {};
export const onVersion = (hear: (version: string) => void): void => {
  hearVersion = hear;
};

async function answered(path: string, init?: RequestInit): Promise<Response> {
  let response: Response;
  try {
    response = await fetch(path, { cache: 'no-store', ...init });
  } catch (error) {
    if (init?.signal?.aborted) throw error;
    throw new Offline();
  }
  const version = response.headers.get('x-dianome-version');
  if (version) hearVersion(version);
  if (response.ok) return response;
  const problem = problemSchema.partial().safeParse(await response.json().catch(() => null));
  throw new ApiProblem(response.status, problem.success ? problem.data : {});
}

type Asked<R extends Route> = {
  readonly site?: string;
  readonly query?: { readonly [K in keyof QueryOf<R>]: string | number | undefined };
  readonly body?: BodyOf<R>;
  /** Calls the request off; the server stops what it works out for it. */
  readonly signal?: AbortSignal | undefined;
};

/** The path of a route for a site, with its query. */
export function pathOf<R extends Route>(route: R, { site, query }: Asked<R> = {}): string {
  const path = route.path.replace('{site}', encodeURIComponent(site ?? ''));
  const known = Object.entries(query ?? {}).filter(([, value]) => value !== undefined);
  const text = new URLSearchParams(known.map(([name, value]) => [name, String(value)])).toString();
  return text ? `${path}?${text}` : path;
}

/** The text of an answer, for who reads it itself. */
export const askText = async <R extends Route>(route: R, asked: Asked<R> = {}): Promise<string> =>
  (await answered(pathOf(route, asked))).text();

/** Asks a route of the contract. Throws an ApiProblem, or Offline. */
export async function ask<R extends Route>(route: R, asked: Asked<R> = {}): Promise<AnswerOf<R>> {
  const { body, signal } = asked;
  const init = {
    method: route.method,
    ...(signal && { signal }),
    ...(body === undefined
      ? {}
      : { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }),
  };
  const response = await answered(pathOf(route, asked), init);
  if (!('safeParse' in route.answer)) throw new Error(`${route.path} answers with no JSON`);
  return route.answer.parse(await response.json()) as AnswerOf<R>;
}
