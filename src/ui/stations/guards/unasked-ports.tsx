'use client';

import { type Plan, boxOf, portTitle } from '@/core/plan';
import { boxesInOrder } from '@/core/model/switching';
import { portsOf } from '@/core/model/wiring';
import { unasked } from '@/core/rehearse';
import { ColumnHeads } from '../../parts/column-heads';

/** Where ports must not ask, and what keeps strangers out there instead. */
export function UnaskedPorts({ plan }: { plan: Plan }) {
  const able = boxesInOrder(plan).filter(({ device }) => boxOf(plan, device)?.dot1x);
  const found = able.flatMap(({ device }) =>
    portsOf(plan, device).flatMap((port) => {
      const reason = unasked(plan, port);
      return reason ? [reason] : [];
    }),
  );
  if (found.length === 0) return null;
  return (
    <section aria-label="Ports that must not ask" className="pt-5">
      <h3 className="border-b-2 border-ink font-bold">Ports that must not ask</h3>
      <table className="schedule text-[14px]" aria-label="Ports that must not ask">
        <ColumnHeads columns={['Port', 'Why', 'Instead']} />
        <tbody>
          {found.map(({ port, why, instead }) => (
            <tr key={port.id}>
              <td className="mono whitespace-nowrap">{portTitle(plan, port)}</td>
              <td>{why}</td>
              <td>{instead}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
