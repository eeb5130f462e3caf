import { formatPrefix, parseNetwork } from '@/core/address';
import { requireWritten } from '@/core/model/policy';
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
  const [start, end, ...more] = outside.split(/[-–]/);
  if (more.length > 0) throw badInput(`“${outside.trim()}” is no range; write one like 5000-5009.`, 'from');
  const from = port(start!, 'The outside port', 'from');
  if (end === undefined) return { inside: first, from };
  const to = port(end, 'The outside port', 'from');
  if (to < from) throw badInput(`“${outside.trim()}” runs backwards; write ${to}-${from}.`, 'from');
  return { inside: first, from, count: to - from + 1 };
}

const asPrefix = (text: string): string => {
  const network = parseNetwork(text);
  return network ? formatPrefix(network) : text;
};

/** Who may come in, as typed: addresses and subnets, or `anybody` alone. */
export function typedSources(text: string): string[] {
  requireWritten(text, 'anybody', 'sources');
  const list = text.split(/[,\s]+/).filter(Boolean);
  const others = list.filter((part) => !/^anybody$/i.test(part));
  if (others.length > 0 && others.length < list.length)
    throw badInput(`Anybody is everybody; leave out ${others.join(', ')}, or leave out anybody.`, 'sources');
  return others.map(asPrefix);
}
