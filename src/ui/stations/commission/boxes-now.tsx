'use client';

import { formatAddress, parseAddress, parseMask } from '@/core/address';
import { type Plan, badInput, boxOf, equal, presentOf, presentStates } from '@/core/plan';
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
  const say = (devices: readonly string[], set: object) =>
    void session.perform({ operation: 'setPresent', input: { devices, set } });
  /** Those of the same model of which something else is said. */
  const others = (device: string) =>
    boxes
      .map(({ id }) => id)
      .filter(
        (id) =>
          boxOf(plan, id)!.model === boxOf(plan, device)!.model &&
          !equal(presentOf(plan, id), presentOf(plan, device)),
      );
  return (
    <table className="schedule text-[14px]" aria-label="How boxes are now">
      <ColumnHeads columns={['Box', 'Model', 'Now', 'Address it comes with']} />
      <tbody>
        {boxes.map(({ id, name }) => {
          const now = presentOf(plan, id);
          const { state } = now;
          const like = others(id);
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
                  onChoose={(value) => say([id], { state: value })}
                />
              </td>
              <td>
                <div className="flex flex-wrap items-center gap-2">
                  {state === 'as-it-comes' && (
                    <span className="w-[200px]">
                      <Field
                        label={`Address ${name} comes with`}
                        mono
                        placeholder="not looked up"
                        value={now.address !== null ? `${formatAddress(now.address)}/${now.length}` : ''}
                        onCommit={(text) => say([id], comesWith(text))}
                      />
                    </span>
                  )}
                  {like.length > 0 && plan.present.by('device', id).length > 0 && (
                    <button
                      type="button"
                      className="button"
                      aria-label={`As ${name}: ${like.length} more like it`}
                      onClick={() =>
                        say(like, {
                          ...now,
                          address: now.address === null ? null : formatAddress(now.address),
                        })
                      }
                    >
                      {like.length} more like it
                    </button>
                  )}
                </div>
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
