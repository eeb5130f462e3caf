import { boxOf, type Plan, rankBetween, type Zone, routersOf, vlansOf } from '../../plan';
import {
  rulesOf,
  serviceNames,
  ruleText,
  cellOf,
  isOutside,
  passing,
  vlansOfZone,
  zoneOfVlan,
  zonesOf,
} from '../../model/policy';
import { insertRule } from '../../edit';
import type { FaultKind, Spot } from '../kind';

/** Faults in who may talk to whom. */

const since = 'since the rules were tidied up';
const kind = (id: string, level: FaultKind['level'], spots: FaultKind['spots']): FaultKind => ({
  id,
  level,
  station: 'policy',
  since,
  spots,
});
const to = (from: Zone, other: Zone) => `from ${from.name} to ${other.name}`;

/** Pairs of zones with segments on both sides, each with what passes. */
const pairs = (plan: Plan) =>
  zonesOf(plan).flatMap((from) =>
    zonesOf(plan).flatMap((other) =>
      from !== other && from.vlans.length > 0 && other.vlans.length > 0
        ? [{ from, other, passes: passing(plan, from, other), cell: cellOf(plan, from.id, other.id) }]
        : [],
    ),
  );

const ruleOff = kind('rule-off', 1, (plan) =>
  rulesOf(plan)
    .filter(({ enabled }) => enabled)
    .map((rule) => ({
      told: `This rule was switched off: ${ruleText(plan, rule)}.`,
      near: [],
      edit: (draft) => draft.update('rule', rule.id, { enabled: false }),
    })),
);

const ruleTurned = kind('rule-turned', 2, (plan) =>
  rulesOf(plan)
    .filter(({ enabled }) => enabled)
    .map((rule) => {
      const action = rule.action === 'allow' ? ('deny' as const) : ('allow' as const);
      return {
        told: `This rule was turned from ${rule.action} to ${action}: ${ruleText(plan, rule)}.`,
        near: [],
        edit: (draft) => draft.update('rule', rule.id, { action }),
      };
    }),
);

const deniedAbove = kind('denied-above', 2, (plan) =>
  pairs(plan)
    .filter(({ passes }) => passes.decision === 'allow' || passes.decision === 'services')
    .map(({ from, other }) => ({
      told: `A rule above all others denies everything ${to(from, other)}.`,
      near: [],
      edit: (draft) =>
        insertRule(draft, {
          rank: rankBetween(null, rulesOf(plan)[0]?.rank ?? null),
          from: [{ zone: from.id }],
          to: [{ zone: other.id }],
          services: [],
          action: 'deny',
        }),
    })),
);

const pairClosed = kind('pair-closed', 1, (plan) =>
  pairs(plan).flatMap(({ from, other, cell }): Spot[] =>
    cell && cell.decision !== 'deny'
      ? [
          {
            told: `${upper(to(from, other))} nothing passes any more.`,
            near: [],
            edit: (draft) => draft.update('cell', cell.id, { decision: 'deny', services: [] }),
          },
        ]
      : [],
  ),
);

const pairOpened = kind('pair-opened', 2, (plan) =>
  pairs(plan).flatMap(({ from, other, cell, passes }): Spot[] =>
    passes.decision !== 'deny'
      ? []
      : [
          {
            told: `${upper(to(from, other))} everything may pass.`,
            near: [],
            edit: (draft) => {
              if (cell) draft.update('cell', cell.id, { decision: 'allow', services: [] });
              else draft.insert('cell', { from: from.id, to: other.id, decision: 'allow', services: [] });
            },
          },
        ],
  ),
);

const serviceForgotten = kind('service-forgotten', 2, (plan) =>
  pairs(plan).flatMap(({ from, other, cell }): Spot[] =>
    cell?.decision === 'services'
      ? cell.services.map((service) => {
          const left = cell.services.filter((id) => id !== service);
          return {
            told: `${serviceNames(plan, [service])} is missing among what may pass ${to(from, other)}.`,
            near: [],
            edit: (draft) =>
              draft.update('cell', cell.id, {
                decision: left.length > 0 ? 'services' : 'deny',
                services: left,
              }),
          };
        })
      : [],
  ),
);

const servicePort = kind('service-port', 3, (plan) =>
  [...plan.service.values()].map((service) => ({
    told: `The service ${service.name} has another port than what it is used for.`,
    near: [],
    edit: (draft) =>
      draft.update('service', service.id, {
        matches: service.matches.map((match) => ({ ...match, from: match.from + 1, to: match.to + 1 })),
      }),
  })),
);

const zoneLeft = kind('zone-left', 2, (plan) =>
  vlansOf(plan).flatMap((vlan): Spot[] => {
    const zone = zoneOfVlan(plan, vlan.id);
    return zone
      ? [
          {
            told: `${vlan.name} was taken out of the zone ${zone.name} and is in none.`,
            near: [],
            edit: (draft) =>
              draft.update('zone', zone.id, { vlans: zone.vlans.filter((id) => id !== vlan.id) }),
          },
        ]
      : [];
  }),
);

const zoneOther = kind('zone-other', 3, (plan) =>
  vlansOf(plan).flatMap((vlan): Spot[] => {
    const zone = zoneOfVlan(plan, vlan.id);
    if (!zone) return [];
    return zonesOf(plan)
      .filter((other) => other !== zone && other.vlans.length > 0 && !isOutside(other))
      .slice(0, 3)
      .map((other) => ({
        told: `${vlan.name} was put into the zone ${other.name} instead of ${zone.name}.`,
        near: [],
        edit: (draft) => {
          draft.update('zone', zone.id, { vlans: zone.vlans.filter((id) => id !== vlan.id) });
          draft.update('zone', other.id, { vlans: [...other.vlans, vlan.id].sort() });
        },
      }));
  }),
);

const noInternet = kind('no-internet', 1, (plan) =>
  vlansOf(plan)
    .filter(({ id, internet }) => internet && zoneOfVlan(plan, id) !== undefined)
    .map((vlan) => ({
      told: `${vlan.name} may no longer reach the Internet.`,
      near: [],
      edit: (draft) => draft.update('vlan', vlan.id, { internet: false }),
    })),
);

const filterGone = kind('filter-gone', 3, (plan) =>
  routersOf(plan).flatMap((device): Spot[] => {
    const box = boxOf(plan, device.id);
    return box && box.filter !== 'none' && zonesOf(plan).some((zone) => vlansOfZone(plan, zone).length > 0)
      ? [
          {
            told: `${device.name} routes without a filter: everything passes between the segments.`,
            near: [],
            edit: (draft) => draft.update('box', box.id, { filter: 'none' }),
          },
        ]
      : [];
  }),
);

const upper = (text: string) => text.slice(0, 1).toUpperCase() + text.slice(1);

export const policyKinds: readonly FaultKind[] = [
  ruleOff,
  ruleTurned,
  deniedAbove,
  pairClosed,
  pairOpened,
  serviceForgotten,
  servicePort,
  zoneLeft,
  zoneOther,
  noInternet,
  filterGone,
];
