'use client';

import { useMemo } from 'react';
import { type Plan, vlansOf } from '@/core/plan';
import { portsTitle } from '@/core/model/wiring';
import { missingPorts, sparePorts, islandsOf } from '@/core/model/switching';
import { useView } from '../../session/view';
import { Jacket } from '../../parts/jacket';
import { OneOf } from '../../parts/one-of';

/** Choose a segment: its ports stand out on faces and map, and what would have to carry it, or need not, is offered. */
export function FollowVlan({ plan }: { plan: Plan }) {
  const { followed, set } = useView();
  return (
    <div className="mb-3">
      <OneOf
        label="Follow a segment"
        look="jackets"
        value={followed}
        of={vlansOf(plan).map((vlan) => ({
          value: vlan.id,
          shown: <Jacket vlan={vlan} wide={false} />,
          title: vlan.name,
        }))}
        onChoose={(id) => set({ followed: id })}
        onClear={() => set({ followed: null })}
      >
        <span className="pr-1 text-[14px] text-muted">follow</span>
      </OneOf>
      {followed !== null && plan.vlan.get(followed) && <Followed plan={plan} vlan={followed} />}
    </div>
  );
}

function Followed({ plan, vlan: id }: { plan: Plan; vlan: string }) {
  const set = useView((state) => state.set);
  const vlan = plan.vlan.get(id)!;
  const { missing, spare, islands } = useMemo(
    () => ({ missing: missingPorts(plan, id), spare: sparePorts(plan, id), islands: islandsOf(plan, id) }),
    [plan, id],
  );
  const users = islands.reduce((sum, island) => sum + island.users.length, 0);
  const state =
    users === 0
      ? `Nobody uses ${vlan.name} yet: no port is in it.`
      : islands.length === 1
        ? `${vlan.name} is one piece: ${users} ${users === 1 ? 'port or box uses' : 'ports and boxes use'} it and hear each other.`
        : `${vlan.name} is in ${islands.length} pieces that do not hear each other.`;
  const review = (operation: 'carryNeeded' | 'pruneVlan', title: string, accept: string) =>
    set({ review: { title, call: { operation, input: { vlan: id } }, accept } });
  return (
    <div
      className="mt-1 flex flex-wrap items-center gap-2 border-l-4 border-ink py-1 pl-2"
      aria-live="polite"
    >
      <span>{state}</span>
      {missing.length > 0 && (
        <>
          <span>
            Needed and not carried: <b>{portsTitle(plan, missing)}</b>.
          </span>
          <button
            type="button"
            className="button button-primary"
            onClick={() => review('carryNeeded', `Carry ${vlan.vid} ${vlan.code}`, 'Carry it')}
          >
            Carry…
          </button>
        </>
      )}
      {spare.length > 0 && (
        <>
          <span>Carried further than needed: {portsTitle(plan, spare)}.</span>
          <button
            type="button"
            className="button"
            onClick={() => review('pruneVlan', `Prune ${vlan.vid} ${vlan.code}`, 'Prune it')}
          >
            Prune…
          </button>
        </>
      )}
    </div>
  );
}
