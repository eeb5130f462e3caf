'use client';

import { useState } from 'react';
import { familyOf } from '@/core/address';
import { type Address, type Call, type Plan, type Subnet, subnetOf, vlansOf } from '@/core/plan';
import { typedListener } from '@/core/model/uplink';
import { problemOf } from '../../session/attempt';
import { useSession } from '../../session/context';
import { Choice } from '../../parts/choice';
import { Problem } from '../../parts/problem';
import { assignmentOptions, firewallOptions, kindOptions } from './host-options';

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
  const [service, setService] = useState('');
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
      <Choice
        className="button"
        label="own firewall…"
        placeholder="own firewall…"
        value={null}
        options={firewallOptions}
        onChoose={(firewall) => run({ operation: 'setFirewallOfHosts', input: { addresses, firewall } })}
      />
      <form
        className="flex items-center gap-1"
        onSubmit={(event) => {
          event.preventDefault();
          const found = problemOf(() =>
            session.perform({ operation: 'listOnHosts', input: { addresses, ...typedListener(service) } }),
          );
          setProblem(found);
          if (!found) setService('');
        }}
      >
        <input
          className="field field-line mono w-[110px]!"
          aria-label="A service they listen on"
          placeholder="tcp 443"
          autoComplete="off"
          value={service}
          onChange={(event) => setService(event.target.value)}
        />
        <button type="submit" className="button" disabled={service.trim() === ''}>
          they listen on it
        </button>
      </form>
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
