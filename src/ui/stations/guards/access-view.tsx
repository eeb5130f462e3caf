'use client';

import { type Access, type Plan, badInput, vlansOf } from '@/core/plan';
import { accessesOf, accessWords, askingPorts, hostWords, methodWords } from '@/core/model/guards';
import { serviceNames, typedServices } from '@/core/model/policy';
import { useSession } from '../../session/context';
import { orNone, useEdit } from '../../session/actions';
import { Choice } from '../../parts/choice';
import { Field } from '../../parts/field';
import { Fold } from '../../parts/fold';
import { Form, FormLine, useTypedForm } from '../../parts/form';
import { Property } from '../../parts/property';
import { RecordField } from '../../parts/record-field';
import { AuthenticateHere } from './authenticate-here';
import { DevicesAsked } from './devices-asked';
import { Servers } from './servers';
import { UnaskedPorts } from './unasked-ports';

/** Who is let in: how ports ask, whom they ask, by what devices are known, and what a device there lives through. */
export function AccessView({ plan }: { plan: Plan }) {
  return (
    <>
      <AuthenticateHere plan={plan} />
      <WaysIn plan={plan} />
      <Servers plan={plan} />
      <DevicesAsked plan={plan} />
      <UnaskedPorts plan={plan} />
    </>
  );
}

function WaysIn({ plan }: { plan: Plan }) {
  const session = useSession();
  const form = useTypedForm(
    { name: '' },
    ({ name }) => void session.perform({ operation: 'addAccess', input: { name } }),
    { clear: ['name'] },
  );
  return (
    <section aria-label="Ways in" className="pt-5">
      <h3 className="border-b-2 border-ink font-bold">How ports ask</h3>
      {accessesOf(plan).map((access) => (
        <Fold key={access.id} id="way-in" title={access.name} told={aboutAccess(plan, access)}>
          <AccessFields plan={plan} access={access} />
        </Fold>
      ))}
      <Form form={form} label="New way in">
        <FormLine name="name" label="New way in" placeholder="desks" width={200} />
        <button type="submit" className="button">
          Add it
        </button>
      </Form>
    </section>
  );
}

function aboutAccess(plan: Plan, access: Access): string {
  const ports = askingPorts(plan).filter((asking) => asking.access.id === access.id).length;
  return `${accessWords[access.mode]}, at ${ports} ${ports === 1 ? 'port' : 'ports'}`;
}

function AccessFields({ plan, access }: { plan: Plan; access: Access }) {
  const session = useSession();
  const edit = useEdit();
  const field = (name: keyof Access & string, words?: Readonly<Record<string, string>>) => (
    <RecordField table="access" record={access} field={name} of={access.name} {...(words ? { words } : {})} />
  );
  const segment = (name: 'guest' | 'failed' | 'critical', label: string) => (
    <Property label={label}>
      <Choice
        label={`${label}, ${access.name}`}
        value={access[name] ?? ''}
        options={[
          { value: '', label: 'kept out' },
          ...vlansOf(plan).map(({ id, vid, code, name: called }) => ({
            value: id,
            label: `${vid} ${code} ${called}`,
          })),
        ]}
        onChoose={(vlan) => edit('access', access.id, name, vlan || null)}
      />
    </Property>
  );
  return (
    <div className="grid max-w-[760px] gap-x-6 min-[900px]:grid-cols-2">
      <div>
        {field('name')}
        {field('mode', accessWords)}
        {field('methods', methodWords)}
        {access.mode === 'limited' && (
          <Property label="Passes before">
            <Field
              label={`Passes before, ${access.name}`}
              value={access.services.length ? serviceNames(plan, access.services) : ''}
              placeholder="nothing"
              onCommit={(text) => {
                const services = orNone(text, (typed) => typedServices(plan, typed), 'nothing');
                // What is everything for a rule would need no asking here.
                if (services?.length === 0)
                  throw badInput(
                    `“${text}” would need no asking; name what passes before, or write nothing.`,
                    'services',
                  );
                edit('access', access.id, 'services', services ?? [], access.services);
              }}
            />
          </Property>
        )}
        {field('hosts', hostWords)}
        {field('period')}
        {field('tries')}
        {field('group')}
      </div>
      <div>
        {field('takesVlan')}
        {field('takesList')}
        {segment('guest', 'No answer')}
        {segment('failed', 'Refused')}
        {segment('critical', 'No server')}
        {field('again')}
        {field('accounting')}
        <button
          type="button"
          className="button mt-2"
          onClick={() =>
            session.perform({
              operation: 'removeFromAccess',
              input: { table: 'access', ids: [access.id] },
            })
          }
        >
          Remove {access.name}
        </button>
      </div>
    </div>
  );
}
