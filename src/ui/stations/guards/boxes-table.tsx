'use client';

import type { Device, Plan } from '@/core/plan';
import { trustOf } from '@/core/model/guards';
import { cutOffBy } from '@/core/rehearse';
import { useView } from '../../session/view';
import { ColumnHeads } from '../../parts/column-heads';
import { Jacket } from '../../parts/jacket';

/** The boxes that can guard: what each guards, how many ports it trusts, and whom it cuts off. */
export function BoxesTable({
  plan,
  boxes,
  chosen,
}: {
  plan: Plan;
  boxes: readonly Device[];
  chosen: string;
}) {
  return (
    <table className="schedule schedule-cards text-[14px]" aria-label="Boxes that can guard">
      <ColumnHeads
        columns={['Box', 'Guards', 'Ports trusted', 'Bindings', 'Cut off']}
        className="max-[699px]:hidden"
      />
      <tbody>
        {boxes.map((device) => (
          <Row key={device.id} plan={plan} device={device} chosen={device.id === chosen} />
        ))}
      </tbody>
    </table>
  );
}

function Row({ plan, device, chosen }: { plan: Plan; device: Device; chosen: boolean }) {
  const set = useView((state) => state.set);
  const guards = [...plan.vlanGuard.group(device.id).values()];
  const trusted = [...plan.port.group(device.id).values()].filter(({ id }) =>
    Object.values(trustOf(plan, id)).includes(true),
  );
  const cut = new Set(cutOffBy(plan, [device.id]).map((one) => one.device));
  return (
    <tr data-record={device.id} aria-selected={chosen} className={chosen ? 'bg-chosen' : ''}>
      <th scope="row" className="min-w-[110px] text-left">
        <button
          type="button"
          className="mono min-h-7 w-full px-1 text-left font-bold hover:underline max-[699px]:min-h-touch"
          onClick={() => set({ device: device.id, ports: [], finding: null })}
        >
          {device.name}
        </button>
      </th>
      <td>
        <span className="flex flex-wrap gap-1">
          {guards.length === 0 && <span className="text-muted">nothing</span>}
          {guards.map(({ id, vlan }) => (
            <Jacket key={id} vlan={plan.vlan.get(vlan)!} wide={false} />
          ))}
        </span>
      </td>
      <td className="mono max-[699px]:hidden">
        {trusted
          .map(({ number }) => number)
          .sort((a, b) => a - b)
          .join(', ') || 'none'}
      </td>
      <td className="mono max-[699px]:hidden">{plan.binding.group(device.id).size}</td>
      <td>
        <span className="hidden max-[699px]:inline">cuts off </span>
        {cut.size === 0 ? (
          'nobody'
        ) : (
          <span className="text-stop">{cut.size === 1 ? '1 device' : `${cut.size} devices`}</span>
        )}
      </td>
    </tr>
  );
}
