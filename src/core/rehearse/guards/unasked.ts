import { type Access, type Plan, type Port, deriveBy } from '../../plan';
import { accessAt, knownBy, serversFor } from '../../model/guards';
import { linksAt } from '../../model/wiring';
import { networksAt } from '../../model/wireless';
import { isEdge } from './behind';

/** A port that must not ask who is there: why, and what keeps strangers out there instead. */
export interface Unasked {
  readonly port: Port;
  readonly kind: 'box' | 'networks' | 'mute' | 'server';
  readonly why: string;
  readonly instead: string;
}

/** Why a port must not ask; null where it may. A way in tells which servers it would ask. */
export function unasked(
  plan: Plan,
  port: Port,
  access: Access | null = accessAt(plan, port.id),
): Unasked | null {
  const there = linksAt(plan, port).map(({ to }) => plan.device.get(plan.port.get(to)!.device)!);
  const [first] = there;
  if (!first) return null;
  if (!isEdge(plan, port)) {
    const networks = networksAt(plan, first.id).length;
    return networks > 1
      ? {
          port,
          kind: 'networks',
          why: `${first.name} brings people of ${networks} networks`,
          instead: 'it asks them itself (WPA enterprise), and its port is guarded by place and trust',
        }
      : {
          port,
          kind: 'box',
          why: `${first.name} passes on what others say`,
          instead: 'root guard, and the room locked',
        };
  }
  const servers = new Set(
    (access ? serversFor(plan, access) : [...plan.radius.values()]).map(
      ({ address }) => plan.interface.get(plan.address.get(address)!.interface)!.device,
    ),
  );
  const server = there.find(({ id }) => servers.has(id));
  if (server)
    return {
      port,
      kind: 'server',
      why: `${server.name} would be asked about itself`,
      instead: 'a MAC limit of one, and the room locked',
    };
  const mute = there.find(({ id }) => knownBy(plan, id) === 'neither');
  return mute
    ? {
        port,
        kind: 'mute',
        why: `${mute.name} never speaks first, or cannot wait`,
        instead: 'a MAC limit of one, and a segment of its own',
      }
    : null;
}

/** Why a port must not ask as it is recorded to. */
export const unaskedAt = deriveBy((plan, port: string): Unasked | null =>
  unasked(plan, plan.port.get(port)!),
);
