'use client';

import { type Plan, type Uplink, vlansOf } from '@/core/plan';
import { switchingOf, usualMtu, uplinksOf } from '@/core/model/uplink';
import { portsOf } from '@/core/model/wiring';
import { useEdit } from '../../session/actions';
import { useSession } from '../../session/context';
import { useView } from '../../session/view';
import { Choice } from '../../parts/choice';
import { Toggle } from '../../parts/tick';
import { Property } from '../../parts/property';
import { RecordField } from '../../parts/record-field';
import { addressingOptions, outsideOptions, passingOptions, upstreamOptions } from './words';

/** An uplink: how it is addressed, what stands upstream, what is known of its address, when it is used. */
export function UplinkInspector({ plan, uplink }: { plan: Plan; uplink: Uplink }) {
  const session = useSession();
  const edit = useEdit();
  const set = useView((state) => state.set);
  const change = (field: keyof Uplink, value: unknown, seen?: unknown) =>
    edit('uplink', uplink.id, field, value, seen);
  const field = (name: keyof Uplink, placeholder?: string) => (
    <RecordField table="uplink" record={uplink} field={name} placeholder={placeholder} />
  );
  const ports = portsOf(plan, uplink.device).filter((port) => port.number > 0);
  const several = uplinksOf(plan).length > 1;
  return (
    <section aria-label="Chosen uplink" className="pb-4">
      <h2 className="mono font-bold">{uplink.name}</h2>
      {field('name')}
      <Property label="Its outside stands in">
        <Choice
          label="Its outside stands in"
          value={uplink.segment ?? ''}
          options={[
            { value: '', label: 'a provider’s line' },
            ...vlansOf(plan).map(({ id, vid, code, name }) => ({
              value: id,
              label: `${vid} ${code} ${name}`,
            })),
          ]}
          onChoose={(segment) =>
            session.perform({
              operation: 'standBehind',
              input: { uplink: uplink.id, segment: segment || null },
            })
          }
        />
      </Property>
      <Property label="Port">
        <Choice
          label="Port of the uplink"
          value={uplink.port ?? ''}
          options={[
            { value: '', label: 'not recorded' },
            ...ports.map((port) => ({
              value: port.id,
              label: `${plan.device.get(uplink.device)!.name} ${port.number}${port.role === 'uplink' ? '' : `, now ${port.role}`}`,
            })),
          ]}
          onChoose={(port) =>
            session.perform({ operation: 'setUplinkPort', input: { uplink: uplink.id, port: port || null } })
          }
        />
      </Property>
      <Property label="Address is">
        <Choice
          label="How it gets its address"
          value={uplink.addressing}
          options={addressingOptions}
          onChoose={(value) => change('addressing', value)}
        />
      </Property>
      {field('providerVlan', 'untagged')}
      <Property label="Upstream">
        <Choice
          label="What stands upstream"
          value={uplink.upstream}
          options={upstreamOptions}
          onChoose={(value) => change('upstream', value)}
        />
      </Property>
      {uplink.upstream === 'routing' && (
        <Property label="It passes on">
          <Choice
            label="What the box upstream passes on"
            value={uplink.passes}
            options={passingOptions}
            onChoose={(value) => change('passes', value)}
          />
        </Property>
      )}
      {field('address', 'not known')}
      <Property label="Which is">
        <Choice
          label="What kind of address it has"
          value={uplink.outside}
          options={outsideOptions}
          onChoose={(value) => change('outside', value)}
        />
      </Property>
      {field('network', '198.51.100.8/29')}
      {field('delegated', 'none delegated')}
      {field('mtu', `${usualMtu(uplink)}, as usual`)}
      {field('down')}
      {field('up')}
      {field('cap', 'no limit')}
      <Toggle
        label="in use"
        checked={uplink.enabled}
        onChange={(on) => change('enabled', on, uplink.enabled)}
      />
      <Toggle
        label="lets no forward in"
        checked={uplink.noForwards}
        onChange={(on) => change('noForwards', on, uplink.noForwards)}
      />
      {field('dynamicName', 'site.example.net')}
      {uplink.dynamicName !== '' && (
        <Property label="Kept by">
          <Choice
            label="Who keeps the name up to date"
            value={uplink.updater ?? ''}
            options={[
              { value: '', label: 'nobody' },
              ...updaters(plan, uplink).map(({ id, name }) => ({ value: id, label: name })),
            ]}
            onChoose={(updater) =>
              session.perform({
                operation: 'setUpdater',
                input: { uplink: uplink.id, updater: updater || null },
              })
            }
          />
        </Property>
      )}
      <p className="pt-2 text-[13px] text-muted">
        {several
          ? 'Tier 1 is used first; uplinks of one tier share by weight.'
          : 'With a second uplink: tier 1 is used first, and what is pinged decides.'}
      </p>
      {field('tier')}
      {field('weight')}
      {field('monitor', 'something in the Internet')}
      {field('monitorEvery')}
      {field('lossesDown')}
      {field('repliesUp')}
      <p className="mono py-1 text-[13px]">{switchingOf(uplink).arithmetic}</p>
      <button
        type="button"
        className="button mt-2"
        onClick={() => {
          session.perform({ operation: 'removeUplink', input: { uplink: uplink.id } });
          set({ uplink: null, forward: null });
        }}
      >
        Remove {uplink.name}
      </button>
    </section>
  );
}

/** Who may keep a name: the gateway, servers, and whoever does it now. */
const updaters = (plan: Plan, uplink: Uplink) =>
  [...plan.device.values()].filter(
    ({ id, kind }) => kind === 'gateway' || kind === 'server' || id === uplink.updater,
  );
