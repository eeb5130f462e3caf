import { badInput } from '@/core/plan';

const port = (text: string, what: string, field: string): number => {
  const value = Number(text.trim());
  if (!/^\d{1,5}$/.test(text.trim()) || value < 1 || value > 65_535)
    throw badInput(`${what} “${text.trim()}” is no port; write a number from 1 to 65535.`, field);
  return value;
};

/** Ports as typed: outside empty for the same, one number, or a range like 5000-5009 that runs on inside. */
export function typedForward(
  outside: string,
  inside: string,
): { inside: number; from?: number; count?: number } {
  const first = port(inside, 'The inside port', 'inside');
  if (outside.trim() === '') return { inside: first };
  const [start, end] = outside.split(/[-–]/);
  const from = port(start!, 'The outside port', 'from');
  if (end === undefined) return { inside: first, from };
  const to = port(end, 'The outside port', 'from');
  if (to < from) throw badInput(`“${outside.trim()}” runs backwards; write ${to}-${from}.`, 'from');
  return { inside: first, from, count: to - from + 1 };
}
