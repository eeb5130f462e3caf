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
  const set = (field: string, value: unknown, seen?: unknown) => edit('port', port.id, field, value, seen);
  return (
    <div className="pt-2" aria-label={`Facts of port ${port.number}`}>
      <Property label="Label">
        <Field
          label="Label"
          value={port.label}
          placeholder="none"
          onCommit={(text, seen) => set('label', text, seen)}
        />
      </Property>
      {!passive && (
        <>
          <Property label="In the config">
            <Field
              mono
              label="Name in the configuration"
              value={port.name}
              placeholder="none"
              onCommit={(text, seen) => set('name', text, seen)}
            />
          </Property>
          <Property label="Index inside">
            <Field
              mono
              label="Index inside"
              value={port.index === null ? '' : String(port.index)}
              placeholder="none"
              onCommit={(text) => set('index', text === '' ? null : wholeNumber(text, 'Index'), port.index)}
            />
          </Property>
          <Property label="Medium">
            <Choice
              label="Medium"
              value={port.media}
              options={media}
              onChoose={(value) => set('media', value)}
            />
          </Property>
          {port.media !== 'copper' && (
            <Property label="Optic">
              <Field
                label="Optic"
                value={port.optic}
                placeholder="none"
                onCommit={(text, seen) => set('optic', text, seen)}
              />
            </Property>
          )}
          <Property label="Mbit/s">
            <Field
              mono
              label="Speed in Mbit/s"
              value={String(port.speed)}
              onCommit={(text) => set('speed', wholeNumber(text, 'Speed'), port.speed)}
            />
          </Property>
          <Property label="PoE class">
            <Field
              mono
              label="PoE class"
              value={port.poeClass === null ? '' : String(port.poeClass)}
              placeholder="none"
              onCommit={(text) =>
                set('poeClass', text === '' ? null : wholeNumber(text, 'PoE class'), port.poeClass)
              }
            />
          </Property>
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
