'use client';

import { type Plan, type Telephony, vlansOf } from '@/core/plan';
import { telephoniesOf, telephonyOf } from '@/core/model/guards';
import { useSession } from '../../session/context';
import { Fold } from '../../parts/fold';
import { Form, FormChoice, useTypedForm } from '../../parts/form';
import { RecordField } from '../../parts/record-field';
import { TelephoneHere } from './telephone-here';
import { VoiceHops } from './voice-hops';
import { VoiceSwitchHere } from './voice-switch-here';

/** Telephones: how one starts at a port, what they are told, what boxes do for voice, and what another voice VLAN would do. */
export function TelephonesView({ plan }: { plan: Plan }) {
  return (
    <>
      <TelephoneHere plan={plan} />
      <Told plan={plan} />
      <VoiceHops plan={plan} />
      <VoiceSwitchHere plan={plan} />
    </>
  );
}

const optionWords = { '66': '66, name or URL', '150': '150, addresses' };

function Told({ plan }: { plan: Plan }) {
  const session = useSession();
  const form = useTypedForm(
    { vlan: '' },
    ({ vlan }) => void session.perform({ operation: 'addTelephony', input: { vlan } }),
    { clear: ['vlan'] },
  );
  const left = vlansOf(plan).filter(({ id, purpose }) => purpose === 'voice' && !telephonyOf(plan, id));
  return (
    <section aria-label="What telephones are told" className="pt-5">
      <h3 className="border-b-2 border-ink font-bold">What they are told</h3>
      {telephoniesOf(plan).map((one) => (
        <Fold key={one.id} id="telephony" title={plan.vlan.get(one.vlan)!.name} told={aboutTold(one)}>
          <ToldFields plan={plan} one={one} />
        </Fold>
      ))}
      {left.length > 0 && (
        <Form form={form} label="New telephone settings">
          <FormChoice
            name="vlan"
            label="Segment"
            options={left.map(({ id, name, vid }) => ({ value: id, label: `${vid} ${name}` }))}
            width={220}
          />
          <button type="submit" className="button">
            Record it
          </button>
        </Form>
      )}
      {left.length === 0 && telephoniesOf(plan).length === 0 && (
        <p className="text-muted">No segment has the purpose voice yet.</p>
      )}
    </section>
  );
}

const aboutTold = ({ boot, bootOption, registrar, dscp }: Telephony): string =>
  [
    boot === '' ? 'no boot server' : `option ${bootOption}: ${boot}`,
    registrar === '' ? 'registrar not recorded' : `registers at ${registrar}`,
    `DSCP ${dscp}`,
  ].join(', ');

function ToldFields({ plan, one }: { plan: Plan; one: Telephony }) {
  const session = useSession();
  const { name } = plan.vlan.get(one.vlan)!;
  return (
    <div className="grid max-w-[760px] gap-x-6 min-[900px]:grid-cols-2">
      <div>
        <RecordField table="telephony" record={one} field="boot" of={name} placeholder="none" />
        <RecordField table="telephony" record={one} field="bootOption" of={name} words={optionWords} />
        <RecordField table="telephony" record={one} field="registrar" of={name} placeholder="not recorded" />
      </div>
      <div>
        {(['priority', 'dscp', 'signalling'] as const).map((field) => (
          <RecordField key={field} table="telephony" record={one} field={field} of={name} />
        ))}
        <button
          type="button"
          className="button mt-2"
          onClick={() => session.perform({ operation: 'removeTelephony', input: { id: one.id } })}
        >
          Record it no longer
        </button>
      </div>
    </div>
  );
}
