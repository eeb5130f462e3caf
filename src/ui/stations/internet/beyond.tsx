'use client';

import { formatAddress } from '@/core/address/ip';
import { formatPrefix, parsePrefix } from '@/core/address/prefix';
import type { Plan } from '@/core/plan/plan';
import type { VoiceBox } from '@/core/plan/records';
import { badInput } from '@/core/plan/refusal';
import { routersOf } from '@/core/plan/view';
import { EF, losses } from '@/core/uplink/voice-box';
import { uplinksOf } from '@/core/uplink/view';
import { useEdit, wholeNumber } from '../../session/actions';
import { useSession } from '../../session/context';
import { Choice, Field } from '../../parts/field';
import { Lines } from '../../parts/lines';
import { Property, Toggle } from '../../parts/property';

const named = (plan: Plan, device: string) => plan.device.get(device)?.name ?? 'a router';
const routerOptions = (plan: Plan) => routersOf(plan).map(({ id, name }) => ({ value: id, label: name }));

/** Networks as typed, with commas; host bits are cleared. */
const networks = (text: string): string[] =>
  text
    .split(',')
    .map((part) => part.trim())
    .filter(Boolean)
    .map((part) => {
      const parsed = parsePrefix(part);
      if (!parsed) throw badInput(`“${part}” is no network; write one like 10.60.0.0/16.`, 'remote');
      return formatPrefix(parsed.prefix);
    });
const oneNetwork = (text: string, field: string): string => {
  const [first, second] = networks(text);
  if (!first || second) throw badInput(`Write one network like 10.60.0.0/16 instead of “${text}”.`, field);
  return first;
};

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
        input: { name, remote: networks(remote ?? ''), peer, device: device || undefined },
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
        input: { device: device || undefined, prefix: oneNetwork(prefix ?? '', 'prefix'), via },
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
        input: { subnet, outside: oneNetwork(outside ?? '', 'outside'), device: device || undefined },
      })}
    />
  );
}

/** The provider's boxes kept behind the gateway for the telephones. */
export function VoiceBoxes({ plan }: { plan: Plan }) {
  const kept = new Set([...plan.voiceBox.values()].map(({ device }) => device));
  const boxes = [...plan.device.values()].filter(({ id, kind }) => kind === 'provider-box' && !kept.has(id));
  if (boxes.length === 0 && kept.size === 0) return null;
  return (
    <Lines
      title="Telephone box kept behind the gateway"
      about="For a provider’s box that only the telephones need: what it must find here, and what is lost when."
      lines={[...plan.voiceBox.values()].map((box) => ({
        id: box.id,
        shown: <VoiceBoxLine plan={plan} box={box} />,
        removal: `${named(plan, box.device)} no longer kept`,
        remove: { operation: 'dropVoiceBox', input: { box: box.id } },
      }))}
      blanks={
        boxes.length === 0
          ? []
          : [
              {
                name: 'device',
                label: 'Provider’s box',
                width: 170,
                options: boxes.map(({ id, name }) => ({ value: id, label: name })),
              },
            ]
      }
      action="Keep it"
      onAdd={({ device }) => ({ operation: 'keepVoiceBox', input: { device } })}
    />
  );
}

function VoiceBoxLine({ plan, box }: { plan: Plan; box: VoiceBox }) {
  const edit = useEdit();
  const name = named(plan, box.device);
  const uplink = plan.uplink.get(box.uplink)!;
  const change = (field: keyof VoiceBox, value: unknown) =>
    edit('voiceBox', box.id, field, value, box[field]);
  const own = box.own === null ? '' : formatPrefix(box.own);
  return (
    <div className="py-1">
      <p>
        <b>{name}</b> calls over {uplink.name}
        {uplink.providerVlan === null ? '' : `, provider’s tag ${uplink.providerVlan}`}
      </p>
      <div className="flex flex-wrap gap-x-5">
        <Toggle
          label="looks for the provider’s tag"
          checked={box.needsTag}
          onChange={(on) => change('needsTag', on)}
        />
        <Toggle
          label="inside port repeats the tag"
          checked={box.tagRepeated}
          onChange={(on) => change('tagRepeated', on)}
        />
        <Toggle
          label="first in the queue"
          checked={box.firstInQueue}
          onChange={(on) => change('firstInQueue', on)}
        />
        <Toggle
          label="runs on when the mains fail"
          checked={box.backedUp}
          onChange={(on) => change('backedUp', on)}
        />
      </div>
      <div className="max-w-[420px]">
        <Property label={`DSCP (EF ${EF})`}>
          <Field
            mono
            label={`DSCP of ${name}`}
            value={String(box.dscp)}
            onCommit={(typed) => edit('voiceBox', box.id, 'dscp', wholeNumber(typed, 'The DSCP'), box.dscp)}
          />
        </Property>
        <Property label="Its own network">
          <Field
            mono
            label={`Own network of ${name}`}
            value={own}
            placeholder="none"
            onCommit={(typed) =>
              edit(
                'voiceBox',
                box.id,
                'own',
                typed.trim() === '' ? null : oneNetwork(typed, 'own'),
                own || null,
              )
            }
          />
        </Property>
      </div>
      <ul className="list-[square] pl-5">
        {losses(plan, box).map((loss) => (
          <li key={loss}>{loss}</li>
        ))}
      </ul>
    </div>
  );
}
