import { derive, portTitle } from '../../../plan';
import { actingPort, portGuardsOf } from '../../../model/guards';
import { neededNow, wantedTrust } from '../../../rehearse';
import { onPort } from '../refs';
import { guardCheck, guarding, holding, portCheck } from './shared';

/** Whether ports are trusted where they have to be, and nowhere else. */

const kinds = [
  {
    as: 'dhcp',
    field: 'trustsDhcp',
    said: 'answers of DHCP servers',
    lost: 'who is behind it gets no address',
    risk: 'whoever plugs a server of their own in there is believed',
  },
  {
    as: 'arp',
    field: 'trustsArp',
    said: 'ARP',
    lost: 'everybody who comes from there needs a binding here as well, though the box there has looked at them',
    risk: 'whoever is plugged in there may answer for any address',
  },
  {
    as: 'routers',
    field: 'trustsRouters',
    said: 'router advertisements',
    lost: 'who is behind it has no gateway over IPv6',
    risk: 'whoever is plugged in there may pass for the router',
  },
] as const;

const untrusted = guardCheck('way-not-trusted', function* (plan) {
  for (const device of guarding(plan)) {
    const [wanted, now] = [wantedTrust(plan, device), neededNow(plan, device)];
    for (const port of new Set(kinds.flatMap(({ as }) => [...wanted[as]]))) {
      // A bundle is one port.
      if (actingPort(plan, port) !== port) continue;
      const held = portGuardsOf(plan, port);
      const missing = kinds.filter(({ as, field }) => wanted[as].has(port) && !held[field]);
      if (missing.length === 0) continue;
      const needed = missing.some(({ as }) => as !== 'arp' && now[as].has(port));
      const title = portTitle(plan, plan.port.get(port)!);
      const after =
        needed || missing.every(({ as }) => as === 'arp') ? '' : 'After a failure they come this way: ';
      yield {
        severity: needed ? 'stop' : 'fix',
        on: onPort(port),
        what: `${title} is not trusted for ${missing.map(({ said }) => said).join(', ')}`,
        because: `${after}${missing.map(({ lost }) => lost).join('; ')}.`,
        remedies: [
          holding(`Trust ${title}`, port, Object.fromEntries(missing.map(({ field }) => [field, true]))),
        ],
      };
    }
  }
});

/** What nothing is recorded of is trusted for nothing. */
const actingIds = derive(
  (plan): ReadonlySet<string> =>
    new Set([...plan.portGuard.values()].map(({ port }) => actingPort(plan, port))),
);
const needless = portCheck('trust-needless', actingIds, (plan, port) => {
  if (plan.vlanGuard.group(port.device).size === 0) return null;
  const [held, wanted] = [portGuardsOf(plan, port.id), wantedTrust(plan, port.device)];
  const wrong = kinds.filter(({ as, field }) => held[field] && !wanted[as].has(port.id));
  if (wrong.length === 0) return null;
  // Who is not bound lives by the trust; ending it is no mend then.
  const title = portTitle(plan, port);
  const remedies = wrong.every(({ as }) => as === 'dhcp')
    ? [holding(`Trust ${title} no longer`, port.id, { trustsDhcp: false })]
    : [];
  return {
    severity: 'fix',
    on: onPort(port.id),
    what: `${title} is trusted for ${wrong.map(({ said }) => said).join(', ')} without need`,
    because: `Nobody who is meant to speak comes in there: ${wrong.map(({ risk }) => risk).join('; ')}.`,
    remedies,
  };
});

export const trustChecks = [untrusted, needless];
