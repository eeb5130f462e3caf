import type { Need, Place, Plan, Stock, Wish } from '@/core/plan';
import { purposeDefaults } from '@/core/model/segments';

/** What the lists of a brief call things. */

export const placeWords: Readonly<Record<Place['sort'], string>> = {
  main: 'main place',
  'same-building': 'same building',
  'other-building': 'another building',
};
export const powerWords: Readonly<Record<Need['power'], string>> = {
  usual: 'as usual',
  yes: 'yes',
  no: 'no',
};
export const stockWords: Readonly<Record<Stock['sort'], string>> = {
  gateway: 'gateway',
  switch: 'switch',
  'access-point': 'access point',
};
export const endWord = (end: Wish['from']): string =>
  end === 'internet'
    ? 'the Internet'
    : end === 'remote'
      ? 'remote help'
      : purposeDefaults[end].label.replace(/^./, (letter) => letter.toLowerCase());
export const decisionWords: Readonly<Record<Wish['decision'], string>> = { allow: 'may', deny: 'may not' };

const inRank = <R extends { readonly rank: string }>(a: R, b: R): number =>
  a.rank < b.rank ? -1 : a.rank > b.rank ? 1 : 0;
export const inOrder = <R extends { readonly rank: string }>(records: Iterable<R>): R[] =>
  [...records].sort(inRank);
export const placeOptions = (plan: Plan) => [
  { value: '', label: 'main place' },
  ...inOrder(plan.place.values()).map(({ id, name }) => ({ value: id, label: name })),
];
