'use client';

import { type Plan, standardServices } from '@/core/plan';
import { matchText } from '@/core/model/policy';
import { Lines } from '../../parts/lines';

/** Services by name: those of this site, and what the standard ones are. */
export function OwnServices({ plan }: { plan: Plan }) {
  const own = [...plan.service.values()].sort((a, b) => a.name.localeCompare(b.name));
  return (
    <Lines
      title="Services of this site"
      lines={own.map((service) => ({
        id: service.id,
        shown: (
          <>
            <b>{service.name}</b> <span className="mono">{service.matches.map(matchText).join(', ')}</span>
          </>
        ),
        removal: `Remove the service ${service.name}`,
        remove: { operation: 'removeService', input: { service: service.id } },
      }))}
      blanks={[
        { name: 'name', label: 'Name', placeholder: 'filler control', width: 180 },
        { name: 'ports', label: 'Ports', placeholder: 'tcp 9443, udp 5000-5010', width: 220, mono: true },
      ]}
      action="Add service"
      onAdd={(typed) => ({ operation: 'addService', input: typed })}
    >
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
    </Lines>
  );
}
