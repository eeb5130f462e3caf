'use client';

import { type FormEvent, useState } from 'react';
import { endIn, typedCable } from '@/core/edit';
import { cableMedia, type Cable, type Port, badInput, type Plan, boxOf } from '@/core/plan';
import { cablesAt, isPassive, portsOf, leadsTo } from '@/core/model/wiring';
import { problemOf } from '../../session/attempt';
import { orNone, useEdit, wholeNumber } from '../../session/actions';
import { useSession } from '../../session/context';
import { useView } from '../../session/view';
import { Choice } from '../../parts/choice';
import { Field } from '../../parts/field';
import { Form, FormLine, FormTick, useTypedForm } from '../../parts/form';
import { Problem } from '../../parts/problem';

const media = cableMedia.map((value) => ({ value, label: value.replaceAll('-', ' ') }));

/** The cables at one port: where they lead, their length and label; or the line in which the other end is typed. */
export function PortCable({ plan, port }: { plan: Plan; port: Port }) {
  const device = plan.device.get(port.device)!;
  const sides = isPassive(device.kind) ? (['front', 'rear'] as const) : (['front'] as const);
  return (
    <div className="pt-1">
      {sides.map((side) => (
        <CableAt key={side} plan={plan} port={port} side={side} named={sides.length > 1} />
      ))}
    </div>
  );
}

function CableAt({
  plan,
  port,
  side,
  named,
}: {
  plan: Plan;
  port: Port;
  side: 'front' | 'rear';
  named: boolean;
}) {
  const session = useSession();
  const edit = useEdit();
  const [typed, setTyped] = useState('');
  const [problem, setProblem] = useState('');
  const cables = cablesAt(plan, { port: port.id, side });
  const name = plan.device.get(port.device)!.name;
  const lay = (event: FormEvent) => {
    event.preventDefault();
    const found = problemOf(() =>
      session.perform({
        operation: 'connect',
        input: typedCable(plan, `${name} ${port.number}${named ? ` ${side}` : ''} = ${typed}`),
      }),
    );
    setProblem(found);
    if (!found) setTyped('');
  };
  if (cables.length === 0)
    return (
      <form onSubmit={lay} className="flex flex-wrap items-center gap-2 text-[14px]">
        <label className="flex flex-1 items-center gap-2">
          <span className="whitespace-nowrap text-muted">{named ? `${side}, cable to` : 'Cable to'}</span>
          <input
            className="field field-line mono"
            placeholder="sw-b 9"
            value={typed}
            onChange={(event) => setTyped(event.target.value)}
          />
        </label>
        <button type="submit" className="button" disabled={typed.trim() === ''}>
          Lay
        </button>
        <Problem text={problem} className="w-full" />
      </form>
    );
  return cables.map((cable) => {
    const other = plan.port.get(cable.from === port.id ? cable.to : cable.from)!;
    const end = plan.device.get(other.device)!.name;
    const far = boxOf(plan, other.device) ? `${end} ${other.number}` : end;
    return (
      <div key={cable.id} className="border-b border-rule text-[14px]">
        <div className="flex items-center justify-between gap-2">
          <span>
            {named && <span className="text-muted">{side} </span>}
            cable to <b>{far}</b>
            {!named && leadsTo(plan, port) && leadsTo(plan, port) !== far && (
              <span className="text-muted">, leads to {leadsTo(plan, port)}</span>
            )}
          </span>
          <button
            type="button"
            className="link"
            onClick={() => session.perform({ operation: 'disconnect', input: { cable: cable.id } })}
          >
            take out
          </button>
        </div>
        {!named && <MovePlug plan={plan} port={port} cable={cable} />}
        <div className="grid grid-cols-[1fr_5rem_1fr] items-center gap-1">
          <Choice
            label="Medium of the cable"
            value={cable.media}
            options={media}
            onChoose={(value) => edit('cable', cable.id, 'media', value)}
          />
          <Field
            mono
            label="Length in metres"
            placeholder="m"
            value={cable.length === null ? '' : String(cable.length)}
            onCommit={(text) =>
              edit(
                'cable',
                cable.id,
                'length',
                orNone(text, (written) => wholeNumber(written, 'Length')),
                cable.length,
              )
            }
          />
          <Field
            label="Label of the cable"
            placeholder="label"
            value={cable.label}
            onCommit={(text, seen) => edit('cable', cable.id, 'label', text, seen)}
          />
        </div>
      </div>
    );
  });
}

/** Moves this end of a cable to another port, and what the port carries along with it when asked. */
function MovePlug({ plan, port, cable }: { plan: Plan; port: Port; cable: Cable }) {
  const session = useSession();
  const set = useView((state) => state.set);
  const [moving, setMoving] = useState(false);
  const form = useTypedForm({ port: '', withPlan: true }, ({ port: typed, withPlan }) => {
    const place = endIn(plan, typed.trim());
    const target = portsOf(plan, place.device).find((item) => item.number === place.number);
    if (!target)
      throw badInput(`There is no port “${typed.trim()}”; write a box and a number, like sw-b 6.`, 'port');
    const end = cable.from === port.id ? 'from' : 'to';
    session.perform({ operation: 'movePlug', input: { cable: cable.id, end, port: target.id, withPlan } });
    set({ ports: [target.id], device: target.device });
  });
  if (!moving)
    return (
      <button type="button" className="link" onClick={() => setMoving(true)}>
        move this plug…
      </button>
    );
  return (
    <Form form={form}>
      <FormLine mono autoFocus name="port" label="to port" placeholder="sw-b 6" />
      <FormTick name="withPlan" label="with its plan" />
      <button type="submit" className="button">
        Move
      </button>
    </Form>
  );
}
