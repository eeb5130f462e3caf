'use client';

import { useMemo } from 'react';
import { ColumnHeads } from '../../parts/column-heads';
import { today } from '@/today';
import type { Plan } from '@/core/plan';
import { cascadesOf } from '@/core/rehearse';
import { Jacket } from '../../parts/jacket';
import { WorksMark } from '../../parts/works-mark';

const word = (reaches: boolean | null) =>
  reaches === null ? 'not decided' : reaches ? 'reaches' : 'does not';

/** Routers behind routers: who reaches whom as built, beside the same segments on one box, and separate equipment. */
export function Cascades({ plan }: { plan: Plan }) {
  const cascades = useMemo(() => cascadesOf(plan, today()), [plan]);
  return cascades.map(({ uplink, reached }) => {
    const name = plan.device.get(uplink.device)!.name;
    return (
      <section key={uplink.id} aria-label={`${name} behind a router`} className="mb-5 max-w-[860px]">
        <h3 className="border-b-2 border-ink font-bold">
          {name} stands in {plan.vlan.get(uplink.segment!)!.name}, behind its router
        </h3>
        <p className="py-1 text-[14px]">
          Each router translates by itself: from inside it the outer segments are reached, the other way
          nothing is, unless {name} forwards it. Rules of the outer router see one address for all of it.
        </p>
        {reached.length === 0 ? (
          <p className="text-[14px] text-muted">
            No segment is routed by {name} yet; choose it under Segments.
          </p>
        ) : (
          <table className="schedule text-[14px]">
            <ColumnHeads
              columns={['From', 'To', 'As built', 'On one box, by the matrix', 'Separate equipment']}
            />
            <tbody>
              {reached.map(({ from, to, built, oneBox }) => (
                <tr key={`${from.id} ${to.id}`} className={built === oneBox ? '' : 'bg-chosen'}>
                  <td>
                    <Jacket vlan={from} />
                  </td>
                  <td>
                    <Jacket vlan={to} />
                  </td>
                  {[built, oneBox, false].map((reaches, i) => (
                    <td key={i}>
                      <span className="flex items-center gap-1.5">
                        <WorksMark works={reaches} /> {word(reaches)}
                      </span>
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        )}
      </section>
    );
  });
}
