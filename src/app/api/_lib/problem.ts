import { Refusal } from '@/core/plan';

/** An answer that is not success, as problem details (RFC 9457). `more` adds members of our own. */
export class Problem extends Error {
  constructor(
    readonly status: number,
    readonly title: string,
    readonly detail: string,
    readonly more: Readonly<Record<string, unknown>> = {},
  ) {
    super(detail);
  }
}

const titles: Readonly<Record<Refusal['code'], string>> = {
  'bad-input': 'Wrong input',
  missing: 'No longer there',
  changed: 'Changed meanwhile',
  'no-room': 'No room',
  'in-use': 'In use',
};

export function problemOf(error: unknown): Problem {
  if (error instanceof Problem) return error;
  if (error instanceof Refusal)
    return new Problem(422, titles[error.code], error.message, {
      code: error.code,
      path: error.path,
      records: error.records,
    });
  console.error(error);
  return new Problem(
    500,
    'Server error',
    'Something went wrong on the server; nothing was changed. Try again.',
  );
}

export const problemResponse = ({ status, title, detail, more }: Problem): Response =>
  Response.json(
    { type: 'about:blank', title, status, detail, ...more },
    { status, headers: { 'content-type': 'application/problem+json', 'cache-control': 'no-store' } },
  );

export const unknownSite = (id: string): Problem =>
  new Problem(
    404,
    'Unknown site',
    `There is no site with the id “${id.slice(0, 40)}”; it may have been deleted.`,
  );
