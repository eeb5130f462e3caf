import { hardenable, radiusOf } from '../../model/guards';
import { ssidsOf } from '../../model/wireless';
import { type Plan, boxOf, recordTitle } from '../../plan';
import { column, table, text } from '../blocks';
import type { ChapterKind } from '../chapter';

/** Where logins, keys and shared secrets are kept, and since when they are. None of them is in the plan, so none is here. */

const isOpen: ReadonlySet<string> = new Set(['open', 'owe']);
const orUnknown = (words: string): string => words || 'not recorded';

function rows(plan: Plan): string[][] {
  return [
    ...hardenable(plan).map(({ id, name }) => {
      const { loginChanged = null, loginKept = '' } = boxOf(plan, id) ?? {};
      return [`login of ${name}`, loginChanged ?? 'not changed', orUnknown(loginKept)];
    }),
    ...ssidsOf(plan)
      .filter(({ security }) => !isOpen.has(security) && !security.endsWith('enterprise'))
      .map(({ name, keySet, keyKept }) => [`key of “${name}”`, keySet ?? 'not set', orUnknown(keyKept)]),
    ...radiusOf(plan).map((server) => [
      `secret of ${recordTitle(plan, 'radius', server)}`,
      server.secretSet ?? 'not set',
      orUnknown(server.secretKept),
    ]),
    ...[...plan.tunnel.values()].map(({ name }) => [
      `keys of tunnel ${name}`,
      '',
      'with whoever runs both ends',
    ]),
  ];
}

export const secrets: ChapterKind = {
  id: 'secrets',
  title: 'Where secrets are kept',
  write: ({ plan }) => {
    const kept = table(
      'Where secrets are kept',
      [column('What', 2), column('Changed', 1), column('Kept', 2)],
      rows(plan),
    );
    return kept.length === 0
      ? []
      : [text('No password, key or PIN is written in this book or in the plan it is made from.'), ...kept];
  },
};
