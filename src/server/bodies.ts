import type * as z from 'zod';
import { decoded, shownValue } from '../core/plan';
import { Problem } from './problems';

/** What is asked, read by its schema. */
export function read<S extends z.ZodType>(schema: S, value: unknown, where: string): z.output<S> {
  const result = decoded(schema, value);
  if ('value' in result) return result.value;
  const { path, message } = result.wrong;
  const place = path.length ? path.join('.') : `the ${where}`;
  throw new Problem(422, 'Wrong input', `${place}: ${message}`, { path: [...path], code: 'bad-input' });
}

/** The text of a body as JSON, read by its schema. */
export function readBody<S extends z.ZodType>(schema: S, text: string): z.output<S> {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    const start =
      text.trim() === '' ? 'It is empty' : `It begins with ${shownValue(text.trim().slice(0, 30))}`;
    throw new Problem(400, 'Not JSON', `The body is not JSON. ${start}; send an object in JSON.`);
  }
  return read(schema, value, 'body');
}
