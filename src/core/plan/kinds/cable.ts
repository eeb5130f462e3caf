import { note, oneOf, ref, whole } from './fields';
import { type Looked, kind } from './kind';
import { titleOfPort } from './port';

export const cableMedia = ['copper', 'multi-mode', 'single-mode', 'direct-attach'] as const;
export const cableSides = ['front', 'rear'] as const;

const end = (plan: Looked, id: string): string => {
  const port = plan.port!.get(id) as Parameters<typeof titleOfPort>[1] | undefined;
  return port ? titleOfPort(plan, port) : 'a port';
};

/** A cable between two ports. On panels and outlets the side says whether it ends in front or behind. */
export const cable = kind({
  word: 'cable',
  about: 'two ends, each a port and on panels a side; medium, length in metres, label',
  since: 2,
  table: 'cable',
  bucket: 'spread',
  indexes: { end: ({ from, fromSide, to, toSide }) => [`${from} ${fromSide}`, `${to} ${toSide}`] },
  fields: {
    from: ref('port', 'removed', 'from'),
    fromSide: oneOf('side', cableSides),
    to: ref('port', 'removed', 'to'),
    toSide: oneOf('side at the other end', cableSides),
    media: oneOf('media', cableMedia),
    /** Null when not measured. */
    length: whole('length', 0, 100_000, {
      said: 'The length in metres',
      unit: 'm',
      column: 'length_m',
    }).nullable(),
    label: note('label', 60),
  },
  title: ({ from, to }, plan) => `cable ${end(plan, from)} = ${end(plan, to)}`,
});
