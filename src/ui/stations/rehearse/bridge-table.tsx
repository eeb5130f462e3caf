'use client';

import { useState } from 'react';
import { ColumnHeads } from '../../parts/column-heads';
import { type Call, boxOf, spanningTrees, type Box, type Plan, badInput } from '@/core/plan';
import { portsIn, isPassive, portsOf } from '@/core/model/wiring';
import { instancesOf, regionOf, settingsOf, costScales } from '@/core/model/tree';
import { orNone, wholeNumber } from '../../session/actions';
import { useSession } from '../../session/context';
import { Choice } from '../../parts/choice';
import { Field } from '../../parts/field';
import { Toggle } from '../../parts/tick';
import { Property } from '../../parts/property';

const modeWords = {
  none: 'none',
  rstp: 'RSTP',
  'rstp-per-vlan': 'RSTP per VLAN',
  mst: 'MST',
  ring: 'ring',
} as const;
const scaleWords = { long: 'long, 1G = 20000', short: 'short, 1G = 4' } as const;

/** How each box takes part: mode, priority, timers, region; and its instances. */
export function BridgeTable({ plan }: { plan: Plan }) {
  const [open, setOpen] = useState<string | null>(null);
  const boxes = [...plan.box.values()]
    .filter(({ device }) => !isPassive(plan.device.get(device)!.kind) && portsOf(plan, device).length > 2)
    .sort((a, b) =>
      plan.device.get(a.device)!.name.localeCompare(plan.device.get(b.device)!.name, 'en', { numeric: true }),
    );
  if (boxes.length === 0) return null;
  return (
    <section aria-label="Boxes and their trees" className="mb-5">
      <h3 className="font-bold">Boxes</h3>
      <table className="schedule schedule-stacked text-[14px]" aria-label="How each box takes part">
        <ColumnHeads columns={['Box', 'Runs', 'Priority', 'MAC address', 'Path costs', 'Region']} />
        <tbody>
          {boxes.map((box) => [
            <Row
              key={box.id}
              plan={plan}
              box={box}
              open={open === box.id}
              onOpen={() => setOpen(open === box.id ? null : box.id)}
            />,
            open === box.id && (
              <tr key={`${box.id} more`}>
                <td colSpan={6}>
                  <Details plan={plan} box={box} />
                </td>
              </tr>
            ),
          ])}
        </tbody>
      </table>
    </section>
  );
}

function Row({ plan, box, open, onOpen }: { plan: Plan; box: Box; open: boolean; onOpen: () => void }) {
  const session = useSession();
  const { name } = plan.device.get(box.device)!;
  const settings = settingsOf(plan, box);
  const change = (set: object) =>
    void session.perform({ operation: 'setBridge', input: { devices: [box.device], set } });
  return (
    <tr className={settings.mode === 'none' ? 'text-muted' : ''}>
      <th scope="row" className="text-left">
        <button
          type="button"
          className="mono min-h-[26px] max-[699px]:min-h-touch hover:underline"
          aria-expanded={open}
          onClick={onOpen}
        >
          {name}
        </button>
      </th>
      <td>
        <Choice
          label={`What ${name} runs`}
          value={settings.mode}
          options={spanningTrees.map((value) => ({ value, label: modeWords[value] }))}
          onChoose={(mode) => change({ mode })}
        />
      </td>
      <td className="w-[96px]">
        <Field
          mono
          label={`Priority of ${name}`}
          value={String(settings.priority)}
          onCommit={(text) => change({ priority: wholeNumber(text, 'The priority', 'priority') })}
        />
      </td>
      <td className="w-[190px]">
        <Field
          mono
          label={`Base MAC of ${name}`}
          value={box.baseMac ?? ''}
          placeholder="not known"
          onCommit={(text, seen) =>
            void session.perform({
              operation: 'edit',
              input: {
                table: 'box',
                id: box.id,
                set: { baseMac: orNone(text, String, 'not known') },
                seen: { baseMac: seen || null },
              },
            })
          }
        />
      </td>
      <td>
        <Choice
          label={`Path costs of ${name}`}
          value={settings.costScale}
          options={costScales.map((value) => ({ value, label: scaleWords[value] }))}
          onChoose={(costScale) => change({ costScale })}
        />
      </td>
      <td>{settings.mode === 'mst' ? regionOf(plan, box).name.replace(/^\(.*\)$/, 'no name') : ''}</td>
    </tr>
  );
}

/** Ports as typed: `9,10`. */
function ringPortsOf(plan: Plan, device: string, text: string): string[] {
  if (text.trim() === '') return [];
  const ports = portsIn(text, portsOf(plan, device));
  if (ports.length !== 2)
    throw badInput('A ring has two ports at each box; write two, like 9,10.', 'ringPorts');
  return ports.map(({ id }) => id);
}

function Details({ plan, box }: { plan: Plan; box: Box }) {
  const session = useSession();
  const settings = settingsOf(plan, box);
  const { name } = plan.device.get(box.device)!;
  const change = (set: object) =>
    void session.perform({ operation: 'setBridge', input: { devices: [box.device], set } });
  const number = (field: 'hello' | 'maxAge' | 'forwardDelay' | 'maxHops' | 'revision', label: string) => (
    <Property label={label}>
      <Field
        mono
        label={`${label} of ${name}`}
        value={String(settings[field])}
        onCommit={(text) => change({ [field]: wholeNumber(text, label, field) })}
      />
    </Property>
  );
  return (
    <div
      className="grid gap-x-6 border-2 border-ink bg-paper px-2 py-1 min-[900px]:grid-cols-3"
      role="group"
      aria-label={`Tree settings of ${name}`}
    >
      <div>
        {number('hello', 'Hello (s)')}
        {number('maxAge', 'Max age (s)')}
        {number('forwardDelay', 'Fwd delay (s)')}
        {number('maxHops', 'Max hops')}
      </div>
      <div>
        <Property label="Region">
          <Field
            label={`Region of ${name}`}
            value={settings.region}
            placeholder="no name"
            onCommit={(region) => change({ region })}
          />
        </Property>
        {number('revision', 'Revision')}
        <Property label="Digest">
          <span className="mono text-[12px] break-all">{regionOf(plan, box).digest}</span>
        </Property>
        <Instances plan={plan} device={box.device} name={name} />
      </div>
      <div>
        <Property label="Ring ports">
          <Field
            mono
            label={`Ring ports of ${name}`}
            value={settings.ringPorts.map((id) => plan.port.get(id)?.number).join(',')}
            placeholder="9,10"
            onCommit={(text) => change({ ringPorts: ringPortsOf(plan, box.device, text) })}
          />
        </Property>
        <Toggle
          label="manages the ring"
          checked={settings.ringManager}
          onChange={(ringManager) => change({ ringManager })}
        />
        <Property label="Recovery (ms)">
          <Field
            mono
            label={`Recovery of ${name}`}
            value={settings.recovery === null ? '' : String(settings.recovery)}
            placeholder="not known"
            onCommit={(text) =>
              change({
                recovery: orNone(
                  text,
                  (written) => wholeNumber(written, 'The recovery time', 'recovery'),
                  'not known',
                ),
              })
            }
          />
        </Property>
      </div>
    </div>
  );
}

/** The instances of a box: VLAN ids and priority of each, and a line for one more. */
function Instances({ plan, device, name }: { plan: Plan; device: string; name: string }) {
  const session = useSession();
  const perVlan = settingsOf(plan, boxOf(plan, device)!).mode === 'rstp-per-vlan';
  const set = (input: Omit<Extract<Call, { operation: 'setInstance' }>['input'], 'devices'>) =>
    void session.perform({ operation: 'setInstance', input: { devices: [device], ...input } });
  return (
    <div role="group" aria-label={`Instances of ${name}`}>
      {instancesOf(plan, device).map(({ id, number, vids, priority }) => (
        <div
          key={id}
          className="grid grid-cols-[70px_1fr_84px_auto] items-center gap-x-1 border-b border-rule"
        >
          <span className="text-muted">
            {perVlan ? 'VLAN' : 'instance'} {number}
          </span>
          {perVlan ? (
            <span />
          ) : (
            <Field
              mono
              label={`VLAN ids of instance ${number}`}
              value={vids}
              placeholder="10-20,99"
              onCommit={(text) => set({ number, vids: text })}
            />
          )}
          <Field
            mono
            label={`Priority in instance ${number}`}
            value={String(priority)}
            onCommit={(text) => set({ number, priority: wholeNumber(text, 'The priority', 'priority') })}
          />
          <button
            type="button"
            className="link"
            aria-label={`Remove instance ${number}`}
            onClick={() =>
              session.perform({ operation: 'removeInstance', input: { devices: [device], number } })
            }
          >
            remove
          </button>
        </div>
      ))}
      <Field
        mono
        label={perVlan ? `One more VLAN of ${name}` : `One more instance of ${name}`}
        value=""
        placeholder={perVlan ? 'VLAN id, Enter' : 'number: VLAN ids, Enter'}
        onCommit={(text) => {
          const [number, vids] = text.split(':');
          set({
            number: wholeNumber(number!, perVlan ? 'The VLAN id' : 'The instance', 'number'),
            ...(perVlan ? {} : { vids: vids ?? '' }),
          });
        }}
      />
    </div>
  );
}
