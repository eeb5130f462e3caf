'use client';

import { type FormEvent, useState } from 'react';
import type { Call, Plan, Port } from '@/core/plan';
import { problemOf } from '../../session/attempt';
import { useSession } from '../../session/context';
import { Choice } from '../../parts/choice';
import { Problem } from '../../parts/problem';

type Asking = 'keep' | 'rename' | null;

/** What ports carry, kept under a name: applied, kept, renamed, removed. Ports stay linked until assigned by hand. */
export function PortProfiles({ plan, ports }: { plan: Plan; ports: readonly Port[] }) {
  const session = useSession();
  const [asking, setAsking] = useState<Asking>(null);
  const [name, setName] = useState('');
  const [problem, setProblem] = useState('');
  const profiles = [...plan.profile.values()].sort((a, b) => a.name.localeCompare(b.name));
  const shared = ports.every((port) => port.profile === ports[0]!.profile) ? ports[0]!.profile : null;
  const linked = shared === null ? undefined : plan.profile.get(shared);
  const perform = (call: Call) => {
    const found = problemOf(() => session.perform(call));
    setProblem(found);
    if (!found) setAsking(null);
  };
  const save = (event: FormEvent) => {
    event.preventDefault();
    if (asking === 'rename') perform({ operation: 'renameProfile', input: { profile: linked!.id, name } });
    else perform({ operation: 'saveProfile', input: { name, port: ports[0]!.id } });
  };
  const ask = (what: Asking, start: string) => {
    setAsking(what);
    setName(start);
  };
  return (
    <div className="flex flex-wrap items-center gap-x-2 gap-y-1 pt-1 text-[14px]">
      <span className="text-muted">Profile</span>
      <span className="min-w-28 flex-1">
        <Choice
          label="Profile"
          value={linked?.id ?? ''}
          options={[
            { value: '', label: 'none' },
            ...profiles.map(({ id, name: label }) => ({ value: id, label })),
          ]}
          onChoose={(profile) =>
            profile
              ? perform({
                  operation: 'applyProfile',
                  input: { ports: ports.map((port) => port.id), profile },
                })
              : perform({ operation: 'detachProfile', input: { ports: ports.map((port) => port.id) } })
          }
        />
      </span>
      {asking === null && (
        <>
          <button type="button" className="link" onClick={() => ask('keep', linked?.name ?? '')}>
            keep as profile
          </button>
          {linked && (
            <>
              <button type="button" className="link" onClick={() => ask('rename', linked.name)}>
                rename
              </button>
              <button
                type="button"
                className="link"
                onClick={() => perform({ operation: 'removeProfile', input: { profile: linked.id } })}
              >
                remove
              </button>
            </>
          )}
        </>
      )}
      {asking !== null && (
        <form onSubmit={save} className="flex w-full items-center gap-2">
          <input
            className="field field-line"
            aria-label="Name of the profile"
            placeholder="camera"
            value={name}
            autoFocus
            onChange={(event) => setName(event.target.value)}
            onKeyDown={(event) => event.key === 'Escape' && setAsking(null)}
          />
          <button type="submit" className="button">
            {asking === 'rename' ? 'Rename' : 'Keep'}
          </button>
        </form>
      )}
      <Problem text={problem} className="w-full" />
    </div>
  );
}
