import * as z from 'zod';
import {
  type Draft,
  operation,
  matchSchema,
  partySchema,
  type Service,
  rankBetween,
  badInput,
} from '../../plan';
import { listenersOf } from '../../model/uplink';
import { rulesOf, allServices, matchText, serviceNames, cellOf, passing } from '../../model/policy';
import { insertRule } from './operations';

/** Openings for exactly one service, as small as they can be. */

type Match = Service['matches'][number];

const exactly = (service: Service, matches: readonly Match[]): boolean =>
  service.matches.length === matches.length &&
  matches.every(({ protocol, from, to }) =>
    service.matches.some((one) => one.protocol === protocol && one.from === from && one.to === to),
  );

/** One match, or the few of a service that needs them all. */
const opening = z.union([matchSchema, z.array(matchSchema).min(1).max(4)]);
const listOf = (match: Match | readonly Match[]): readonly Match[] =>
  Array.isArray(match) ? match : [match as Match];

/** The service that is exactly this, made when there is none. */
export function serviceFor(draft: Draft, match: Match | readonly Match[]): string {
  const matches = listOf(match);
  const known = allServices(draft.plan).find((service) => exactly(service, matches));
  return (
    known?.id ??
    draft.insert('service', { name: matches.map(matchText).join(', '), matches: [...matches] }).id
  );
}

/** A rule on top of all others that lets one service through. */
export const letThrough = operation(
  'letThrough',
  z.strictObject({ from: z.array(partySchema).min(1), to: z.array(partySchema).min(1), match: opening }),
  (draft, { from, to, match }) => {
    const service = serviceFor(draft, match);
    const rank = rankBetween(null, rulesOf(draft.plan)[0]?.rank ?? null);
    insertRule(draft, { rank, from, to, services: [service], action: 'allow' });
    return `Rule on top: allow ${serviceNames(draft.plan, [service])}`;
  },
);

/** Limits a rule to what the device it leads to listens on. */
export const narrowRule = operation('narrowRule', z.strictObject({ rule: z.string() }), (draft, input) => {
  const rule = draft.need('rule', input.rule);
  const [only, second] = rule.to;
  if (!only || second || !('device' in only))
    throw badInput('The rule leads to more than one device, so it is not known what it needs.', 'rule');
  const listeners = listenersOf(draft.plan, only.device);
  if (listeners.length === 0)
    throw badInput(
      'Nobody recorded what the device listens on; list that under Internet side first.',
      'rule',
    );
  const services = listeners.flatMap(({ protocol, port }) =>
    (protocol === 'both' ? (['tcp', 'udp'] as const) : [protocol]).map((one) =>
      serviceFor(draft, { protocol: one, from: port, to: port }),
    ),
  );
  draft.update('rule', rule.id, { services: [...new Set(services)] });
  return `Rule to ${draft.need('device', only.device).name}: only ${serviceNames(draft.plan, services)}`;
});

/** Adds one service to what passes from one zone to another. */
export const letZoneThrough = operation(
  'letZoneThrough',
  z.strictObject({ from: z.string(), to: z.string(), match: opening }),
  (draft, input) => {
    const from = draft.need('zone', input.from);
    const to = draft.need('zone', input.to);
    const service = serviceFor(draft, input.match);
    const { decision, services: passed } = passing(draft.plan, from, to);
    const services = [...new Set([...(decision === 'services' ? passed : []), service])];
    const cell = cellOf(draft.plan, from.id, to.id);
    if (cell) draft.update('cell', cell.id, { decision: 'services', services });
    else draft.insert('cell', { from: from.id, to: to.id, decision: 'services', services });
    return `${from.name} to ${to.name}: also ${serviceNames(draft.plan, [service])}`;
  },
);
