'use client';

import { useMemo, useState } from 'react';
import { type Plan, portTitle } from '@/core/plan';
import { typedBoxPort } from '@/core/rehearse';
import { type Newcomer, plugInSwitch } from '@/core/model/tree';
import { attempt } from '../../session/attempt';
import { Problem } from '../../parts/problem';
import { EndLine } from './ends';

/** What somebody does to the tree who plugs in a switch fresh from its box. */
export function NewSwitch({ plan }: { plan: Plan }) {
  const [typed, setTyped] = useState('');
  const found = useMemo(
    () =>
      typed.trim() === ''
        ? null
        : attempt(() => {
            const port = typedBoxPort(plan, typed);
            return (['lowest', 'highest'] as const).map(
              (mac) => [mac, plugInSwitch(plan, port, mac)] as const,
            );
          }),
    [plan, typed],
  );
  return (
    <section aria-label="A new switch" className="mb-5">
      <h3 className="border-b-2 border-ink font-bold">A new switch with factory settings</h3>
      <div className="flex py-1">
        <EndLine plan={plan} label="plugged into" value={typed} placeholder="sw-a 7" onType={setTyped} />
      </div>
      {found && 'refusal' in found && <Problem text={found.refusal.message} />}
      {found && 'value' in found && (
        <ul role="status">
          {found.value.map(([mac, newcomer]) => (
            <li
              key={mac}
              className={`border-b border-l-4 border-rule py-1 pl-2 ${newcomer.takesRoot && !newcomer.heldOff ? 'border-l-stop' : 'border-l-ink'}`}
            >
              If its MAC address is the {mac}: {said(plan, newcomer)}.
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

function said(plan: Plan, { heard, takesRoot, blocked, opened, shut, heldOff }: Newcomer): string {
  if (!heard) return 'nobody hears it: the port is off, or its box runs no tree';
  if (shut) return 'the port switches itself off, as its BPDU guard hears the switch';
  if (heldOff) return 'it would be root, and the root guard blocks the port instead';
  const list = (ids: readonly string[]) => ids.map((id) => portTitle(plan, plan.port.get(id)!)).join(', ');
  const parts = [
    takesRoot ? 'it becomes the root' : 'the root stays where it is',
    ...(blocked.length > 0 ? [`${list(blocked)} ${blocked.length === 1 ? 'blocks' : 'block'}`] : []),
    ...(opened.length > 0 ? [`${list(opened)} ${opened.length === 1 ? 'opens' : 'open'}`] : []),
  ];
  return parts.join('; ');
}
