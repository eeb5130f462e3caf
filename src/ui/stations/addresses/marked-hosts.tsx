'use client';

import { useState } from 'react';
import { familyOf } from '@/core/address';
import { type Address, type Call, type Plan, type Subnet, subnetOf, vlansOf } from '@/core/plan';
import { problemOf } from '../../session/attempt';
import { useSession } from '../../session/context';
import { Choice } from '../../parts/choice';
import { Problem } from '../../parts/problem';
import { assignmentOptions, kindOptions } from './host-options';

/** What can be done with all that are marked: each is one change, and one undo. */
export function MarkedHosts({
  plan,
  subnet,
  marked,
  onDone,
}: {
  plan: Plan;
  subnet: Subnet;
  marked: readonly Address[];
  onDone: () => void;
}) {
  const session = useSession();
  const [problem, setProblem] = useState('');
  const addresses = marked.map(({ id }) => id);
  const run = (call: Call) => setProblem(problemOf(() => session.perform(call)));
  const elsewhere = vlansOf(plan).flatMap((vlan) => {
    const other = subnetOf(plan, vlan.id, familyOf(subnet.prefix.address));
    return other && other.id !== subnet.id ? [{ value: other.id, label: `${vlan.vid} ${vlan.name}` }] : [];
  });
  return (
    <div role="group" aria-label="With the marked ones" className="flex flex-wrap items-center gap-2 pb-2">
      <span className="font-bold">{marked.length} marked:</span>
      {assignmentOptions.slice(0, 2).map((option) => (
        <button
          key={option.value}
          type="button"
          className="button"
          onClick={() => run({ operation: 'setAssignment', input: { addresses, assignment: option.value } })}
        >
          make {option.label}
        </button>
      ))}
      <Choice
        className="button"
        label="kind…"
        placeholder="kind…"
        value={null}
        options={kindOptions}
        onChoose={(kind) => run({ operation: 'setKindOfHosts', input: { addresses, kind } })}
      />
      <Choice
        className="button"
        label="move to…"
        placeholder="move to…"
        value={null}
        options={elsewhere}
        onChoose={(to) => run({ operation: 'moveHostsToSubnet', input: { addresses, subnet: to } })}
      />
      <button
        type="button"
        className="button"
        onClick={() => {
          run({ operation: 'removeHosts', input: { addresses } });
          onDone();
        }}
      >
        Remove
      </button>
      <button type="button" className="link" onClick={onDone}>
        unmark
      </button>
      <Problem text={problem} className="w-full text-[14px]" />
    </div>
  );
}
