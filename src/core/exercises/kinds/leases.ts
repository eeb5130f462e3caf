import { familyOf, formatAddress, formatPrefix } from '../../address';
import { interfaceAddress, gatewaysOf, type Plan, type Pool } from '../../plan';
import type { FaultKind, Spot } from '../kind';
import { devicesIn } from '../places';

/** Faults of DHCP: pools, servers, relays. */

const kind = (
  id: string,
  level: FaultKind['level'],
  since: string,
  of: (plan: Plan, pool: Pool) => Omit<Spot, 'near'> | null,
): FaultKind => ({
  id,
  level,
  station: 'addresses',
  since,
  spots: (plan) =>
    [...plan.pool.values()].flatMap((pool) => {
      const spot = familyOf(pool.start) === 4 ? of(plan, pool) : null;
      return spot ? [{ ...spot, near: devicesIn(plan, pool.subnet).slice(0, 6) }] : [];
    }),
});

const prefixText = (plan: Plan, pool: Pool) => formatPrefix(plan.subnet.get(pool.subnet)!.prefix);

/** The pool is nothing but an address somebody has. */
const poolExhausted = kind('pool-exhausted', 1, 'since there are more people here', (plan, pool) => {
  const taken = gatewaysOf(plan, pool.subnet)[0] ?? [...plan.address.group(pool.subnet).values()][0];
  return taken
    ? {
        told: `The pool of ${prefixText(plan, pool)} begins and ends at ${formatAddress(taken.address)}, which is taken: there is nothing to lease.`,
        edit: (draft) => draft.update('pool', pool.id, { start: taken.address, end: taken.address }),
      }
    : null;
});

const poolExcluded = kind('pool-excluded', 2, 'since addresses were kept free for later', (_, pool) => ({
  told: `All of the pool ${formatAddress(pool.start)}–${formatAddress(pool.end)} is kept out of leasing.`,
  edit: (draft) => {
    draft.insert('exclusion', {
      subnet: pool.subnet,
      start: pool.start,
      end: pool.end,
      why: 'kept for later',
    });
  },
}));

const serverGone = kind('pool-without-server', 1, 'since the server was replaced', (plan, pool) =>
  pool.servedBy.length === 0
    ? null
    : {
        told: `No server is named for the pool of ${prefixText(plan, pool)}.`,
        edit: (draft) => draft.update('pool', pool.id, { servedBy: [] }),
      },
);

/** A server in another segment, to which nobody passes a discover on. */
const serverElsewhere = kind(
  'server-elsewhere',
  3,
  'since the leases come from another server',
  (plan, pool) => {
    const home = plan.subnet.get(pool.subnet)!.vlan;
    const relayed = new Set([...plan.relay.values()].flatMap(({ servers }) => servers));
    const other = [...plan.interface.values()].find((item) => {
      const { kind: what } = plan.device.get(item.device)!;
      const address = interfaceAddress(plan, item.id, 4);
      return (
        (what === 'server' || what === 'computer') &&
        address !== null &&
        plan.subnet.get(address.subnet)!.vlan !== home &&
        !relayed.has(item.id)
      );
    });
    return other
      ? {
          told: `The pool of ${prefixText(plan, pool)} is served by ${plan.device.get(other.device)!.name}, which stands in another segment, and no relay passes a discover on to it.`,
          edit: (draft) => draft.update('pool', pool.id, { servedBy: [other.id] }),
        }
      : null;
  },
);

const relayGone: FaultKind = {
  id: 'relay-gone',
  level: 2,
  station: 'segments',
  since: 'since the router was set up anew',
  spots: (plan) =>
    [...plan.relay.values()].map((relay) => {
      const item = plan.interface.get(relay.interface)!;
      const subnets = [...plan.address.values()].filter(({ interface: id }) => id === item.id);
      return {
        told: `${plan.device.get(item.device)!.name} no longer passes discovers on to the server.`,
        near: subnets.flatMap(({ subnet }) => devicesIn(plan, subnet)).slice(0, 6),
        edit: (draft) => draft.remove('relay', relay.id),
      };
    }),
};

export const leaseKinds: readonly FaultKind[] = [
  poolExhausted,
  poolExcluded,
  serverGone,
  serverElsewhere,
  relayGone,
];
