'use client';

import { type FormEvent, useState } from 'react';
import { type Plan, type Device, portsText } from '@/core/plan';
import { listenersOf, typedListener } from '@/core/model/uplink';
import { problemOf } from '../../session/attempt';
import { useSession } from '../../session/context';
import { Problem } from '../../parts/problem';

/** The services a device really listens on; a forward to another port is a finding. */
export function Listeners({ plan, device }: { plan: Plan; device: Device }) {
  const session = useSession();
  const [typed, setTyped] = useState('');
  const [problem, setProblem] = useState('');
  const add = (event: FormEvent) => {
    event.preventDefault();
    const found = problemOf(() =>
      session.perform({ operation: 'addListener', input: { device: device.id, ...typedListener(typed) } }),
    );
    setProblem(found);
    if (!found) setTyped('');
  };
  return (
    <section aria-label={`What ${device.name} listens on`} className="pt-2 text-[14px]">
      <h3 className="font-bold">{device.name} listens on</h3>
      <ul>
        {listenersOf(plan, device.id).map((listener) => (
          <li key={listener.id} className="flex items-center justify-between gap-2 border-b border-rule">
            <span>
              <span className="mono">{portsText(listener.protocol, listener.port)}</span> {listener.name}
            </span>
            <button
              type="button"
              className="link"
              aria-label={`${portsText(listener.protocol, listener.port)} no longer`}
              onClick={() =>
                session.perform({ operation: 'removeListener', input: { listener: listener.id } })
              }
            >
              no longer
            </button>
          </li>
        ))}
      </ul>
      <form onSubmit={add} className="flex items-center gap-2 pt-1">
        <input
          className="field field-line mono"
          aria-label={`A service ${device.name} listens on`}
          placeholder="tcp 443"
          value={typed}
          autoComplete="off"
          onChange={(event) => setTyped(event.target.value)}
        />
        <button type="submit" className="button" disabled={typed.trim() === ''}>
          List
        </button>
      </form>
      <Problem text={problem} />
    </section>
  );
}
