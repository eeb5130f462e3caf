'use client';

import { useMemo, useState } from 'react';
import { type Hop, followTo } from '@/core/model/switching';
import { deviceMeant, deviceTyped } from '@/core/model/hosts';
import { portsOf } from '@/core/model/wiring';
import type { Plan, Port } from '@/core/plan';
import { attempt } from '../../session/attempt';

const tagText = (tag: number) => (tag ? `tagged ${tag}` : 'untagged');

/** Where a frame from a port goes, box by box, with the tag in and out and why. */
export function FollowFrame({ plan, port }: { plan: Plan; port: Port }) {
  const [name, setName] = useState('');
  const targets = useMemo(
    () =>
      [...plan.device.values()]
        .filter((device) => device.id !== port.device && plan.port.group(device.id).size > 0)
        .map((device) => deviceTyped(plan, device))
        .sort((a, b) => a.localeCompare(b, undefined, { numeric: true })),
    [plan, port.device],
  );
  const found = useMemo(() => {
    if (name.trim() === '') return null;
    const found = attempt(() => deviceMeant(plan, name, 'to', ({ id }) => portsOf(plan, id).length > 0));
    if ('refusal' in found) return { hops: [], why: found.refusal.message };
    if (found.value) return followTo(plan, port, found.value);
    return { hops: [], why: `There is no device “${name.trim()}”.` };
  }, [plan, port, name]);
  return (
    <div className="pt-2 text-[14px]">
      <label className="flex items-center gap-2">
        <span className="whitespace-nowrap text-muted">Follow a frame to</span>
        <input
          className="field field-line mono"
          list={`targets-${port.id}`}
          placeholder="gw-1"
          value={name}
          autoComplete="off"
          onChange={(event) => setName(event.target.value)}
        />
      </label>
      <datalist id={`targets-${port.id}`}>
        {targets.map((target) => (
          <option key={target} value={target} />
        ))}
      </datalist>
      {found && found.hops.length > 0 && (
        <ol
          aria-label="Hops"
          className={`border-l-4 pl-2 ${found.why === null ? 'border-ink' : 'border-stop'}`}
        >
          {found.hops.map((hop, i) => (
            <li key={i} className="border-b border-rule py-1">
              <HopLine plan={plan} hop={hop} />
            </li>
          ))}
        </ol>
      )}
      {found?.why && <p role="status">{found.why}</p>}
    </div>
  );
}

function HopLine({ plan, hop }: { plan: Plan; hop: Hop }) {
  const name = plan.device.get(hop.device)!.name;
  const enters = hop.entered && hop.entered.number > 0 ? `in at ${hop.entered.number}` : 'from inside';
  const aware = hop.vid !== hop.tagIn || hop.tagIn !== 0;
  return (
    <>
      <b className="mono">{name}</b> {enters} {tagText(hop.tagIn)}
      {aware && hop.tagIn === 0 && `, becomes VLAN ${hop.vid} by the PVID`}
      {aware && hop.tagIn !== 0 && ', carried by the port'}
      {'; '}
      {hop.left && hop.left.number > 0 ? `out at ${hop.left.number}` : 'to the box itself'}{' '}
      {tagText(hop.tagOut)}
      {hop.tagOut === 0 && aware && ', the untagged VLAN there'}
    </>
  );
}
