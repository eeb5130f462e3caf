import { familyOf, formatAddress, formatPrefix } from '../../address';
import { type Plan, type Forward, interfaceAddress, portsText } from '../../plan';
import type { FaultKind, Spot } from '../kind';
import { endDevices, freeIn } from '../places';

/** Faults of the Internet side, and of ways beyond the site. */

const kind = (
  id: string,
  level: FaultKind['level'],
  since: string,
  spots: FaultKind['spots'],
): FaultKind => ({
  id,
  level,
  station: 'internet',
  since,
  spots,
});

const uplinkOff = kind('uplink-off', 1, 'since the provider was here', (plan) =>
  [...plan.uplink.values()]
    .filter(({ enabled }) => enabled)
    .map((uplink) => ({
      told: `The uplink ${uplink.name} was switched off.`,
      near: [],
      edit: (draft) => draft.update('uplink', uplink.id, { enabled: false }),
    })),
);

const upstreamCloses = kind('upstream-closes', 3, 'since the provider’s box was replaced', (plan) =>
  [...plan.uplink.values()]
    .filter(({ noForwards }) => !noForwards)
    .map((uplink) => ({
      told: `On ${uplink.name} nothing is let in any more, so none of its forwards can work.`,
      near: [],
      edit: (draft) => draft.update('uplink', uplink.id, { noForwards: true }),
    })),
);

const forwards = (plan: Plan): { forward: Forward; name: string; device: string }[] =>
  [...plan.forward.values()]
    .filter(({ enabled }) => enabled)
    .map((forward) => {
      const { device } = plan.interface.get(forward.target)!;
      return {
        forward,
        device,
        name: `${portsText(forward.protocol, forward.from, forward.to)} to ${plan.device.get(device)!.name}`,
      };
    });
const sinceForwards = 'since the gateway was set up anew';

const forwardOff = kind('forward-off', 1, sinceForwards, (plan) =>
  forwards(plan).map(({ forward, name, device }) => ({
    told: `The forward ${name} was switched off.`,
    near: [device],
    edit: (draft) => draft.update('forward', forward.id, { enabled: false }),
  })),
);

const forwardPort = kind('forward-port', 2, sinceForwards, (plan) =>
  forwards(plan).map(({ forward, name, device }) => ({
    told: `The forward ${name} leads to the port ${forward.inside - 1} inside instead of ${forward.inside}.`,
    near: [device],
    edit: (draft) => draft.update('forward', forward.id, { inside: forward.inside - 1 }),
  })),
);

const forwardTarget = kind('forward-target', 2, sinceForwards, (plan) =>
  forwards(plan).flatMap(({ forward, name, device }): Spot[] => {
    const other = endDevices(plan).find(
      (placed) => placed.device.id !== device && familyOf(placed.address.address) === 4,
    );
    return other
      ? [
          {
            told: `The forward ${name} was led to ${other.device.name}.`,
            near: [device],
            edit: (draft) => draft.update('forward', forward.id, { target: other.address.interface }),
          },
        ]
      : [];
  }),
);

const routeGone = kind('route-gone', 2, 'since the router was set up anew', (plan) =>
  [...plan.route.values()].map((route) => ({
    told: `${plan.device.get(route.device)!.name} has lost its route to ${formatPrefix(route.prefix)}.`,
    near: [],
    edit: (draft) => draft.remove('route', route.id),
  })),
);

const routeAstray = kind('route-astray', 2, 'since the router was set up anew', (plan) =>
  [...plan.route.values()].flatMap((route): Spot[] => {
    const leg = [...plan.interface.values()]
      .filter(({ device }) => device === route.device)
      .map((item) => interfaceAddress(plan, item.id, 4))
      .find((address) => address !== null);
    const subnet = leg && plan.subnet.get(leg.subnet)!;
    const free = subnet && freeIn(plan, subnet);
    return free === null || free === undefined
      ? []
      : [
          {
            told: `The route of ${plan.device.get(route.device)!.name} to ${formatPrefix(route.prefix)} leads to ${formatAddress(free)}, where no router is.`,
            near: [],
            edit: (draft) => draft.update('route', route.id, { via: free }),
          },
        ];
  }),
);

const tunnelOff = kind('tunnel-off', 1, 'since the keys were changed', (plan) =>
  [...plan.tunnel.values()]
    .filter(({ enabled }) => enabled)
    .map((tunnel) => ({
      told: `The tunnel ${tunnel.name} was switched off.`,
      near: [],
      edit: (draft) => draft.update('tunnel', tunnel.id, { enabled: false }),
    })),
);

const tunnelShort = kind('tunnel-network', 2, 'since the other end was changed', (plan) =>
  [...plan.tunnel.values()].flatMap((tunnel) =>
    tunnel.remote.map((prefix) => ({
      told: `The tunnel ${tunnel.name} no longer leads to ${formatPrefix(prefix)}.`,
      near: [],
      edit: (draft) =>
        draft.update('tunnel', tunnel.id, { remote: tunnel.remote.filter((other) => other !== prefix) }),
    })),
  ),
);

export const internetKinds: readonly FaultKind[] = [
  uplinkOff,
  upstreamCloses,
  forwardOff,
  forwardPort,
  forwardTarget,
  routeGone,
  routeAstray,
  tunnelOff,
  tunnelShort,
];
