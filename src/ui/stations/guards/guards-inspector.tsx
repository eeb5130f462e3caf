'use client';

import { formatAddress } from '@/core/address';
import { type Plan, type Port, type PortGuard, portTitle } from '@/core/plan';
import { type PortGuards, accessesOf, portGuardsOf } from '@/core/model/guards';
import { expectedMacs, guardLine } from '@/core/rehearse';
import { usePlan, useSession } from '../../session/context';
import { orNone, wholeNumber } from '../../session/actions';
import { useView } from '../../session/view';
import { Choice } from '../../parts/choice';
import { Field } from '../../parts/field';
import { Property } from '../../parts/property';
import { Toggle } from '../../parts/tick';
import { DeviceGuards } from './device-guards';

/** The details of the chosen ports, or of the chosen box. */
export function GuardsInspector() {
  const plan = usePlan();
  const { device: id, ports } = useView();
  const chosen = ports.flatMap((port) => plan.port.get(port) ?? []).filter(({ number }) => number > 0);
  if (chosen.length > 0) return <PortGuardsOf plan={plan} ports={chosen} />;
  const device = id === null ? undefined : plan.device.get(id);
  if (device) return <DeviceGuards key={device.id} plan={plan} device={device} />;
  return <p className="pb-3 text-muted">Choose a box or a port to see and set what it guards.</p>;
}

const trusts = [
  { field: 'trustsDhcp', label: 'trusted for DHCP' },
  { field: 'trustsArp', label: 'trusted for ARP' },
  { field: 'trustsRouters', label: 'trusted for routers' },
] as const;
const actions: readonly { readonly value: PortGuard['macAction']; readonly label: string }[] = [
  { value: 'drop', label: 'is not heard' },
  { value: 'tell', label: 'is not heard, and it is told' },
  { value: 'shut', label: 'switches the port off' },
];

function PortGuardsOf({ plan, ports }: { plan: Plan; ports: readonly Port[] }) {
  const session = useSession();
  const [first] = ports as readonly [Port];
  const held = portGuardsOf(plan, first.id);
  const put = (set: Partial<PortGuards>) =>
    session.perform({ operation: 'setPortGuards', input: { ports: ports.map(({ id }) => id), set } });
  const number = (label: string, field: 'macLimit' | 'dhcpRate' | 'arpRate' | 'storm', none: string) => (
    <Property label={label}>
      <Field
        mono
        label={label}
        value={held[field] === null ? '' : String(held[field])}
        placeholder={none}
        onCommit={(typed) => put({ [field]: orNone(typed, (text) => wholeNumber(text, label), none) })}
      />
    </Property>
  );
  const expected = expectedMacs(plan, first);
  return (
    <section aria-label="Chosen ports" className="pb-4">
      <h2 className="mono font-bold">
        {portTitle(plan, first)}
        {ports.length > 1 && ` and ${ports.length - 1} more`}
      </h2>
      {trusts.map(({ field, label }) => (
        <Toggle key={field} label={label} checked={held[field]} onChange={(on) => put({ [field]: on })} />
      ))}
      {accessesOf(plan).length > 0 && (
        <Property label="Asks">
          <Choice
            label="Asks who is there"
            value={held.access ?? ''}
            options={[
              { value: '', label: 'nobody' },
              ...accessesOf(plan).map(({ id, name }) => ({ value: id, label: `as ${name}` })),
            ]}
            onChoose={(access) => put({ access: access || null })}
          />
        </Property>
      )}
      {number('MAC limit', 'macLimit', 'as many as come')}
      <p className="py-1 text-[13px] text-muted">
        {expected} planned at {portTitle(plan, first)}.{' '}
        {expected > 0 && (
          <button
            type="button"
            className="link"
            onClick={() =>
              session.perform({ operation: 'limitMacs', input: { ports: ports.map(({ id }) => id) } })
            }
          >
            limit to what is planned
          </button>
        )}
      </p>
      {held.macLimit !== null && (
        <>
          <Property label="One too many">
            <Choice
              label="One too many"
              value={held.macAction}
              options={actions}
              onChoose={(macAction) => put({ macAction })}
            />
          </Property>
          <Toggle
            label="keeps the first it learned"
            checked={held.macSticky}
            onChange={(macSticky) => put({ macSticky })}
          />
        </>
      )}
      {number('DHCP per s', 'dhcpRate', 'no limit')}
      {number('ARP per s', 'arpRate', 'no limit')}
      {number('Storm, %', 'storm', 'no limit')}
      <SeenHere plan={plan} port={first} />
    </section>
  );
}

/** Who is seen at a port, and what guards make of each. */
function SeenHere({ plan, port }: { plan: Plan; port: Port }) {
  const seen = guardLine(plan, port.device).find((one) => one.port.id === port.id)?.seen ?? [];
  if (seen.length === 0) return null;
  return (
    <>
      <h3 className="pt-3 font-bold">Seen here</h3>
      <ul className="text-[14px]">
        {seen.map(({ sight, why }, i) => (
          <li key={i} className={`border-l-4 pl-2 ${why === null ? 'border-rule' : 'border-stop'}`}>
            <span className="mono">
              {plan.device.get(sight.device)!.name}
              {sight.address !== null && ` ${formatAddress(sight.address)}`}
            </span>
            , {sight.says}: {why ?? 'passes'}
          </li>
        ))}
      </ul>
    </>
  );
}
