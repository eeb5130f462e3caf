'use client';

import { type Plan, guards, portTitle } from '@/core/plan';
import { stpPortOf } from '@/core/model/tree';
import { orNone, wholeNumber } from '../../session/actions';
import { useSession } from '../../session/context';
import { Choice } from '../../parts/choice';
import { Field } from '../../parts/field';
import { Toggle } from '../../parts/tick';

const guardWords = {
  none: 'no guard',
  root: 'root guard: never the way to the root',
  bpdu: 'BPDU guard: off when it hears a box',
  filter: 'filter: neither sends nor hears',
} as const;

/** What is set at a port for a tree. */
export function PortSettings({ plan, port, instance }: { plan: Plan; port: string; instance: number }) {
  const session = useSession();
  const { cost, priority, edge, guard } = stpPortOf(plan, port, instance);
  const title = portTitle(plan, plan.port.get(port)!);
  const change = (set: object, at = instance) =>
    void session.perform({ operation: 'setStpPort', input: { ports: [port], instance: at, set } });
  return (
    <div
      className="flex flex-wrap items-center gap-x-4 gap-y-1 border-2 border-ink bg-paper px-2 py-1"
      role="group"
      aria-label={`Settings of ${title}`}
    >
      <label className="flex items-center gap-2">
        path cost
        <span className="w-[110px]">
          <Field
            lined
            mono
            label={`Path cost of ${title}`}
            value={cost === null ? '' : String(cost)}
            placeholder="by speed"
            onCommit={(text) =>
              change({
                cost: orNone(text, (written) => wholeNumber(written, 'The path cost', 'cost'), 'by speed'),
              })
            }
          />
        </span>
      </label>
      <label className="flex items-center gap-2">
        port priority
        <span className="w-[64px]">
          <Field
            lined
            mono
            label={`Port priority of ${title}`}
            value={String(priority)}
            onCommit={(text) => change({ priority: wholeNumber(text, 'The port priority', 'priority') })}
          />
        </span>
      </label>
      <Toggle label="edge port" checked={edge} onChange={(value) => change({ edge: value }, 0)} />
      <span className="w-[300px]">
        <Choice
          lined
          label={`Guard of ${title}`}
          value={guard}
          options={guards.map((value) => ({ value, label: guardWords[value] }))}
          onChoose={(value) => change({ guard: value }, 0)}
        />
      </span>
    </div>
  );
}
