'use client';

import { useMemo, useState } from 'react';
import { type Device, type Plan, badInput, portTitle } from '@/core/plan';
import { deviceMeant } from '@/core/model/hosts';
import { boxesInOrder } from '@/core/model/switching';
import { portsOf } from '@/core/model/wiring';
import { pluggedPhones } from '@/core/model/guards';
import { telephoneAt, typedBoxPort } from '@/core/rehearse';
import { today } from '@/today';
import { attempt } from '../../session/attempt';
import { Problem } from '../../parts/problem';
import { TypedLine } from '../../parts/typed-line';
import { TelephoneSteps } from './telephone-steps';

/** The first port with a telephone, or the first that is for one. */
function firstPort(plan: Plan): string {
  for (const { device } of boxesInOrder(plan)) {
    const [plugged] = pluggedPhones(plan, device);
    const port = plugged?.port ?? portsOf(plan, device).find(({ role }) => role === 'voice');
    if (port) return portTitle(plan, port);
  }
  return '';
}

/** A telephone plugged into a port: power, VLAN, address, boot server, registration, priority. */
export function TelephoneHere({ plan }: { plan: Plan }) {
  const [typed, setTyped] = useState<string | null>(null);
  const [device, setDevice] = useState('');
  const at = typed ?? firstPort(plan);
  const found = useMemo(
    () =>
      at.trim() === ''
        ? null
        : attempt(() => {
            const port = plan.port.get(typedBoxPort(plan, at))!;
            const name = device.trim();
            const isPhone = ({ kind }: Device) => kind === 'phone';
            const phone = name === '' ? null : deviceMeant(plan, name, 'device', isPhone);
            if (phone === undefined || (phone && !isPhone(phone)))
              throw badInput(
                `“${name}” is no telephone of this site; write its name, or nothing for a new one.`,
                'device',
              );
            return telephoneAt(plan, port, phone, today());
          }),
    [plan, at, device],
  );
  return (
    <section aria-label="Rehearse a telephone" className="max-w-[980px]">
      <h3 className="border-b-2 border-ink font-bold">Plug a telephone in and…</h3>
      <form className="flex flex-wrap items-end gap-3 py-2" onSubmit={(event) => event.preventDefault()}>
        <TypedLine label="Plug into" value={at} placeholder="sw-a 7" onType={setTyped} />
        <TypedLine label="the telephone" value={device} placeholder="a new one" onType={setDevice} />
      </form>
      {!found && <p className="text-muted">No port here is for a telephone yet; write any port of a box.</p>}
      {found && 'refusal' in found && <Problem text={found.refusal.message} />}
      {found && 'value' in found && <TelephoneSteps met={found.value} label="How it starts" />}
    </section>
  );
}
