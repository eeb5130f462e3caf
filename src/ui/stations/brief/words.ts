import { type Need, type Place, type Plan, type Stock, type Wish, inRank } from '@/core/plan';
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

export const inOrder = <R extends { readonly rank: string; readonly id: string }>(
  records: Iterable<R>,
): R[] => [...records].sort(inRank);
export const placeOptions = (plan: Plan) => [
  { value: '', label: 'main place' },
  ...inOrder(plan.place.values()).map(({ id, name }) => ({ value: id, label: name })),
];
