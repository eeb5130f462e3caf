'use client';

import { type Plan, boxOf, equal, modelOf, presentOf, presentStates } from '@/core/plan';
import { boxesInOrder } from '@/core/model/switching';
import { useSession } from '../../session/context';
import { useRecordPlanned } from '../../session/record-planned';
import { Choice } from '../../parts/choice';
import { ColumnHeads } from '../../parts/column-heads';
import { Field } from '../../parts/field';
import { Problem } from '../../parts/problem';
import { factoryAddress, factoryAddressText } from './factory-address';
import { ModelList } from './models';

/** How each box is before work begins, and what is known of the models. */
export function BoxesNow({ plan }: { plan: Plan }) {
  const session = useSession();
  // From then on it is told what the plan says otherwise.
  const { record: sayPlanned, problem } = useRecordPlanned();
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
    <>
      <Problem text={problem} />
      <table className="schedule text-[14px]" aria-label="How boxes are now">
        <ColumnHeads columns={['Box', 'Model', 'Now', 'Address it has now']} />
        <tbody>
          {boxes.map(({ id, name }) => {
            const now = presentOf(plan, id);
            const { state, asOf } = now;
            const like = others(id);
            const known = modelOf(plan, id);
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
                    onChoose={(value) =>
                      value === 'as-planned' ? void sayPlanned([id]) : say([id], { state: value, asOf: null })
                    }
                  />
                </td>
                <td>
                  <div className="flex flex-wrap items-center gap-2">
                    {state === 'as-planned' ? (
                      <span className="text-[13px] text-muted">
                        {asOf === null ? 'as it is planned now' : `as it was planned at change ${asOf}`}
                      </span>
                    ) : (
                      <span className="w-[200px]">
                        <Field
                          label={`Address ${name} ${state === 'as-found' ? 'was found at' : 'comes with'}`}
                          mono
                          placeholder={
                            (known && factoryAddressText(known.address, known.length)) || 'not looked up'
                          }
                          value={factoryAddressText(now.address, now.length)}
                          onCommit={(text) => say([id], factoryAddress(text))}
                        />
                      </span>
                    )}
                    {like.length > 0 && plan.present.by('device', id).length > 0 && (
                      <button
                        type="button"
                        className="button"
                        aria-label={`As ${name}: ${like.length} more like it`}
                        onClick={() =>
                          state === 'as-planned'
                            ? void sayPlanned(like)
                            : say(like, {
                                state,
                                ...factoryAddress(factoryAddressText(now.address, now.length)),
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
      <ModelList plan={plan} boxes={boxes.map(({ id }) => boxOf(plan, id)!)} />
    </>
  );
}
