/** An answer of the server that is not success, with its problem details. */
export class ApiProblem extends Error {
  constructor(
    readonly status: number,
    readonly problem: { readonly title?: string; readonly detail?: string; readonly [more: string]: unknown },
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

async function answer(path: string, init?: RequestInit): Promise<Response> {
  let response: Response;
  try {
    response = await fetch(path, { cache: 'no-store', ...init });
  } catch {
    throw new Offline();
  }
  if (response.ok) return response;
  const problem = await response.json().catch(() => ({}));
  throw new ApiProblem(response.status, problem);
}

export const getText = async (path: string): Promise<string> => (await answer(path)).text();
export const getJson = async <T>(path: string): Promise<T> => (await answer(path)).json() as Promise<T>;

export const sendJson = async <T>(
  method: 'POST' | 'PATCH' | 'DELETE',
  path: string,
  body: unknown,
): Promise<T> => {
  const init = { method, headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) };
  return (await answer(path, init)).json() as Promise<T>;
};
