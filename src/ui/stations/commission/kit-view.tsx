'use client';

import { useMemo } from 'react';
import { kitOf, kitParts, kitTitles } from '@/core/commission';
import type { Plan } from '@/core/plan';
import { ColumnHeads } from '../../parts/column-heads';

/** What goes into the bag before one leaves. */
export function KitView({ plan }: { plan: Plan }) {
  const items = useMemo(() => kitOf(plan), [plan]);
  if (items.length === 0) return <p>Nothing is planned yet that needs anything brought along.</p>;
  return (
    <table className="schedule text-[14px]" aria-label="Kit list">
      <ColumnHeads columns={['How many', 'What', 'For']} className="max-[699px]:hidden" />
      {kitParts.map((part) => {
        const own = items.filter((item) => item.part === part);
        if (own.length === 0) return null;
        return (
          <tbody key={part}>
            <tr>
              <th scope="rowgroup" colSpan={3} className="border-b-2 border-ink pt-3 text-left">
                {kitTitles[part]}
              </th>
            </tr>
            {own.map(({ what, why, count }, i) => (
              <tr key={i} className="break-inside-avoid">
                <td className="mono w-20 text-right">{count ?? ''}</td>
                <td>{what}</td>
                <td className="text-muted">{why}</td>
              </tr>
            ))}
          </tbody>
        );
      })}
    </table>
  );
}
