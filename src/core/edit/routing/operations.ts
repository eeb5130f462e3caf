import * as z from 'zod';
import { formatAddress, formatPrefix } from '../../address';
import {
  addressCodec,
  prefixCodec,
  type Draft,
  operation,
  kinds,
  type Device,
  badInput,
  gatewaysOf,
  routersOf,
  subnetsOf,
  notOneToOne,
  notRouted,
  removeRecord,
  requireOwnName,
} from '../../plan';
import { uplinksOf } from '../../model/uplink';
import { hearInside } from '../hosts/network-interface';

/** Static routes, tunnels, 1:1 translation, routers behind routers, and the telephone box kept inside. */

function routerFor(draft: Draft, wanted: string | undefined): Device {
  const device = wanted === undefined ? routersOf(draft.plan)[0] : draft.need('device', wanted);
  if (!device)
    throw badInput('There is no router in this site; add a gateway under Gear & ports first.', 'device');
  return device;
}

export const addRoute = operation(
  'addRoute',
  z.strictObject({
    device: z.string().optional(),
    prefix: prefixCodec,
    via: addressCodec,
    note: kinds.route.fields.note.default(''),
  }),
  (draft, { device: wanted, prefix, via, note }) => {
    const device = routerFor(draft, wanted);
    const known = [...draft.plan.route.values()].find(
      (route) => route.device === device.id && formatPrefix(route.prefix) === formatPrefix(prefix),
    );
    if (known)
      throw badInput(
        `${device.name} has a route to ${formatPrefix(prefix)} already, by ${formatAddress(known.via)}; change that one.`,
        'prefix',
      );
    const refused = notRouted(prefix, via);
    if (refused !== null) throw badInput(refused, 'via');
    draft.insert('route', { device: device.id, prefix, via, note });
    return `${device.name}: route to ${formatPrefix(prefix)} by ${formatAddress(via)}`;
  },
);

export const removeRoute = operation('removeRoute', z.strictObject({ route: z.string() }), (draft, input) => {
  const route = draft.need('route', input.route);
  draft.remove('route', route.id);
  return `${draft.need('device', route.device).name}: no route to ${formatPrefix(route.prefix)}`;
});

export const addTunnel = operation(
  'addTunnel',
  z.strictObject({
    device: z.string().optional(),
    name: z.string().trim(),
    peer: kinds.tunnel.fields.peer.default(''),
    remote: z.array(prefixCodec).min(1, 'The other end has no network; write one like 10.60.0.0/16.'),
    initiates: z.boolean().default(true),
  }),
  (draft, { device: wanted, name, peer, remote, initiates }) => {
    if (name === '') throw badInput('The tunnel has no name; write one like plant north.', 'name');
    requireOwnName(draft.plan, 'tunnel', name);
    const device = routerFor(draft, wanted);
    draft.insert('tunnel', { device: device.id, uplink: null, name, peer, initiates, enabled: true, remote });
    return `Tunnel ${name} to ${remote.map(formatPrefix).join(', ')} at ${device.name}`;
  },
);

export const removeTunnel = operation(
  'removeTunnel',
  z.strictObject({ tunnel: z.string() }),
  (draft, input) => {
    const { id, name } = draft.need('tunnel', input.tunnel);
    removeRecord(draft, { table: 'tunnel', id });
    return `Tunnel ${name} removed`;
  },
);

/** Binds a tunnel to an uplink; null for whichever is in use. */
export const bindTunnel = operation(
  'bindTunnel',
  z.strictObject({ tunnel: z.string(), uplink: z.string().nullable() }),
  (draft, { tunnel: id, uplink }) => {
    const tunnel = draft.need('tunnel', id);
    draft.update('tunnel', id, { uplink });
    return `Tunnel ${tunnel.name}: over ${uplink === null ? 'whichever uplink is in use' : draft.need('uplink', uplink).name}`;
  },
);

export const addTranslation = operation(
  'addTranslation',
  z.strictObject({
    device: z.string().optional(),
    subnet: z.string(),
    outside: prefixCodec,
    note: kinds.translation.fields.note.default(''),
  }),
  (draft, { device: wanted, subnet: id, outside, note }) => {
    const device = routerFor(draft, wanted);
    const { prefix } = draft.need('subnet', id);
    const why = notOneToOne(prefix, outside);
    if (why !== null) throw badInput(why, 'outside');
    if ([...draft.plan.translation.values()].some((item) => item.subnet === id))
      throw badInput(`${formatPrefix(prefix)} is translated already; change that one.`, 'subnet');
    draft.insert('translation', { device: device.id, subnet: id, outside, note });
    return `${device.name}: ${formatPrefix(prefix)} is known elsewhere as ${formatPrefix(outside)}`;
  },
);

export const removeTranslation = operation(
  'removeTranslation',
  z.strictObject({ translation: z.string() }),
  (draft, input) => {
    const item = draft.need('translation', input.translation);
    draft.remove('translation', item.id);
    return `1:1 translation to ${formatPrefix(item.outside)} removed`;
  },
);

/** Says which segment of this site an uplink's outside stands in; null where it faces a provider. */
export const standBehind = operation(
  'standBehind',
  z.strictObject({ uplink: z.string(), segment: z.string().nullable() }),
  (draft, { uplink: id, segment }) => {
    const uplink = draft.need('uplink', id);
    const router = draft.need('device', uplink.device);
    if (segment === null) {
      draft.update('uplink', id, { segment });
      return `${uplink.name}: faces a provider`;
    }
    const vlan = draft.need('vlan', segment);
    const own = [...draft.plan.interface.values()].some(
      (item) => item.device === router.id && item.vlan === segment,
    );
    if (own)
      throw badInput(
        `${router.name} routes ${vlan.name} itself, so it cannot stand behind another router in it; choose a segment of the outer router.`,
        'segment',
      );
    draft.update('uplink', id, { segment, network: null });
    return `${uplink.name}: stands in ${vlan.name}, behind its router`;
  },
);

export const keepVoiceBox = operation(
  'keepVoiceBox',
  z.strictObject({ device: z.string(), uplink: z.string().optional() }),
  (draft, { device: id, uplink: wanted }) => {
    const device = draft.need('device', id);
    if (device.kind !== 'provider-box')
      throw badInput(
        `${device.name} is a ${device.kind}; only a provider’s box is kept for the telephones.`,
        'device',
      );
    if ([...draft.plan.voiceBox.values()].some((item) => item.device === id))
      throw badInput(`${device.name} is kept already.`, 'device');
    const uplink = wanted === undefined ? uplinksOf(draft.plan)[0] : draft.need('uplink', wanted);
    if (!uplink) throw badInput('No uplink is recorded that its calls could use; add one first.', 'uplink');
    draft.insert('voiceBox', {
      device: id,
      uplink: uplink.id,
      own: null,
      needsTag: uplink.providerVlan !== null,
      tagRepeated: false,
      dscp: 0,
      firstInQueue: false,
      backedUp: false,
    });
    return `${device.name}: kept behind the gateway for the telephones`;
  },
);

export const dropVoiceBox = operation('dropVoiceBox', z.strictObject({ box: z.string() }), (draft, input) => {
  const box = draft.need('voiceBox', input.box);
  draft.remove('voiceBox', box.id);
  return `${draft.need('device', box.device).name}: no longer kept for the telephones`;
});

/** Gives the gateway of a segment to another router, with its address and what it leases there. */
export const routeSegmentBy = operation(
  'routeSegmentBy',
  z.strictObject({ vlan: z.string(), device: z.string() }),
  (draft, input) => {
    const vlan = draft.need('vlan', input.vlan);
    const device = draft.need('device', input.device);
    if (!routersOf(draft.plan).some(({ id }) => id === device.id))
      throw badInput(`${device.name} is no router; choose a gateway or a layer-3 switch.`, 'device');
    const gateway = subnetsOf(draft.plan, vlan.id).flatMap((subnet) => gatewaysOf(draft.plan, subnet.id))[0];
    if (!gateway)
      throw badInput(`${vlan.name} has no gateway yet; give its subnet one under Segments first.`, 'vlan');
    const item = draft.need('interface', gateway.interface);
    if (item.device === device.id) throw badInput(`${device.name} routes ${vlan.name} already.`, 'device');
    if (
      [...draft.plan.uplink.values()].some(
        (uplink) => uplink.device === device.id && uplink.segment === vlan.id,
      )
    )
      throw badInput(
        `${device.name} stands behind another router in ${vlan.name}; it cannot be its gateway too.`,
        'device',
      );
    draft.update('interface', item.id, { device: device.id, mac: null, name: '' });
    hearInside(draft, device.id, vlan.id);
    return `${vlan.name}: routed by ${device.name}`;
  },
);
