'use client';

import { type Plan, kinds, fieldsOf } from '@/core/plan';
import { hardenable, hopOf } from '@/core/model/guards';
import { useSession } from '../../session/context';
import { Choice } from '../../parts/choice';
import { ColumnHeads } from '../../parts/column-heads';

const COLUMNS = ['announces', 'marks', 'queue'] as const;
const known = fieldsOf(kinds.voiceHop.fields).filter(({ name }) =>
  (COLUMNS as readonly string[]).includes(name),
);

/** What every box does for voice. */
export function VoiceHops({ plan }: { plan: Plan }) {
  const session = useSession();
  const boxes = hardenable(plan);
  if (boxes.length === 0) return null;
  return (
    <section aria-label="Voice on its way" className="pt-5">
      <h3 className="border-b-2 border-ink font-bold">What boxes do for voice</h3>
      <div className="relative overflow-x-auto">
        <table className="schedule text-[14px]" aria-label="What boxes do for voice">
          <ColumnHeads columns={['Box', 'Tells the VLAN', 'Marks of voice', 'Voice first']} />
          <tbody>
            {boxes.map(({ id, name }) => (
              <tr key={id} data-record={id}>
                <th scope="row" className="mono text-left whitespace-nowrap">
                  {name}
                </th>
                {known.map((field) => {
                  const column = field.name as (typeof COLUMNS)[number];
                  return (
                    <td key={column}>
                      <Choice
                        label={`${name}: ${field.label}`}
                        value={hopOf(plan, id)[column]}
                        options={field.values!.map((value) => ({
                          value,
                          label: value === 'unknown' ? 'not recorded' : value,
                        }))}
                        onChoose={(value) =>
                          session.perform({
                            operation: 'setVoiceHop',
                            input: { devices: [id], set: { [column]: value } },
                          })
                        }
                      />
                    </td>
                  );
                })}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}
