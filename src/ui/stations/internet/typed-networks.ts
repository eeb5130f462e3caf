import { formatPrefix, parsePrefix } from '@/core/address';
import { badInput } from '@/core/plan';

/** Networks as typed, with commas; host bits are cleared. */
export const networks = (text: string): string[] =>
  text
    .split(',')
    .map((part) => part.trim())
    .filter(Boolean)
    .map((part) => {
      const parsed = parsePrefix(part);
      if (!parsed) throw badInput(`“${part}” is no network; write one like 10.60.0.0/16.`, 'remote');
      return formatPrefix(parsed.prefix);
    });
/** One network as typed. */
export const oneNetwork = (text: string, field: string): string => {
  const [first, second] = networks(text);
  if (!first || second) throw badInput(`Write one network like 10.60.0.0/16 instead of “${text}”.`, field);
  return first;
};
