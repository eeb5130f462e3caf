'use client';

import { shortAddress } from '@/core/address';
import { useEffect } from 'react';
import { useWatch } from 'react-hook-form';
import type { Plan, Subnet, Vlan } from '@/core/plan';
import { nameProblem, proposeHostName, nextFreeAddress } from '@/core/model/hosts';
import { usualAssignment } from '@/core/edit';
import { purposeDefaults } from '@/core/model/segments';
import { typedAddress } from '../../session/actions';
import { useSession } from '../../session/context';
import { useView } from '../../session/view';
import { Form, FormChoice, FormLine, useTypedForm } from '../../parts/form';
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
  const form = useTypedForm(
    {
      kind: purposeDefaults[vlan.purpose].hosts,
      assignment: usualAssignment(plan),
      name: '',
      address: '',
      mac: '',
      note: '',
    },
    ({ kind, assignment, name, address, mac, note }) => {
      const change = session.perform({
        operation: 'addHost',
        input: {
          subnet: subnet.id,
          kind,
          assignment,
          name: name.trim() || undefined,
          address: address.trim() ? typedAddress(address, subnet) : null,
          mac: mac.trim() || null,
          note,
        },
      });
      const added = change.steps.find((step) => step.table === 'address' && step.before === null);
      if (added) select(vlan.id, added.id);
    },
    { clear: ['name', 'address', 'mac', 'note'], focus: 'name' },
  );
  const { control, setFocus, setValue, clearErrors, formState } = form.form;
  const [kind, assignment, name] = useWatch({ control, name: ['kind', 'assignment', 'name'] });
  useEffect(() => {
    if (focusOn > 0) setFocus('name');
  }, [focusOn, setFocus]);
  const next = nextFreeAddress(plan, subnet, kind, assignment);
  const repair = name && formState.errors.name ? nameProblem(name)?.repair : null;
  return (
    <Form
      form={form}
      label="New fixed address"
      remedy={
        repair && (
          <button
            type="button"
            className="button"
            onClick={() => {
              setValue('name', repair);
              clearErrors();
              setFocus('name');
            }}
          >
            Use {repair}
          </button>
        )
      }
    >
      <FormLine name="name" label="Host name" placeholder={proposeHostName(plan, subnet, kind)} width={150} />
      <FormLine
        mono
        name="address"
        label="Address"
        placeholder={next === null ? 'none free' : shortAddress(next, subnet.prefix)}
        width={110}
      />
      <FormLine mono name="mac" label="MAC" placeholder="none" width={165} />
      <FormChoice name="kind" label="Kind" options={kindOptions} width={150} />
      <FormChoice name="assignment" label="Fixed by" options={assignmentOptions} width={112} />
      <FormLine name="note" label="Note" width={110} />
      <button type="submit" className="button button-primary">
        Add <span className="key">Enter</span>
      </button>
    </Form>
  );
}
