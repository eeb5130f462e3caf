'use client';

import { type FormEvent, useEffect, useRef, useState } from 'react';
import { type Plan, type DeviceKind, type Subnet, type Vlan, Refusal } from '@/core/plan';
import { nameProblem, proposeHostName, nextFreeAddress } from '@/core/model/hosts';
import { usualAssignment } from '@/core/edit';
import { purposeDefaults } from '@/core/model/segments';
import { typedAddress } from '../../session/actions';
import { useSession } from '../../session/context';
import { useView } from '../../session/view';
import { Choice } from '../../parts/field';
import { shortAddress } from '../../parts/short';
import { assignmentOptions, kindOptions } from './host-options';

/** One line that adds a fixed address; everything left empty is proposed. */
export function AddHost({
  plan,
  vlan,
  subnet,
  focusOn,
}: {
  plan: Plan;
  vlan: Vlan;
  subnet: Subnet;
  focusOn: number;
}) {
  const session = useSession();
  const select = useView((state) => state.select);
  const [kind, setKind] = useState<DeviceKind>(purposeDefaults[vlan.purpose].hosts);
  const [assignment, setAssignment] = useState(usualAssignment(plan));
  const [typed, setTyped] = useState({ name: '', address: '', mac: '', note: '' });
  const [problem, setProblem] = useState<{ field: string; message: string } | null>(null);
  const first = useRef<HTMLInputElement>(null);
  useEffect(() => {
    if (focusOn > 0) first.current?.focus();
  }, [focusOn]);
  const next = nextFreeAddress(plan, subnet, kind, assignment);
  const repair = typed.name ? nameProblem(typed.name)?.repair : null;

  const submit = (event: FormEvent) => {
    event.preventDefault();
    try {
      const change = session.perform({
        operation: 'addHost',
        input: {
          subnet: subnet.id,
          kind,
          assignment,
          name: typed.name.trim() || undefined,
          address: typed.address.trim() ? typedAddress(typed.address, subnet) : null,
          mac: typed.mac.trim() || null,
          note: typed.note,
        },
      });
      const added = change.steps.find((step) => step.table === 'address' && step.before === null);
      if (added) select(vlan.id, added.id);
      setTyped({ name: '', address: '', mac: '', note: '' });
      setProblem(null);
      first.current?.focus();
    } catch (error) {
      if (!(error instanceof Refusal)) throw error;
      setProblem({ field: String(error.path[0] ?? ''), message: error.message });
    }
  };
  const input = (field: keyof typeof typed, label: string, placeholder: string, wide: string) => (
    <label className="text-[13px]">
      {label}
      <input
        ref={field === 'name' ? first : undefined}
        className={`field field-line ${field === 'note' || field === 'name' ? '' : 'mono'}`}
        style={{ width: wide }}
        value={typed[field]}
        placeholder={placeholder}
        aria-invalid={problem?.field === field}
        aria-describedby={problem?.field === field ? 'add-host-problem' : undefined}
        onChange={(event) => setTyped({ ...typed, [field]: event.target.value })}
      />
    </label>
  );
  return (
    <form aria-label="New fixed address" className="flex flex-wrap items-end gap-2 py-2" onSubmit={submit}>
      {input('name', 'Host name', proposeHostName(plan, subnet, kind), '150px')}
      {input('address', 'Address', next === null ? 'none free' : shortAddress(next, subnet.prefix), '110px')}
      {input('mac', 'MAC', 'none', '165px')}
      <label className="w-[120px] text-[13px]">
        Kind
        <Choice lined label="Kind" value={kind} options={kindOptions} onChoose={setKind} />
      </label>
      <label className="w-[96px] text-[13px]">
        Fixed by
        <Choice
          lined
          label="Fixed by"
          value={assignment}
          options={assignmentOptions}
          onChoose={setAssignment}
        />
      </label>
      {input('note', 'Note', '', '110px')}
      <button type="submit" className="button button-primary">
        Add <span className="key">Enter</span>
      </button>
      {problem && (
        <p
          id="add-host-problem"
          role="alert"
          className="w-full border-l-4 border-stop px-2 text-[14px] text-stop"
        >
          {problem.message}{' '}
          {repair && problem.field === 'name' && (
            <button
              type="button"
              className="button"
              onClick={() => (setTyped({ ...typed, name: repair }), setProblem(null), first.current?.focus())}
            >
              Use {repair}
            </button>
          )}
        </p>
      )}
    </form>
  );
}
