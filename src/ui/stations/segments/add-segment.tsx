'use client';

import { type KeyboardEvent, useEffect, useRef, useState } from 'react';
import { useWatch } from 'react-hook-form';
import { type Prefix, formatAddress, formatPrefix, parsePrefix, shortRange } from '@/core/address';
import { type Purpose, purposes, vlansOf } from '@/core/plan';
import { proposeSegment } from '@/core/edit';
import { purposeDefaults } from '@/core/model/segments';
import { wholeNumber } from '../../session/actions';
import { usePlan, useSession } from '../../session/context';
import { useView } from '../../session/view';
import { Dialog } from '../../parts/dialog';
import { Form, FormLine, useTypedForm } from '../../parts/form';
import { Jacket } from '../../parts/jacket';

/** Adds a segment in three keystrokes: + opens this, a letter says what it is for, Enter takes the proposal. */
export function AddSegmentDialog({ onClose }: { onClose: () => void }) {
  const [purpose, setPurpose] = useState<Purpose | null>(null);
  const onKeyDown = (event: KeyboardEvent) => {
    const found = purposes.find((candidate) => purposeDefaults[candidate].key === event.key);
    if (!purpose && found && !event.ctrlKey && !event.metaKey) {
      event.preventDefault();
      setPurpose(found);
    }
  };
  return (
    <Dialog title="New segment" open onClose={onClose}>
      <div onKeyDown={onKeyDown}>
        {purpose === null ? (
          <div className="grid grid-cols-2 gap-1" role="group" aria-label="What is it for?">
            {purposes.map((candidate, i) => (
              <button
                key={candidate}
                type="button"
                autoFocus={i === 0}
                className="button justify-between"
                onClick={() => setPurpose(candidate)}
              >
                {purposeDefaults[candidate].label}
                <span className="key">{purposeDefaults[candidate].key}</span>
              </button>
            ))}
          </div>
        ) : (
          <Proposal purpose={purpose} onBack={() => setPurpose(null)} onClose={onClose} />
        )}
      </div>
    </Dialog>
  );
}

/** The subnet that was typed: null for none, undefined while it is none that can be read. */
const typedSubnet = (text: string): Prefix | null | undefined =>
  /^none$/i.test(text.trim()) ? null : parsePrefix(text)?.prefix;

/** The same as an operation takes it, which says what is wrong with it. */
function subnetAsTyped(text: string): string | null | undefined {
  const prefix = typedSubnet(text);
  if (text.trim() === '') return undefined;
  return prefix === null ? null : prefix ? formatPrefix(prefix) : text.trim();
}

function Proposal({
  purpose,
  onBack,
  onClose,
}: {
  purpose: Purpose;
  onBack: () => void;
  onClose: () => void;
}) {
  const plan = usePlan();
  const session = useSession();
  const select = useView((state) => state.select);
  const add = useRef<HTMLButtonElement>(null);
  useEffect(() => add.current?.focus(), []);
  const form = useTypedForm({ name: '', vid: '', devices: '', prefix: '' }, (values) => {
    const number = (field: 'vid' | 'devices', what: string) =>
      values[field].trim() === '' ? undefined : wholeNumber(values[field], what, field);
    const input = {
      purpose,
      vid: number('vid', 'VLAN id'),
      devices: number('devices', 'Devices now'),
      name: values.name.trim() === '' ? undefined : values.name,
      prefix: subnetAsTyped(values.prefix),
    };
    const change = session.perform({ operation: 'addSegment', input: JSON.parse(JSON.stringify(input)) });
    const added = change.steps.find((step) => step.table === 'vlan' && step.before === null);
    if (added) select(added.id);
    onClose();
  });
  const typed = useWatch({ control: form.form.control }) as {
    [field in 'name' | 'vid' | 'devices' | 'prefix']: string;
  };
  const has = (field: keyof typeof typed) => typed[field].trim() !== '';
  const prefix = typedSubnet(typed.prefix);
  const quiet = (field: 'vid' | 'devices') =>
    /^\d+$/.test(typed[field].trim()) ? Number(typed[field]) : undefined;
  const proposal = proposeSegment(plan, {
    purpose,
    ...(quiet('vid') === undefined ? {} : { vid: quiet('vid')! }),
    ...(quiet('devices') === undefined ? {} : { devices: quiet('devices')! }),
    ...(has('name') ? { name: typed.name.trim() } : {}),
    ...(prefix === undefined ? {} : { prefix }),
  });
  const { vid, code, colour } = proposal;
  return (
    <Form form={form} layout="sheet">
      <p className="flex items-center gap-2 pb-2">
        {vid !== null && <Jacket vlan={{ vid, code, colour }} />} <b>{proposal.name}</b>
        {vlansOf(plan).some((vlan) => vlan.vid === vid) && (
          <span className="text-stop">this id is in use</span>
        )}
      </p>
      <FormLine mono name="name" label="Name" placeholder={proposal.name} />
      <FormLine mono name="vid" label="VLAN id" placeholder={vid === null ? 'none free' : String(vid)} />
      <FormLine mono name="devices" label="Devices now" placeholder={String(proposal.devices)} />
      <FormLine
        mono
        name="prefix"
        label="Subnet (or none)"
        placeholder={proposal.prefix ? formatPrefix(proposal.prefix) : 'none'}
      />
      <p className="mono py-2 text-[14px]">
        need {proposal.need}; fits {proposal.fits}
        {proposal.prefix && proposal.gateway !== null && `; gateway ${formatAddress(proposal.gateway)}`}
        {proposal.prefix && proposal.pool && `; pool ${shortRange(proposal.pool, proposal.prefix)}`}
      </p>
      <div className="flex gap-2 pt-2">
        <button ref={add} type="submit" className="button button-primary">
          Add it <span className="key">Enter</span>
        </button>
        <button type="button" className="button" onClick={onBack}>
          Another purpose
        </button>
      </div>
    </Form>
  );
}
