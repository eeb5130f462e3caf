'use client';

import { useState } from 'react';
import { familyOf } from '@/core/address';
import {
  type Address,
  type Call,
  type DeviceKind,
  type Plan,
  type Subnet,
  subnetOf,
  vlansOf,
} from '@/core/plan';
import { problemOf } from '../../session/attempt';
import { useSession } from '../../session/context';
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
      <Pick
        label="kind…"
        options={kindOptions}
        onPick={(kind) =>
          run({ operation: 'setKindOfHosts', input: { addresses, kind: kind as DeviceKind } })
        }
      />
      <Pick
        label="move to…"
        options={elsewhere}
        onPick={(to) => run({ operation: 'moveHostsToSubnet', input: { addresses, subnet: to } })}
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

/** A choice that acts at once and goes back to its label. */
function Pick({
  label,
  options,
  onPick,
}: {
  label: string;
  options: readonly { readonly value: string; readonly label: string }[];
  onPick: (value: string) => void;
}) {
  return (
    <select
      aria-label={label}
      className="button w-28"
      value=""
      onChange={(event) => onPick(event.target.value)}
    >
      <option value="" disabled>
        {label}
      </option>
      {options.map((option) => (
        <option key={option.value} value={option.value}>
          {option.label}
        </option>
      ))}
    </select>
  );
}
