'use client';

import { type Plan, type Zone, vlansOf } from '@/core/plan';
import { explainZone, vlansOfZone, zoneOfVlan } from '@/core/model/policy';
import { useSession } from '../../session/context';
import { useView } from '../../session/view';
import { Choice } from '../../parts/choice';
import { Jacket } from '../../parts/jacket';
import { Cautions } from '../../parts/cautions';
import { RecordField } from '../../parts/record-field';

const insideWords = { allow: 'may talk', deny: 'are kept apart' };

/** A zone: who is in it, whether its members may talk, whether the gateway is managed from it. */
export function ZoneInspector({ plan, zone }: { plan: Plan; zone: Zone }) {
  const session = useSession();
  const set = useView((state) => state.set);
  const put = (input: object) =>
    session.perform({ operation: 'putInZone', input: { zone: zone.id, ...input } });
  const elsewhere = vlansOf(plan).filter(({ id }) => !zone.vlans.includes(id));
  const uplinks = [...plan.uplink.values()];
  const tunnels = [...plan.tunnel.values()];
  return (
    <section aria-label="Chosen zone" className="pb-4">
      <h2 className="font-bold">{zone.name}</h2>
      <p aria-label="In one sentence" role="note" className="my-2 border-l-4 border-ink pl-2 text-[14px]">
        {explainZone(plan, zone)}
      </p>
      <Cautions purposes={vlansOfZone(plan, zone).map(({ purpose }) => purpose)} />
      <RecordField table="zone" record={zone} field="name" of="the zone" />
      <RecordField table="zone" record={zone} field="inside" words={insideWords} />
      <RecordField table="zone" record={zone} field="manages" />
      <h3 className="pt-2 text-[14px] font-bold">In it</h3>
      <ul aria-label={`In ${zone.name}`}>
        {vlansOfZone(plan, zone)
          .map(({ id }) => plan.vlan.get(id)!)
          .map((vlan) => (
            <li key={vlan.id} className="flex items-center gap-2 py-0.5">
              <Jacket vlan={vlan} /> {vlan.name}
            </li>
          ))}
        {uplinks
          .filter(({ id }) => zone.uplinks.includes(id))
          .map(({ id, name }) => (
            <li key={id}>uplink {name}</li>
          ))}
        {tunnels
          .filter(({ id }) => zone.tunnels.includes(id))
          .map(({ id, name }) => (
            <li key={id}>tunnel {name}</li>
          ))}
        {zone.gateway && <li>the gateway itself</li>}
      </ul>
      <Choice
        lined
        label="Put into this zone"
        value=""
        options={[
          { value: '', label: 'put into it…' },
          ...elsewhere.map(({ id, vid, code, name }) => ({
            value: `vlan ${id}`,
            label: `${vid} ${code} ${name}${zoneOfVlan(plan, id) ? `, now in ${zoneOfVlan(plan, id)!.name}` : ''}`,
          })),
          ...uplinks
            .filter(({ id }) => !zone.uplinks.includes(id))
            .map(({ id, name }) => ({ value: `uplink ${id}`, label: `uplink ${name}` })),
          ...tunnels
            .filter(({ id }) => !zone.tunnels.includes(id))
            .map(({ id, name }) => ({ value: `tunnel ${id}`, label: `tunnel ${name}` })),
          ...(zone.gateway ? [] : [{ value: 'gateway', label: 'the gateway itself' }]),
        ]}
        onChoose={(value) => {
          const [kind, id] = value.split(' ');
          if (kind === 'vlan') put({ vlans: [id] });
          if (kind === 'uplink') put({ uplinks: [id] });
          if (kind === 'tunnel') put({ tunnels: [id] });
          if (kind === 'gateway') put({ gateway: true });
        }}
      />
      <button
        type="button"
        className="button mt-3"
        onClick={() => {
          session.perform({ operation: 'removeZone', input: { zone: zone.id } });
          set({ zone: null });
        }}
      >
        Remove {zone.name}
      </button>
    </section>
  );
}
