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

/** What one is like, beside one of the same kind that was told before. */
function named(choice: Choice, base: Choice | null): Alternative {
  const { separation, routedBy, backbone } = choice;
  const [title, about] = titles[separation];
  const layer3 = routedBy === 'layer3-switch' && separation === 'vlans';
  const own = [
    ...(layer3 ? ['staff, servers and telephones routed by a switch that filters nothing'] : []),
    ...(backbone === 'ring' ? ['places joined in a ring, so that any one cable may fail'] : []),
  ];
  const isLikeBase = base?.separation === separation && own.length > 0;
  return {
    key: `${separation} ${routedBy} ${backbone}`,
    title: [title, ...(layer3 ? ['layer 3'] : []), ...(backbone === 'ring' ? ['ring'] : [])].join(', '),
    about: [isLikeBase ? 'the same' : about, ...own].join('; '),
    choice,
  };
}

/** Columns that are read side by side. */
const MOST = 4;

/** As the habits of the site say first, then others: another way to join the places, other equipment, another router. */
export function alternativesOf(plan: Plan): readonly Alternative[] {
  const { separation, routedBy, backbone, kind } = siteOf(plan);
  const own: Choice = { separation, routedBy, backbone };
  const places = plan.place.size;
  const others: Choice[] = [
    ...(places > 2 && separation !== 'flat'
      ? [{ ...own, backbone: backbone === 'star' ? ('ring' as const) : ('star' as const) }]
      : []),
    ...(kind === 'office' && separation === 'vlans'
      ? [{ ...own, routedBy: routedBy === 'gateway' ? ('layer3-switch' as const) : ('gateway' as const) }]
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
    .map((choice, i) => named(choice, i === 0 ? null : own))
    .filter(({ key }) => !seen.has(key) && seen.add(key))
    .slice(0, MOST);
}
