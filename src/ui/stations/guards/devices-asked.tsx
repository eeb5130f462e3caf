'use client';

import type { Plan } from '@/core/plan';
import { portTitle } from '@/core/plan';
import { type KnownBy, askingPorts, knownBy } from '@/core/model/guards';
import { linksAt } from '@/core/model/wiring';
import { useSession } from '../../session/context';
import { Choice } from '../../parts/choice';
import { ColumnHeads } from '../../parts/column-heads';

const options: readonly { readonly value: KnownBy; readonly label: string }[] = [
  { value: 'unknown', label: 'not recorded' },
  { value: 'dot1x', label: '802.1X' },
  { value: 'mac', label: 'its MAC address only' },
  { value: 'neither', label: 'nothing: it never speaks first' },
];

/** The devices at ports that ask, and by what each is known. */
export function DevicesAsked({ plan }: { plan: Plan }) {
  const session = useSession();
  const there = askingPorts(plan).flatMap(({ port }) =>
    linksAt(plan, port).map(({ to }) => ({ port, device: plan.device.get(plan.port.get(to)!.device)! })),
  );
  if (there.length === 0) return null;
  return (
    <section aria-label="Devices that are asked" className="pt-5">
      <h3 className="border-b-2 border-ink font-bold">By what devices are known</h3>
      <table className="schedule text-[14px]" aria-label="Devices that are asked">
        <ColumnHeads columns={['Port', 'Device', 'Known by']} />
        <tbody>
          {there.map(({ port, device }) => (
            <tr key={`${port.id} ${device.id}`}>
              <td className="mono">{portTitle(plan, port)}</td>
              <td className="mono">{device.name}</td>
              <td>
                <Choice
                  label={`${device.name} is known by`}
                  value={knownBy(plan, device.id)}
                  options={options}
                  onChoose={(by) =>
                    session.perform({ operation: 'setIdentity', input: { devices: [device.id], by } })
                  }
                />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
