import type { ProblemDetails } from '../contract';
import { Refusal } from '../core/plan';
import { Overtaken } from './commit';

/** An answer that is not success, as problem details (RFC 9457). `more` adds members of our own. */
export class Problem extends Error {
  constructor(
    readonly status: number,
    readonly title: string,
    readonly detail: string,
    readonly more: Partial<ProblemDetails> = {},
  ) {
    super(detail);
  }

  static of({ status, title, detail, ...more }: ProblemDetails): Problem {
    return new Problem(status, title, detail, more);
  }

  get details(): ProblemDetails {
    const { status, title, detail, more } = this;
    return { type: 'about:blank', title, status, detail, ...more };
  }
}

const titles: Readonly<Record<Refusal['code'], string>> = {
  'bad-input': 'Wrong input',
  missing: 'No longer there',
  changed: 'Changed meanwhile',
  'no-room': 'No room',
  'in-use': 'In use',
};

/** What the database says when it cannot be written to or reached, by the code of its error. */
const DATABASE: readonly (readonly [RegExp, string])[] = [
  [
    /^(ER_DISK_FULL|ER_RECORD_FILE_FULL|ER_ERROR_ON_WRITE)$/,
    'The disk of the database is full. What is saved can be read; free some space to save again.',
  ],
  [
    /^(ECONNREFUSED|ECONNRESET|EPIPE|ENOENT|ETIMEDOUT|PROTOCOL_CONNECTION_LOST|ER_SERVER_SHUTDOWN|ER_CON_COUNT_ERROR)$/,
    'The database does not answer. What you typed is kept and saved once it does.',
  ],
  [
    /^(ER_OPTION_PREVENTS_STATEMENT|ER_READ_ONLY_MODE|ER_OPEN_AS_READONLY)$/,
    'The database can only be read at present. What you typed is kept and saved once it can be written to.',
  ],
  [
    /^(ER_LOCK_DEADLOCK|ER_LOCK_WAIT_TIMEOUT)$/,
    'Others write to this site at the moment. What you typed is kept and saved in a moment.',
  ],
];

export function problemOf(error: unknown): Problem {
  if (error instanceof Problem) return error;
  if (error instanceof Overtaken) return new Problem(409, 'Changed meanwhile', error.message);
  if (error instanceof Refusal)
    return new Problem(error.code === 'changed' ? 409 : 422, titles[error.code], error.message, {
      code: error.code,
      path: [...error.path],
      records: [...error.records],
    });
  const { code } = Object(error) as { readonly code?: unknown };
  const known = DATABASE.find(([form]) => typeof code === 'string' && form.test(code));
  if (known) return new Problem(503, 'Database', known[1]);
  return new Problem(
    500,
    'Server error',
    'Something went wrong on the server; nothing was changed. Try again.',
  );
}

export const unknownSite = (id: string): Problem =>
  new Problem(
    404,
    'Unknown site',
    `There is no site with the id “${id.slice(0, 40)}”; it may have been deleted.`,
  );
