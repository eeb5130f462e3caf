'use client';

import { type FormEvent, useState } from 'react';
import type { Plan } from '@/core/plan/plan';
import { matchText, standardServices } from '@/core/policy/services';
import { problemOf } from '../../session/attempt';
import { useSession } from '../../session/context';
import { Problem } from '../../parts/problem';

/** Services by name: those of this site, and what the standard ones are. */
export function OwnServices({ plan }: { plan: Plan }) {
  const session = useSession();
  const [name, setName] = useState('');
  const [ports, setPorts] = useState('');
  const [problem, setProblem] = useState('');
  const own = [...plan.service.values()].sort((a, b) => a.name.localeCompare(b.name));
  const add = (event: FormEvent) => {
    event.preventDefault();
    const found = problemOf(() => session.perform({ operation: 'addService', input: { name, ports } }));
    setProblem(found);
    if (!found) {
      setName('');
      setPorts('');
    }
  };
  return (
    <section aria-label="Services of this site" className="max-w-[860px]">
      <h3 className="border-b-2 border-ink font-bold">Services of this site</h3>
      <ul className="text-[14px]">
        {own.map((service) => (
          <li key={service.id} className="flex items-center justify-between gap-2 border-b border-rule">
            <span>
              <b>{service.name}</b> <span className="mono">{service.matches.map(matchText).join(', ')}</span>
            </span>
            <button
              type="button"
              className="link"
              aria-label={`Remove the service ${service.name}`}
              onClick={() => session.perform({ operation: 'removeService', input: { service: service.id } })}
            >
              remove
            </button>
          </li>
        ))}
      </ul>
      <form aria-label="New service" onSubmit={add} className="flex flex-wrap items-end gap-2 py-1">
        <label className="w-[180px] text-[13px]">
          Name
          <input
            className="field field-line"
            value={name}
            placeholder="filler control"
            autoComplete="off"
            onChange={(event) => setName(event.target.value)}
          />
        </label>
        <label className="w-[220px] text-[13px]">
          Ports
          <input
            className="field field-line mono"
            value={ports}
            placeholder="tcp 9443, udp 5000-5010"
            autoComplete="off"
            onChange={(event) => setPorts(event.target.value)}
          />
        </label>
        <button type="submit" className="button">
          Add service
        </button>
        <Problem text={problem} className="w-full text-[14px]" />
      </form>
      <details className="text-[14px]">
        <summary className="min-h-7 cursor-pointer">The standard services</summary>
        <ul className="columns-2 gap-6 max-[699px]:columns-1">
          {standardServices.map((service) => (
            <li key={service.id}>
              {service.name}{' '}
              <span className="mono text-muted">{service.matches.map(matchText).join(', ')}</span>
            </li>
          ))}
        </ul>
      </details>
    </section>
  );
}
