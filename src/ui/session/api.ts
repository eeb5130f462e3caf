import type { AnswerOf, BodyOf, ProblemDetails, QueryOf, Route } from '@/contract';
import { LINES, line as lineSchema, problem as problemSchema, sentFile } from '@/contract';
import type { Progress } from '@/core/plan';

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
  /** Hears how far it has come, where the route may take long. */
  readonly hear?: (progress: Progress) => void;
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
  if (!('safeParse' in route.answer)) throw new Error(`${route.path} answers with no JSON`);
  return route.answer.parse(await toldBy(route, asked)) as AnswerOf<R>;
}

/** A file that takes long to make, to be saved under its name. Throws an ApiProblem, or Offline. */
export async function askFile<R extends Route>(route: R, asked: Asked<R>): Promise<File> {
  const { name, type, base64 } = sentFile.parse(await toldBy(route, asked));
  const bytes = Uint8Array.from(atob(base64), (letter) => letter.charCodeAt(0));
  return new File([bytes], name, { type });
}

async function toldBy<R extends Route>(route: R, asked: Asked<R>): Promise<unknown> {
  const { body, signal, hear } = asked;
  const init = {
    method: route.method,
    ...(signal && { signal }),
    headers: {
      ...(body !== undefined && { 'content-type': 'application/json' }),
      ...(hear && route.long && { accept: `${LINES}, application/json` }),
    },
    ...(body !== undefined && { body: JSON.stringify(body) }),
  };
  const response = await answered(pathOf(route, asked), init);
  const lines = response.headers.get('content-type') === LINES;
  return lines ? lastOf(response.body!, hear!) : response.json();
}

/** The answer at the end of lines that tell how far it has come. Throws an ApiProblem, or Offline where they break off. */
async function lastOf(
  body: ReadableStream<Uint8Array>,
  hear: (progress: Progress) => void,
): Promise<unknown> {
  const reader = body
    .pipeThrough(new TextDecoderStream() as never)
    .getReader() as ReadableStreamDefaultReader<string>;
  for (let left = ''; ;) {
    const part = await reader.read();
    if (part.done) throw new Offline();
    const lines = (left + part.value).split('\n');
    left = lines.pop()!;
    for (const text of lines) {
      const told = lineSchema.parse(JSON.parse(text));
      if ('progress' in told) hear(told.progress);
      else if ('problem' in told) throw new ApiProblem(told.problem.status, told.problem);
      else return told.answer;
    }
  }
}
