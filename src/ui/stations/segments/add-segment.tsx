'use client';

import { type KeyboardEvent, useEffect, useRef, useState } from 'react';
import { formatAddress, formatPrefix, parsePrefix } from '@/core/address';
import { type Purpose, purposes, vlansOf } from '@/core/plan';
import { proposeSegment } from '@/core/edit';
import { purposeDefaults } from '@/core/model/segments';
import { problemOf } from '../../session/attempt';
import { wholeNumber } from '../../session/actions';
import { usePlan, useSession } from '../../session/context';
import { useView } from '../../session/view';
import { Dialog } from '../../parts/dialog';
import { Jacket } from '../../parts/jacket';
import { shortRange } from '../../parts/short';
import { Problem } from '../../parts/problem';

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
  const [typed, setTyped] = useState<Readonly<Record<string, string>>>({});
  const [problem, setProblem] = useState('');
  const add = useRef<HTMLButtonElement>(null);
  useEffect(() => add.current?.focus(), []);

  const has = (field: string) => (typed[field] ?? '').trim() !== '';
  const number = (field: string, what: string) => (has(field) ? wholeNumber(typed[field]!, what) : undefined);
  const layer2 = /^none$/i.test((typed.prefix ?? '').trim());
  const prefix = has('prefix') ? (parsePrefix(typed.prefix!)?.prefix ?? undefined) : undefined;
  const quiet = (field: string) =>
    /^\d+$/.test((typed[field] ?? '').trim()) ? Number(typed[field]) : undefined;
  const proposal = proposeSegment(plan, {
    purpose,
    ...(quiet('vid') === undefined ? {} : { vid: quiet('vid')! }),
    ...(quiet('devices') === undefined ? {} : { devices: quiet('devices')! }),
    ...(has('name') ? { name: typed.name!.trim() } : {}),
    ...(layer2 ? { prefix: null } : prefix ? { prefix } : {}),
  });
  const submit = () => {
    setProblem(
      problemOf(() => {
        const input = {
          purpose,
          vid: number('vid', 'VLAN id'),
          devices: number('devices', 'Devices now'),
          name: has('name') ? typed.name : undefined,
          prefix: layer2
            ? null
            : has('prefix')
              ? prefix
                ? formatPrefix(prefix)
                : typed.prefix!.trim()
              : undefined,
        };
        const change = session.perform({ operation: 'addSegment', input: JSON.parse(JSON.stringify(input)) });
        const added = change.steps.find((step) => step.table === 'vlan' && step.before === null);
        if (added) select(added.id);
        onClose();
      }),
    );
  };
  const row = (field: string, label: string, proposed: string) => (
    <label className="grid grid-cols-[9rem_1fr] items-center gap-2">
      <span>{label}</span>
      <input
        className="field field-line mono"
        placeholder={proposed}
        value={typed[field] ?? ''}
        onChange={(event) => setTyped({ ...typed, [field]: event.target.value })}
      />
    </label>
  );
  const { vid, code, colour } = proposal;
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        submit();
      }}
    >
      <p className="flex items-center gap-2 pb-2">
        {vid !== null && <Jacket vlan={{ vid, code, colour }} />} <b>{proposal.name}</b>
        {vlansOf(plan).some((vlan) => vlan.vid === vid) && (
          <span className="text-stop">this id is in use</span>
        )}
      </p>
      {row('name', 'Name', proposal.name)}
      {row('vid', 'VLAN id', vid === null ? 'none free' : String(vid))}
      {row('devices', 'Devices now', String(proposal.devices))}
      {row('prefix', 'Subnet (or none)', proposal.prefix ? formatPrefix(proposal.prefix) : 'none')}
      <p className="mono py-2 text-[14px]">
        need {proposal.need}; fits {proposal.fits}
        {proposal.prefix && proposal.gateway !== null && `; gateway ${formatAddress(proposal.gateway)}`}
        {proposal.prefix && proposal.pool && `; pool ${shortRange(proposal.pool, proposal.prefix)}`}
      </p>
      <Problem text={problem} />
      <div className="flex gap-2 pt-2">
        <button ref={add} type="submit" className="button button-primary">
          Add it <span className="key">Enter</span>
        </button>
        <button type="button" className="button" onClick={onBack}>
          Another purpose
        </button>
      </div>
    </form>
  );
}
