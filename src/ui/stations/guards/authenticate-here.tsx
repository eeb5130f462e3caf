'use client';

import { useMemo, useState } from 'react';
import { type Plan, badInput, portTitle } from '@/core/plan';
import { deviceMeant } from '@/core/model/hosts';
import { askingPorts } from '@/core/model/guards';
import { type Authentication, DHCP_PATIENCE, authenticate, typedBoxPort } from '@/core/rehearse';
import { today } from '@/today';
import { attempt } from '../../session/attempt';
import { Jacket } from '../../parts/jacket';
import { OneOf } from '../../parts/one-of';
import { Problem } from '../../parts/problem';
import { TypedLine } from '../../parts/typed-line';
import { WorksMark } from '../../parts/works-mark';
import { ListOfServer } from './list-of-server';

const serverStates = [
  { value: 'as planned' as const, shown: 'servers as planned' },
  { value: 'silent' as const, shown: 'servers silent' },
];
const passwords = [
  { value: 'good' as const, shown: 'right password' },
  { value: 'bad' as const, shown: 'wrong password' },
];

/** A device plugged into a port that asks: the conversation, and in which segment it ends. */
export function AuthenticateHere({ plan }: { plan: Plan }) {
  const [asking] = askingPorts(plan);
  const [typed, setTyped] = useState<string | null>(null);
  const [device, setDevice] = useState('');
  const [servers, setServers] = useState<'as planned' | 'silent'>('as planned');
  const [credentials, setCredentials] = useState<'good' | 'bad'>('good');
  const at = typed ?? (asking ? portTitle(plan, asking.port) : '');
  const found = useMemo(
    () =>
      at.trim() === ''
        ? null
        : attempt(() => {
            const port = typedBoxPort(plan, at);
            const named = deviceMeant(plan, device, 'device');
            if (device.trim() !== '' && !named)
              throw badInput(
                `“${device.trim()}” is no device of this site; write its name, or nothing for a stranger.`,
                'device',
              );
            const met = authenticate(plan, port, named?.id ?? null, { servers, credentials }, today());
            if (!met)
              throw badInput(`${at.trim()} asks nobody; choose how it asks at the port first.`, 'port');
            return {
              met,
              names: { box: boxNameOf(plan, port), device: named?.name ?? 'the stranger', server: 'server' },
            };
          }),
    [plan, at, device, servers, credentials],
  );
  return (
    <section aria-label="Rehearse authentication" className="max-w-[980px]">
      <h3 className="border-b-2 border-ink font-bold">Plug it in and…</h3>
      <form className="flex flex-wrap items-end gap-3 py-2" onSubmit={(event) => event.preventDefault()}>
        <TypedLine label="Plug into" value={at} placeholder="sw-a 7" onType={setTyped} />
        <TypedLine label="the device" value={device} placeholder="a stranger’s laptop" onType={setDevice} />
        <OneOf label="The servers" look="bar" value={servers} of={serverStates} onChoose={setServers} />
        <OneOf label="The password" look="bar" value={credentials} of={passwords} onChoose={setCredentials} />
      </form>
      {!found && (
        <p className="text-muted">
          No port asks yet. Add a way in below and give it to ports under their details.
        </p>
      )}
      {found && 'refusal' in found && <Problem text={found.refusal.message} />}
      {found && 'value' in found && <Conversation plan={plan} {...found.value} />}
    </section>
  );
}

const boxNameOf = (plan: Plan, port: string) => plan.device.get(plan.port.get(port)!.device)!.name;

interface ConversationProps {
  readonly met: Authentication;
  readonly plan: Plan;
  readonly names: Readonly<Record<Authentication['lines'][number]['from'], string>>;
}
function Conversation({ plan, met, names }: ConversationProps) {
  return (
    <>
      <p
        className="flex items-center gap-2 border-2 border-ink bg-sheet px-2 py-1.5 text-[16px]"
        role="status"
      >
        <WorksMark works={met.vlan !== null} />
        {met.vlan ? (
          <>
            <Jacket vlan={met.vlan} /> {met.vlan.name}, {met.outcome}
          </>
        ) : (
          <>
            Kept out, {met.outcome}: {met.why}
          </>
        )}{' '}
        after {met.after} s
        {met.late && (
          <span className="text-stop">too late: its DHCP client has given up after {DHCP_PATIENCE} s</span>
        )}
      </p>
      <ol className="relative border-l-4 border-ink py-1" aria-label="The conversation">
        {met.lines.map(({ at, from, what, detail }, i) => (
          <li
            key={i}
            className="grid grid-cols-[64px_1fr_1fr] gap-x-3 border-b border-rule py-0.5 max-[699px]:grid-cols-[52px_1fr]"
          >
            <span className="mono pl-2 text-muted">{at} s</span>
            <span className={from === 'device' ? 'min-[700px]:col-start-3' : ''}>
              <b>{names[from]}</b> <span className="mono">{what}</span>{' '}
              <span className="text-muted">{detail}</span>
            </span>
          </li>
        ))}
      </ol>
      {met.list !== null && <ListOfServer plan={plan} vlan={met.list} />}
    </>
  );
}
