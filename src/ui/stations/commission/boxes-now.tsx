'use client';

import { formatAddress, parseAddress, parseMask } from '@/core/address';
import { type Plan, badInput, boxOf, presentStates } from '@/core/plan';
import { boxesInOrder } from '@/core/model/switching';
import { useSession } from '../../session/context';
import { Choice } from '../../parts/choice';
import { ColumnHeads } from '../../parts/column-heads';
import { Field } from '../../parts/field';

/** How each box is before work begins. */
export function BoxesNow({ plan }: { plan: Plan }) {
  const session = useSession();
  const boxes = boxesInOrder(plan)
    .map(({ device }) => plan.device.get(device)!)
    .filter(({ id }) => boxOf(plan, id)?.vlanAware);
  const say = (device: string, set: object) =>
    void session.perform({ operation: 'setPresent', input: { devices: [device], set } });
  return (
    <table className="schedule text-[14px]" aria-label="How boxes are now">
      <ColumnHeads columns={['Box', 'Model', 'Now', 'Address it comes with']} />
      <tbody>
        {boxes.map(({ id, name }) => {
          const [now] = plan.present.by('device', id);
          const state = now?.state ?? 'as-it-comes';
          return (
            <tr key={id} data-record={id}>
              <th scope="row" className="mono text-left whitespace-nowrap">
                {name}
              </th>
              <td>{boxOf(plan, id)!.model}</td>
              <td>
                <Choice
                  label={`${name} now`}
                  value={state}
                  options={presentStates.map((value) => ({ value, label: value.replaceAll('-', ' ') }))}
                  onChoose={(value) => say(id, { state: value })}
                />
              </td>
              <td>
                {state === 'as-it-comes' && (
                  <Field
                    label={`Address ${name} comes with`}
                    mono
                    placeholder="not looked up"
                    value={now?.address ? `${formatAddress(now.address)}/${now.length}` : ''}
                    onCommit={(text) => say(id, comesWith(text))}
                  />
                )}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

function comesWith(text: string): object {
  if (text === '') return { address: null };
  const [host = '', mask = '24'] = text.split('/');
  const [address, length] = [parseAddress(host.trim()), parseMask(mask.trim())];
  if (address === null || length === null || length < 8 || length > 30)
    throw badInput(
      `“${text}” is no address with a mask; write one like 192.168.0.1/24, as the box has it when it is new.`,
      'address',
    );
  return { address: formatAddress(address), length };
}
