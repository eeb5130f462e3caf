import { customAlphabet } from 'nanoid';
import { unknownSite } from '@/server/problems';

export const newId = customAlphabet('0123456789abcdefghijklmnopqrstuvwxyz', 12);
export const now = (): string => new Date().toISOString();

/** What a function of the database found; a problem where that is nothing. */
export function found<T>(site: string, value: T | null): T {
  if (value === null) throw unknownSite(site);
  return value;
}
