'use client';

import { acceptedFrames, boxOf, portMedia, selfRoles, type Port, type Plan } from '@/core/plan';
import { typedVlan } from '@/core/model/wiring';
import { orNone, useEdit, wholeNumber } from '../../session/actions';
import { useSession } from '../../session/context';
import { Choice } from '../../parts/choice';
import { Field } from '../../parts/field';
import { Fold } from '../../parts/fold';
import { Toggle } from '../../parts/tick';
import { Property } from '../../parts/property';

const taking = acceptedFrames.map((value) => ({ value, label: value === 'all' ? 'all' : `${value} only` }));
const media = portMedia.filter((value) => value !== 'inner').map((value) => ({ value, label: value }));
const selfWords = {
  no: 'no',
  neighbour: 'by what is plugged in',
  mac: 'by the first half of the MAC',
} as const;
const self = selfRoles.map((value) => ({ value, label: selfWords[value] }));
const several = { value: '' as const, label: 'several' };

/** The value all ports share; null when they differ. */
function shared<F extends keyof Port>(ports: readonly Port[], field: F): Port[F] | null {
  const [first] = ports;
  return ports.every((port) => port[field] === first![field]) ? first![field] : null;
}

/** What is seldom set at ports, in a few words. */
function moreWords(plan: Plan, ports: readonly Port[]): string {
  const [port] = ports;
  if (!boxOf(plan, port!.device)?.vlanAware) return 'name inside, how it sets itself';
  const pvid = shared(ports, 'pvid');
  const accepts = shared(ports, 'accepts');
  const differ = ports.some((item) => item.pvid !== port!.pvid);
  return [
    differ ? 'several PVIDs' : pvid === null ? 'no PVID' : `PVID ${plan.vlan.get(pvid)!.vid}`,
    accepts === null ? 'takes several' : `takes ${taking.find(({ value }) => value === accepts)!.label}`,
  ].join(', ');
}

/** What ports are, beside what they carry. What many have in common is set for all of them at once. */
export function PortFactsList({
  plan,
  ports,
  passive,
}: {
  plan: Plan;
  ports: readonly Port[];
  passive: boolean;
}) {
  const session = useSession();
  const edit = useEdit();
  const outer = ports.filter((port) => port.number > 0);
  const [port] = outer;
  if (!port || outer.length !== ports.length) return null;
  const alone = ports.length === 1;
  const box = boxOf(plan, port.device);
  const set = (field: keyof Port, value: unknown, seen?: unknown) =>
    alone
      ? edit('port', port.id, field, value, seen)
      : session.perform({
          operation: 'setPortFacts',
          input: { ports: ports.map(({ id }) => id), set: { [field]: value } },
        });
  const text = (label: string, field: 'label' | 'name' | 'optic', name = label) => (
    <Property label={label}>
      <Field
        mono={field === 'name'}
        label={name}
        value={shared(ports, field) ?? ''}
        placeholder={shared(ports, field) === null ? 'several' : 'none'}
        onCommit={(typed, seen) => set(field, typed, seen)}
      />
    </Property>
  );
  const number = (label: string, field: 'index' | 'speed' | 'poeClass', name = label) => {
    const value = shared(ports, field);
    const differ = ports.some((item) => item[field] !== port[field]);
    return (
      <Property label={label}>
        <Field
          mono
          label={name}
          value={value === null ? '' : String(value)}
          placeholder={differ ? 'several' : 'none'}
          onCommit={(typed) =>
            set(
              field,
              orNone(typed, (text) => wholeNumber(text, name)),
              value,
            )
          }
        />
      </Property>
    );
  };
  const choice = <F extends 'media' | 'setsItself' | 'accepts'>(
    label: string,
    name: string,
    field: F,
    options: readonly { readonly value: Port[F]; readonly label: string }[],
  ) => {
    const value = shared(ports, field);
    return (
      <Property label={label}>
        <Choice
          label={name}
          value={value ?? ''}
          options={value === null ? [several, ...options] : options}
          onChoose={(chosen) => chosen && set(field, chosen)}
        />
      </Property>
    );
  };
  const toggle = (label: string, field: 'exposed' | 'defective' | 'enabled' | 'ingressFilter') => (
    <Toggle
      label={label}
      checked={shared(ports, field) ?? false}
      mixed={shared(ports, field) === null}
      onChange={(on) => set(field, on, port[field])}
    />
  );
  return (
    <div
      className="pt-2"
      role="group"
      aria-label={alone ? `Facts of port ${port.number}` : 'Facts of these ports'}
    >
      {!alone && <p className="text-[13px] text-muted">Set here for all {ports.length} at once:</p>}
      {text('Label', 'label')}
      {!passive && (
        <>
          {choice('Medium', 'Medium', 'media', media)}
          {ports.some((item) => item.media !== 'copper') && text('Optic', 'optic')}
          {number('Mbit/s', 'speed', 'Speed in Mbit/s')}
          {number('PoE class', 'poeClass')}
          {toggle('switched on', 'enabled')}
          {toggle('strangers can reach it', 'exposed')}
        </>
      )}
      {toggle('defective', 'defective')}
      {!passive && (
        <Fold id="port-more" title="More" told={moreWords(plan, ports)}>
          {alone && text('In the config', 'name', 'Name in the configuration')}
          {alone && number('Index inside', 'index')}
          {choice('Sets itself', 'Sets its role itself', 'setsItself', self)}
          {box?.vlanAware && (
            <>
              <Property label="PVID">
                <Field
                  mono
                  label="PVID, the VLAN of untagged frames that come in"
                  value={shared(ports, 'pvid') === null ? '' : String(plan.vlan.get(port.pvid!)!.vid)}
                  placeholder={ports.some(({ pvid }) => pvid !== port.pvid) ? 'several' : 'none'}
                  onCommit={(typed) =>
                    session.perform({
                      operation: 'setPortFacts',
                      input: {
                        ports: ports.map(({ id }) => id),
                        set: { pvid: orNone(typed, (text) => typedVlan(plan, text).id) },
                      },
                    })
                  }
                />
              </Property>
              {choice('Takes', 'Frames it takes', 'accepts', taking)}
              {toggle('refuses VLANs it does not carry (ingress filter)', 'ingressFilter')}
            </>
          )}
        </Fold>
      )}
      {plan.device.get(port.device)!.kind === 'outlet' && (
        <p className="text-[13px] text-muted">Number as printed on the wall plate.</p>
      )}
    </div>
  );
}
