import { type Plan, siteOf } from '../plan';
import type { Choice } from './gather';

/** Other ways to build the same, where practitioners differ. */
export interface Alternative {
  readonly key: string;
  readonly title: string;
  readonly about: string;
  readonly choice: Choice;
}

const titles = {
  vlans: ['VLANs', 'groups kept apart by VLANs, what passes between them decided at the gateway'],
  flat: ['One network', 'everything in one segment behind a firewall: cheap, and nothing keeps groups apart'],
  separate: [
    'Separate equipment',
    'business, plant and visitors on boxes of their own, joined at the gateway only',
  ],
} as const;

const named = (choice: Choice): Alternative => {
  const [title, about] = titles[choice.separation];
  const ring = choice.backbone === 'ring' ? ', ring' : '';
  return {
    key: `${choice.separation} ${choice.routedBy} ${choice.backbone}`,
    title: `${title}${ring}`,
    about: `${about}${choice.backbone === 'ring' ? '; places joined in a ring, so that any one cable may fail' : ''}`,
    choice,
  };
};

/** As the habits of the site say first, then two others: other equipment, and another way to join the places. */
export function alternativesOf(plan: Plan): readonly Alternative[] {
  const { separation, routedBy, backbone, kind } = siteOf(plan);
  const own: Choice = { separation, routedBy, backbone };
  const places = plan.place.size;
  const others: Choice[] = [
    ...(places > 2 && separation !== 'flat'
      ? [{ ...own, backbone: backbone === 'star' ? ('ring' as const) : ('star' as const) }]
      : []),
    ...(kind === 'industrial' && separation !== 'separate'
      ? [{ ...own, separation: 'separate' as const }]
      : []),
    ...(separation !== 'flat' ? [{ ...own, separation: 'flat' as const, backbone: 'star' as const }] : []),
    ...(separation !== 'vlans' ? [{ ...own, separation: 'vlans' as const }] : []),
    ...(separation !== 'separate' ? [{ ...own, separation: 'separate' as const }] : []),
  ];
  const seen = new Set<string>();
  return [own, ...others]
    .map(named)
    .filter(({ key }) => !seen.has(key) && seen.add(key))
    .slice(0, 3);
}
