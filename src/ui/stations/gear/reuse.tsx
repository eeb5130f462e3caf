'use client';

import { useState } from 'react';
import { type Plan, type Device, vlansOf } from '@/core/plan';
import { useView } from '../../session/view';
import { Choice } from '../../parts/choice';

/** A router to be used for its radio or sockets only: what must change on it is shown before it is accepted. */
export function Reuse({ plan, device }: { plan: Plan; device: Device }) {
  const set = useView((state) => state.set);
  const vlans = vlansOf(plan);
  const [vlan, setVlan] = useState(vlans[0]?.id ?? '');
  if (device.kind !== 'gateway') return null;
  return (
    <div className="flex flex-wrap items-end gap-2 pt-3 text-[14px]">
      <label className="min-w-0 flex-1">
        Use it as an access point in
        <Choice
          lined
          label="Use it as an access point in"
          value={vlan}
          options={vlans.map(({ id, vid, code, name }) => ({ value: id, label: `${vid} ${code} ${name}` }))}
          onChoose={setVlan}
        />
      </label>
      <button
        type="button"
        className="button"
        onClick={() =>
          set({
            review: {
              title: `${device.name} as an access point`,
              call: { operation: 'reuseAsAccessPoint', input: { device: device.id, vlan } },
              accept: 'Use it so',
            },
          })
        }
      >
        Show what changes
      </button>
    </div>
  );
}
