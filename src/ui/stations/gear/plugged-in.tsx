'use client';

import { useState } from 'react';
import { endIn } from '@/core/edit';
import { type Plan, type Device, boxOf } from '@/core/plan';
import { portsOf, leadsTo } from '@/core/model/wiring';
import { orNone, useEdit, wholeNumber } from '../../session/actions';
import { problemOf } from '../../session/attempt';
import { useSession } from '../../session/context';
import { Field } from '../../parts/field';
import { Problem } from '../../parts/problem';
import { Property } from '../../parts/property';
import { Toggle } from '../../parts/tick';

/** Where an end device is plugged in, to be typed here or laid under Gear & ports: one and the same cable. */
export function PluggedIn({ plan, device }: { plan: Plan; device: Device }) {
  const session = useSession();
  const edit = useEdit();
  const [problem, setProblem] = useState('');
  if (boxOf(plan, device.id) || plan.box.size === 0) return null;
  const port = portsOf(plan, device.id)[0];
  return (
    <>
      <Property label="Plugged into">
        <Field
          mono
          label="Plugged into"
          value={port ? leadsTo(plan, port) : ''}
          placeholder="sw-a 5"
          onCommit={(text) =>
            session.perform({
              operation: 'plugDevice',
              input: {
                device: device.id,
                into: text === '' || /^none$/i.test(text) ? null : endIn(plan, text),
              },
            })
          }
        />
      </Property>
      {port && device.kind === 'phone' && (
        <button
          type="button"
          className="button my-1"
          onClick={() =>
            setProblem(
              problemOf(() => session.perform({ operation: 'passThrough', input: { device: device.id } })),
            )
          }
        >
          It has a socket for a computer
        </button>
      )}
      <Problem text={problem} className="text-[13px]" />
      {port && device.kind === 'phone' && (
        <Toggle
          label="takes tagged frames only"
          checked={port.accepts === 'tagged'}
          onChange={(only) => edit('port', port.id, 'accepts', only ? 'tagged' : 'all', port.accepts)}
        />
      )}
      {port && (
        <Property label="PoE class">
          <Field
            mono
            label="PoE class it asks for"
            value={port.poeClass === null ? '' : String(port.poeClass)}
            placeholder="none"
            onCommit={(text) =>
              edit(
                'port',
                port.id,
                'poeClass',
                orNone(text, (written) => wholeNumber(written, 'PoE class')),
                port.poeClass,
              )
            }
          />
        </Property>
      )}
    </>
  );
}
