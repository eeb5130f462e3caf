'use client';

import { formatPrefix } from '@/core/address';
import { type Plan, type Forward, badInput, portsText } from '@/core/plan';
import { cardNamed, targetOf, uplinksOf } from '@/core/model/uplink';
import { useEdit } from '../../session/actions';
import { useSession } from '../../session/context';
import { useView } from '../../session/view';
import { Choice } from '../../parts/choice';
import { Field } from '../../parts/field';
import { RecordField } from '../../parts/record-field';
import { Property } from '../../parts/property';
import { Listeners } from './listeners';
import { typedForward, typedSources } from './typed-forward';
import { protocolWords } from './words';

/** A forward: which outside ports lead where, who may come. */
export function ForwardInspector({ plan, forward }: { plan: Plan; forward: Forward }) {
  const session = useSession();
  const edit = useEdit();
  const set = useView((state) => state.set);
  const target = targetOf(plan, forward);
  const span = forward.to - forward.from;
  const outside = span === 0 ? String(forward.from) : `${forward.from}-${forward.to}`;
  const change = (field: keyof Forward, value: unknown, seen?: unknown) =>
    edit('forward', forward.id, field, value, seen);
  const sources = forward.sources.map(formatPrefix);
  return (
    <section aria-label="Chosen forward" className="pb-4">
      <h2 className="mono font-bold">{portsText(forward.protocol, forward.from, forward.to)}</h2>
      <Property label="On">
        <Choice
          label="Uplink of the forward"
          value={forward.uplink}
          options={uplinksOf(plan).map(({ id, name }) => ({ value: id, label: name }))}
          onChoose={(uplink) => {
            session.perform({ operation: 'moveForward', input: { forward: forward.id, uplink } });
            set({ uplink });
          }}
        />
      </Property>
      <RecordField table="forward" record={forward} field="protocol" of="the forward" words={protocolWords} />
      <Property label="Outside">
        <Field
          mono
          label="Outside ports"
          value={outside}
          onCommit={(text) => {
            if (text === '')
              throw badInput('The outside ports are empty; write one, or a range like 5000-5009.', 'from');
            const { inside, from = inside, count = 1 } = typedForward(text, String(forward.inside));
            session.perform({
              operation: 'edit',
              input: {
                table: 'forward',
                id: forward.id,
                set: { from, to: from + count - 1 },
                seen: { from: forward.from, to: forward.to },
              },
            });
          }}
        />
      </Property>
      <Property label="Leads to">
        <Field
          label="Device it leads to"
          value={target.name}
          onCommit={(text) =>
            void session.perform({
              operation: 'retargetForward',
              input: { forward: forward.id, target: cardNamed(plan, text).id },
            })
          }
        />
      </Property>
      <Property label="Inside">
        <Field
          mono
          label="First inside port"
          value={String(forward.inside)}
          onCommit={(text) => change('inside', typedForward('', text).inside, forward.inside)}
        />
      </Property>
      <Property label="May come">
        <Field
          mono
          label="Who may come"
          value={sources.join(', ')}
          placeholder="anybody, or 203.0.113.0/28"
          onCommit={(text) => change('sources', typedSources(text), sources)}
        />
      </Property>
      <RecordField table="forward" record={forward} field="note" of="the forward" placeholder="for whom" />
      <RecordField table="forward" record={forward} field="enabled" />
      <RecordField table="forward" record={forward} field="hairpin" />
      <Listeners plan={plan} device={target} />
      <button
        type="button"
        className="button mt-3"
        onClick={() => {
          session.perform({ operation: 'removeForward', input: { forward: forward.id } });
          set({ forward: null });
        }}
      >
        Remove the forward
      </button>
    </section>
  );
}
