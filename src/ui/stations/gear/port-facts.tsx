'use client';

import { portMedia, selfRoles } from '@/core/plan/gear';
import type { Plan } from '@/core/plan/plan';
import type { Port } from '@/core/plan/records';
import { useEdit, wholeNumber } from '../../session/actions';
import { Choice, Field } from '../../parts/field';
import { Property, Toggle } from '../../parts/property';

const media = portMedia.filter((value) => value !== 'inner').map((value) => ({ value, label: value }));
const selfWords = {
  no: 'no',
  neighbour: 'by what is plugged in',
  mac: 'by the first half of the MAC',
} as const;
const self = selfRoles.map((value) => ({ value, label: selfWords[value] }));

/** What a port is, beside what it carries. */
export function PortFacts({
  plan,
  ports,
  passive,
}: {
  plan: Plan;
  ports: readonly Port[];
  passive: boolean;
}) {
  const edit = useEdit();
  const [port] = ports;
  if (ports.length !== 1 || !port || port.number === 0) return null;
  const set = (field: keyof Port, value: unknown, seen?: unknown) =>
    edit('port', port.id, field, value, seen);
  const text = (label: string, field: 'label' | 'name' | 'optic', name = label) => (
    <Property label={label}>
      <Field
        mono={field === 'name'}
        label={name}
        value={port[field]}
        placeholder="none"
        onCommit={(typed, seen) => set(field, typed, seen)}
      />
    </Property>
  );
  const number = (label: string, field: 'index' | 'speed' | 'poeClass', name = label) => (
    <Property label={label}>
      <Field
        mono
        label={name}
        value={port[field] === null ? '' : String(port[field])}
        placeholder="none"
        onCommit={(typed) => set(field, typed === '' ? null : wholeNumber(typed, name), port[field])}
      />
    </Property>
  );
  return (
    <div className="pt-2" aria-label={`Facts of port ${port.number}`}>
      {text('Label', 'label')}
      {!passive && (
        <>
          {text('In the config', 'name', 'Name in the configuration')}
          {number('Index inside', 'index')}
          <Property label="Medium">
            <Choice
              label="Medium"
              value={port.media}
              options={media}
              onChoose={(value) => set('media', value)}
            />
          </Property>
          {port.media !== 'copper' && text('Optic', 'optic')}
          {number('Mbit/s', 'speed', 'Speed in Mbit/s')}
          {number('PoE class', 'poeClass')}
          <Property label="Sets itself">
            <Choice
              label="Sets its role itself"
              value={port.setsItself}
              options={self}
              onChoose={(value) => set('setsItself', value)}
            />
          </Property>
          <Toggle
            label="strangers can reach it"
            checked={port.exposed}
            onChange={(on) => set('exposed', on, port.exposed)}
          />
        </>
      )}
      <Toggle
        label="defective"
        checked={port.defective}
        onChange={(on) => set('defective', on, port.defective)}
      />
      {plan.device.get(port.device)!.kind === 'outlet' && (
        <p className="text-[13px] text-muted">Number as printed on the wall plate.</p>
      )}
    </div>
  );
}
