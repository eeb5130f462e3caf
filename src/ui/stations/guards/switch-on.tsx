'use client';

import { useMemo, useState } from 'react';
import { type Device, type Plan, vlansOf } from '@/core/plan';
import { type VlanGuards, guardWords, vlanGuardOf } from '@/core/model/guards';
import { switchedOn, switchOnOrder } from '@/core/edit';
import { vlanIsAt } from '@/core/rehearse';
import { attempt, problemOf } from '../../session/attempt';
import { useSession } from '../../session/context';
import { Problem } from '../../parts/problem';
import { Toggle } from '../../parts/tick';
import { CutOffList } from './cut-off-list';

type Ticked = ReadonlySet<string>;
const flipped = (ticked: Ticked, id: string, on: boolean): Ticked =>
  new Set(on ? [...ticked, id] : [...ticked].filter((one) => one !== id));

/** What would happen if guards were switched on now, in which order it is safe, and the change that makes it right. */
export function SwitchOn({
  plan,
  able,
  onClose,
}: {
  plan: Plan;
  able: readonly Device[];
  onClose: () => void;
}) {
  const session = useSession();
  const [guards, setGuards] = useState<Ticked>(new Set(['snooping', 'inspection']));
  const [boxes, setBoxes] = useState<Ticked>(new Set(able.map(({ id }) => id)));
  const there = vlansOf(plan).filter(({ id }) => able.some((box) => vlanIsAt(plan, box.id, id)));
  const [vlans, setVlans] = useState<Ticked>(
    new Set(there.filter(({ purpose }) => purpose !== 'parking').map(({ id }) => id)),
  );
  const [problem, setProblem] = useState('');
  const input = useMemo(
    () => ({
      devices: able.map(({ id }) => id).filter((id) => boxes.has(id)),
      vlans: there.map(({ id }) => id).filter((id) => vlans.has(id)),
      set: Object.fromEntries([...guards].map((guard) => [guard, true])) as Partial<VlanGuards>,
    }),
    // The lists follow from the plan.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [plan, guards, boxes, vlans],
  );
  const tried = useMemo(
    () =>
      input.devices.length * input.vlans.length * guards.size === 0
        ? null
        : attempt(() => {
            const bare = switchedOn(plan, input, false);
            const right = switchedOn(plan, input, true);
            return { bare, right, order: switchOnOrder(plan, right) };
          }),
    [plan, input, guards],
  );
  const take = () => {
    const found = problemOf(() => session.perform({ operation: 'switchOnGuards', input }));
    setProblem(found);
    if (!found) onClose();
  };
  const done =
    input.devices.length > 0 &&
    input.devices.every((device) =>
      input.vlans.every((vlan) =>
        [...guards].every((guard) => vlanGuardOf(plan, device, vlan)?.[guard as keyof VlanGuards]),
      ),
    );
  return (
    <section aria-label="Switch guards on" className="mb-5 border-2 border-ink bg-sheet p-3">
      <h3 className="font-bold">If it were switched on now</h3>
      <div className="grid gap-x-6 gap-y-2 pt-1 min-[900px]:grid-cols-3">
        <fieldset>
          <legend className="font-semibold">What</legend>
          {guardWords.map(({ guard, about }) => (
            <Toggle
              key={guard}
              label={about.split(':')[0]!.split(' (')[0]!}
              checked={guards.has(guard)}
              onChange={(on) => setGuards(flipped(guards, guard, on))}
            />
          ))}
        </fieldset>
        <fieldset className="max-h-[220px] overflow-y-auto">
          <legend className="font-semibold">Where</legend>
          {able.map(({ id, name }) => (
            <Toggle
              key={id}
              label={name}
              checked={boxes.has(id)}
              onChange={(on) => setBoxes(flipped(boxes, id, on))}
            />
          ))}
        </fieldset>
        <fieldset className="max-h-[220px] overflow-y-auto">
          <legend className="font-semibold">Segments</legend>
          {there.map(({ id, vid, code, name }) => (
            <Toggle
              key={id}
              label={`${vid} ${code} ${name}`}
              checked={vlans.has(id)}
              onChange={(on) => setVlans(flipped(vlans, id, on))}
            />
          ))}
        </fieldset>
      </div>
      {tried === null && <p className="py-2">Choose a guard, a box and a segment.</p>}
      {tried && 'refusal' in tried && <Problem text={tried.refusal.message} className="mt-2" />}
      {tried && 'value' in tried && (
        <>
          <CutOffList plan={tried.value.bare} devices={input.devices} />
          <h4 className="border-b border-ink font-semibold">The order in which nobody is cut off</h4>
          <ol className="list-decimal pb-2 pl-6">
            {tried.value.order.map(({ what, why }) => (
              <li key={what}>
                {what}: <span className="text-muted">{why}</span>
              </li>
            ))}
          </ol>
        </>
      )}
      <div className="flex flex-wrap items-center gap-3">
        <button
          type="button"
          className="button button-primary"
          disabled={!tried || 'refusal' in tried || done}
          onClick={take}
        >
          Switch on with what it needs
        </button>
        <button type="button" className="button" onClick={onClose}>
          Leave it
        </button>
        {done && <span role="status">All of this is on already.</span>}
      </div>
      <Problem text={problem} className="mt-2" />
    </section>
  );
}
