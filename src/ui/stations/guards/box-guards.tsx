'use client';

import { type Device, type Plan, vlansOf } from '@/core/plan';
import { guardWords, noVlanGuards, vlanGuardOf } from '@/core/model/guards';
import { vlanIsAt } from '@/core/rehearse';
import { useSession } from '../../session/context';
import { Jacket } from '../../parts/jacket';
import { Tick } from '../../parts/tick';
import { CutOffList } from './cut-off-list';
import { PortLine } from './port-line';

/** The guards of a box by segment, whom they cut off, and its ports in a row. */
export function BoxGuards({ plan, device }: { plan: Plan; device: Device }) {
  const session = useSession();
  const vlans = vlansOf(plan).filter(
    ({ id }) => vlanIsAt(plan, device.id, id) || vlanGuardOf(plan, device.id, id),
  );
  return (
    <section aria-label={`Guards of ${device.name}`} className="pt-5">
      <h3 className="border-b-2 border-ink font-bold">
        What <span className="mono">{device.name}</span> guards
      </h3>
      <div className="relative overflow-x-auto">
        <table className="schedule text-[14px]" aria-label={`Guards of ${device.name} by segment`}>
          <thead>
            <tr>
              <th scope="col">Segment</th>
              {guardWords.map(({ guard, short, about }) => (
                <th key={guard} scope="col" title={about}>
                  {short}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {vlans.map((vlan) => {
              const guards = vlanGuardOf(plan, device.id, vlan.id) ?? noVlanGuards;
              return (
                <tr key={vlan.id}>
                  <th scope="row" className="text-left font-normal">
                    <span className="flex items-center gap-2">
                      <Jacket vlan={vlan} /> {vlan.name}
                    </span>
                  </th>
                  {guardWords.map(({ guard, about }) => (
                    <td key={guard}>
                      <span className="flex min-h-7 items-center max-[699px]:min-h-touch">
                        <Tick
                          label={`${vlan.name}: ${about}`}
                          checked={guards[guard]}
                          onChange={(on) =>
                            session.perform({
                              operation: 'setVlanGuards',
                              input: { devices: [device.id], vlans: [vlan.id], set: { [guard]: on } },
                            })
                          }
                        />
                      </span>
                    </td>
                  ))}
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
      <CutOffList plan={plan} devices={[device.id]} />
      <PortLine plan={plan} device={device} />
    </section>
  );
}
