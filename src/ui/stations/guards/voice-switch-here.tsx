'use client';

import { useMemo, useState } from 'react';
import { type Plan, badInput } from '@/core/plan';
import { type VoiceSwitch, typedBoxPort, voiceSwitchAt } from '@/core/rehearse';
import { today } from '@/today';
import { attempt } from '../../session/attempt';
import { Problem } from '../../parts/problem';
import { TypedLine } from '../../parts/typed-line';
import { TelephoneSteps } from './telephone-steps';

/** A switch that announces a voice VLAN of its own, before anybody connects it. */
export function VoiceSwitchHere({ plan }: { plan: Plan }) {
  const [at, setAt] = useState('');
  const [vlan, setVlan] = useState('');
  const found = useMemo(
    () =>
      at.trim() === '' || vlan.trim() === ''
        ? null
        : attempt(() => {
            const port = plan.port.get(typedBoxPort(plan, at))!;
            const vid = Number(vlan);
            if (!Number.isInteger(vid) || vid < 1 || vid > 4094)
              throw badInput(`“${vlan.trim()}” is no VLAN id; write a number from 1 to 4094.`, 'vlan');
            return voiceSwitchAt(plan, port, vid, today());
          }),
    [plan, at, vlan],
  );
  return (
    <section aria-label="Another voice VLAN" className="max-w-[980px] pt-5">
      <h3 className="border-b-2 border-ink font-bold">A switch that announces another voice VLAN</h3>
      <form className="flex flex-wrap items-end gap-3 py-2" onSubmit={(event) => event.preventDefault()}>
        <TypedLine label="Connected to" value={at} placeholder="sw-a 7" onType={setAt} />
        <TypedLine label="it announces VLAN" value={vlan} placeholder="100" onType={setVlan} />
      </form>
      {found && 'refusal' in found && <Problem text={found.refusal.message} />}
      {found && 'value' in found && <Found {...found.value} />}
    </section>
  );
}

function Found({ heard, telephone }: VoiceSwitch) {
  return (
    <>
      <h4 className="font-bold">Who hears it</h4>
      <ul className="pb-3">
        {heard.map(({ title, says, wrong }) => (
          <li key={title} className={`border-b border-rule py-1 ${wrong ? 'text-stop' : ''}`}>
            <span className="mono">{title}</span> {says}
          </li>
        ))}
        {heard.length === 0 && <li className="text-muted">nobody</li>}
      </ul>
      <h4 className="font-bold">A telephone plugged into it</h4>
      <TelephoneSteps met={telephone} label="How a telephone starts there" />
    </>
  );
}
