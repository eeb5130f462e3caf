'use client';

import { formatAddress, formatPrefix } from '@/core/address';
import { type Plan, routersOf } from '@/core/plan';
import { uplinksOf } from '@/core/model/uplink';
import { useEdit } from '../../session/actions';
import { useSession } from '../../session/context';
import { Choice } from '../../parts/choice';
import { Lines } from '../../parts/lines';
import { Toggle } from '../../parts/tick';
import { networks, oneNetwork } from './typed-networks';

const named = (plan: Plan, device: string) => plan.device.get(device)!.name;
const routerOptions = (plan: Plan) => routersOf(plan).map(({ id, name }) => ({ value: id, label: name }));

/** Tunnels to other sites: what is at the other end, and who opens them. */
export function Tunnels({ plan }: { plan: Plan }) {
  const session = useSession();
  const edit = useEdit();
  const uplinks = uplinksOf(plan);
  return (
    <Lines
      title="Tunnels to other sites"
      about="Networks at the other end are kept free here and get a zone of their own. Keys are kept elsewhere."
      lines={[...plan.tunnel.values()].map((tunnel) => ({
        id: tunnel.id,
        shown: (
          <div className="flex flex-wrap items-center gap-x-3">
            <b>{tunnel.name}</b>
            <span className="mono">{tunnel.remote.map(formatPrefix).join(', ')}</span>
            <span className="text-muted">
              at {named(plan, tunnel.device)}
              {tunnel.peer && `, other end ${tunnel.peer}`}
            </span>
            <Toggle
              label="opened from here"
              checked={tunnel.initiates}
              onChange={(on) => edit('tunnel', tunnel.id, 'initiates', on, tunnel.initiates)}
            />
            <span className="w-[150px]">
              <Choice
                lined
                label={`Uplink of ${tunnel.name}`}
                value={tunnel.uplink ?? ''}
                options={[
                  { value: '', label: 'any uplink' },
                  ...uplinks.map(({ id, name }) => ({ value: id, label: `over ${name}` })),
                ]}
                onChoose={(uplink) =>
                  session.perform({
                    operation: 'bindTunnel',
                    input: { tunnel: tunnel.id, uplink: uplink || null },
                  })
                }
              />
            </span>
          </div>
        ),
        removal: `Remove the tunnel ${tunnel.name}`,
        remove: { operation: 'removeTunnel', input: { tunnel: tunnel.id } },
      }))}
      blanks={[
        { name: 'name', label: 'Name', placeholder: 'plant north' },
        {
          name: 'remote',
          label: 'Networks at the other end',
          placeholder: '10.60.0.0/16',
          width: 200,
          mono: true,
        },
        { name: 'peer', label: 'Other end', placeholder: 'north.example.net', mono: true },
        { name: 'device', label: 'At', options: routerOptions(plan), width: 110 },
      ]}
      action="Add tunnel"
      onAdd={({ name, remote, peer, device }) => ({
        operation: 'addTunnel',
        input: { name, remote: networks(remote), peer, device: device || undefined },
      })}
    />
  );
}

/** Networks that no router of this site stands in, and who knows the way. */
export function Routes({ plan }: { plan: Plan }) {
  return (
    <Lines
      title="Static routes"
      about="Needed where a second router, or a layer-3 switch, stands between: one there, and one back."
      lines={[...plan.route.values()].map((route) => ({
        id: route.id,
        shown: (
          <span>
            <b>{named(plan, route.device)}</b> to <span className="mono">{formatPrefix(route.prefix)}</span>{' '}
            by <span className="mono">{formatAddress(route.via)}</span> {route.note}
          </span>
        ),
        removal: `Remove the route to ${formatPrefix(route.prefix)}`,
        remove: { operation: 'removeRoute', input: { route: route.id } },
      }))}
      blanks={[
        { name: 'device', label: 'On', options: routerOptions(plan), width: 110 },
        { name: 'prefix', label: 'To network', placeholder: '0.0.0.0/0', mono: true },
        { name: 'via', label: 'By router', placeholder: '10.0.0.2', mono: true, width: 130 },
      ]}
      action="Add route"
      onAdd={({ device, prefix, via }) => ({
        operation: 'addRoute',
        input: { device: device || undefined, prefix: oneNetwork(prefix, 'prefix'), via },
      })}
    />
  );
}

/** Subnets known elsewhere by other addresses, so that identical machines keep identical ones inside. */
export function Translations({ plan }: { plan: Plan }) {
  const subnets = [...plan.subnet.values()].filter(
    ({ id }) => ![...plan.translation.values()].some(({ subnet }) => subnet === id),
  );
  return (
    <Lines
      title="1:1 translation"
      about="Identical machines keep identical addresses inside their cells; elsewhere each cell is known by a network of its own."
      lines={[...plan.translation.values()].map((item) => {
        const { prefix, vlan } = plan.subnet.get(item.subnet)!;
        return {
          id: item.id,
          shown: (
            <span>
              {plan.vlan.get(vlan)!.name} <span className="mono">{formatPrefix(prefix)}</span> is known
              elsewhere as <span className="mono">{formatPrefix(item.outside)}</span>, by{' '}
              <b>{named(plan, item.device)}</b>
            </span>
          ),
          removal: `Remove the translation to ${formatPrefix(item.outside)}`,
          remove: { operation: 'removeTranslation', input: { translation: item.id } },
        };
      })}
      blanks={[
        {
          name: 'subnet',
          label: 'Inside',
          width: 240,
          options: subnets.map(({ id, prefix, vlan }) => ({
            value: id,
            label: `${plan.vlan.get(vlan)!.name} ${formatPrefix(prefix)}`,
          })),
        },
        { name: 'outside', label: 'Known elsewhere as', placeholder: '172.20.5.0/24', mono: true },
        { name: 'device', label: 'By', options: routerOptions(plan), width: 110 },
      ]}
      action="Translate"
      onAdd={({ subnet, outside, device }) => ({
        operation: 'addTranslation',
        input: { subnet, outside: oneNetwork(outside, 'outside'), device: device || undefined },
      })}
    />
  );
}
