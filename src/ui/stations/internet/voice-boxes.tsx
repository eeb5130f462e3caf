'use client';

import { formatPrefix } from '@/core/address';
import type { Plan, VoiceBox } from '@/core/plan';
import { EF, losses } from '@/core/model/uplink';
import { orNone, useEdit } from '../../session/actions';
import { Field } from '../../parts/field';
import { Lines } from '../../parts/lines';
import { RecordField } from '../../parts/record-field';
import { Property } from '../../parts/property';
import { oneNetwork } from './typed-networks';

const named = (plan: Plan, device: string) => plan.device.get(device)!.name;

/** The provider's boxes kept behind the gateway for the telephones. */
export function VoiceBoxes({ plan }: { plan: Plan }) {
  const kept = new Set([...plan.voiceBox.values()].map(({ device }) => device));
  const boxes = [...plan.device.values()].filter(({ id, kind }) => kind === 'provider-box' && !kept.has(id));
  if (boxes.length === 0 && kept.size === 0) return null;
  return (
    <Lines
      title="Telephone box kept behind the gateway"
      about="For a provider’s box that only the telephones need: what it must find here, and what is lost when."
      lines={[...plan.voiceBox.values()].map((box) => ({
        id: box.id,
        shown: <VoiceBoxLine plan={plan} box={box} />,
        removal: `Remove ${named(plan, box.device)} from those kept`,
        remove: { operation: 'dropVoiceBox', input: { box: box.id } },
      }))}
      blanks={
        boxes.length === 0
          ? []
          : [
              {
                name: 'device',
                label: 'Provider’s box',
                width: 170,
                options: boxes.map(({ id, name }) => ({ value: id, label: name })),
              },
            ]
      }
      action="Keep it"
      onAdd={({ device }) => ({ operation: 'keepVoiceBox', input: { device } })}
    />
  );
}

function VoiceBoxLine({ plan, box }: { plan: Plan; box: VoiceBox }) {
  const edit = useEdit();
  const name = named(plan, box.device);
  const uplink = plan.uplink.get(box.uplink)!;
  const own = box.own === null ? '' : formatPrefix(box.own);
  return (
    <div className="py-1">
      <p>
        <b>{name}</b> calls over {uplink.name}
        {uplink.providerVlan === null ? '' : `, provider’s tag ${uplink.providerVlan}`}
      </p>
      <div className="flex flex-wrap gap-x-5">
        {(['needsTag', 'tagRepeated', 'firstInQueue', 'backedUp'] as const).map((field) => (
          <RecordField key={field} table="voiceBox" record={box} field={field} />
        ))}
      </div>
      <div className="max-w-[420px]">
        <RecordField table="voiceBox" record={box} field="dscp" of={name} placeholder={`EF ${EF}`} />
        <Property label="Its own network">
          <Field
            mono
            label={`Own network of ${name}`}
            value={own}
            placeholder="none"
            onCommit={(typed) =>
              edit(
                'voiceBox',
                box.id,
                'own',
                orNone(typed, (text) => oneNetwork(text, 'own')),
                own || null,
              )
            }
          />
        </Property>
      </div>
      <ul className="list-[square] pl-5">
        {losses(plan, box).map((loss) => (
          <li key={loss}>{loss}</li>
        ))}
      </ul>
    </div>
  );
}
