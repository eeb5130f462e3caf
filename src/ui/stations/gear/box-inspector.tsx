'use client';

import { useState } from 'react';
import {
  controlFrames,
  factoryStates,
  filters,
  spanningTrees,
  type Box,
  type Device,
  type Plan,
  boxOf,
} from '@/core/plan';
import { powerOf, innerPort, isPassive } from '@/core/model/wiring';
import { problemOf } from '../../session/attempt';
import { useEdit, wholeNumber } from '../../session/actions';
import { useSession } from '../../session/context';
import { useView } from '../../session/view';
import { PortPatterns } from './port-patterns';
import { Reuse } from './reuse';
import { Siblings } from './siblings';
import { Choice, Field } from '../../parts/field';
import { Property, Toggle } from '../../parts/property';
import { Problem } from '../../parts/problem';

const options = <T extends string>(list: readonly T[], words: Partial<Record<T, string>> = {}) =>
  list.map((value) => ({ value, label: words[value] ?? value.replaceAll('-', ' ') }));
const factoryWords = {
  'default-vlan': 'untagged in VLAN 1',
  'every-vlan': 'every VLAN',
  'by-neighbour': 'by what is plugged in',
};
const treeWords = { rstp: 'RSTP', 'rstp-per-vlan': 'RSTP per VLAN', mst: 'MST', ring: 'ring protocol' };

/** A box: where it is, what it can do, and what has to be kept about it. */
export function BoxInspector({ plan, device }: { plan: Plan; device: Device }) {
  const session = useSession();
  const edit = useEdit();
  const set = useView((state) => state.set);
  const [problem, setProblem] = useState('');
  const box = boxOf(plan, device.id);
  if (!box) return null;
  const inner = innerPort(plan, device.id);
  const change = (field: keyof Box, value: unknown, seen?: unknown) =>
    edit('box', box.id, field, value, seen);
  const text = (label: string, field: keyof Box, placeholder = 'none') => (
    <Property label={label}>
      <Field
        label={label}
        value={(box[field] as string | null) ?? ''}
        placeholder={placeholder}
        onCommit={(value) =>
          change(
            field,
            value === '' && isNullable(field) ? null : value,
            (box[field] as string | null) ?? (isNullable(field) ? null : ''),
          )
        }
      />
    </Property>
  );
  const number = (label: string, field: 'vlanLimit' | 'poeBudget' | 'powerFeeds') => (
    <Property label={label}>
      <Field
        mono
        label={label}
        value={box[field] === null ? '' : String(box[field])}
        placeholder="none"
        onCommit={(value) => change(field, value === '' ? null : wholeNumber(value, label), box[field])}
      />
    </Property>
  );
  const toggle = (label: string, field: 'vlanAware' | 'mixesTags' | 'layer3' | 'snooping' | 'dot1x') => (
    <Toggle label={label} checked={box[field]} onChange={(on) => change(field, on, box[field])} />
  );
  const controllers = [...plan.device.values()].filter(
    (other) => other.id !== device.id && (other.kind === 'server' || other.kind === 'gateway'),
  );
  return (
    <section aria-label="Chosen box" className="pb-4">
      <h2 className="mono font-bold">{device.name}</h2>
      <Property label="Name">
        <Field
          label="Name of the device"
          value={device.name}
          onCommit={(value, seen) => edit('device', device.id, 'name', value, seen)}
        />
      </Property>
      {text('Model', 'model')}
      {text('Location', 'location')}
      {text('Rack or rail', 'mounting')}
      {inner && (
        <Property label="Inside">
          <button type="button" className="link" onClick={() => set({ ports: [inner.id] })}>
            what the box itself is in
          </button>
        </Property>
      )}
      {!isPassive(device.kind) && (
        <>
          {toggle('understands VLANs', 'vlanAware')}
          {toggle('mixes tagged and untagged on a port', 'mixesTags')}
          {toggle('routes', 'layer3')}
          {toggle('can watch DHCP (snooping)', 'snooping')}
          {toggle('can ask who plugs in (802.1X)', 'dot1x')}
          <fieldset className="border-b border-rule pb-1 text-[14px]">
            <legend className="text-muted">Passes on what is meant for bridges</legend>
            <div className="flex gap-3">
              {controlFrames.map((frame) => (
                <Toggle
                  key={frame}
                  label={frame.toUpperCase()}
                  checked={box.passes.includes(frame)}
                  onChange={(on) =>
                    change(
                      'passes',
                      controlFrames.filter((other) => (other === frame ? on : box.passes.includes(other))),
                      box.passes,
                    )
                  }
                />
              ))}
            </div>
          </fieldset>
          {number('VLAN limit', 'vlanLimit')}
          {number('Power feeds', 'powerFeeds')}
          {number('PoE budget W', 'poeBudget')}
          {box.poeBudget !== null && <PowerLine plan={plan} box={box} />}
          <Property label="Filter">
            <Choice
              label="Filter"
              value={box.filter}
              options={options(filters)}
              onChoose={(value) => change('filter', value)}
            />
          </Property>
          <Property label="Spanning tree">
            <Choice
              label="Spanning tree"
              value={box.spanningTree}
              options={options(spanningTrees, treeWords)}
              onChoose={(value) => change('spanningTree', value)}
            />
          </Property>
          <Property label="From factory">
            <Choice
              label="Ports from the factory"
              value={box.factory}
              options={options(factoryStates, factoryWords)}
              onChoose={(value) => change('factory', value)}
            />
          </Property>
          <Property label="Configured by">
            <Choice
              label="Configured by"
              value={box.controller ?? ''}
              options={[
                { value: '', label: 'itself' },
                ...controllers.map(({ id, name }) => ({ value: id, label: name })),
              ]}
              onChoose={(value) =>
                session.perform({
                  operation: 'setController',
                  input: { box: box.id, controller: value || null },
                })
              }
            />
          </Property>
          <Siblings plan={plan} device={device} />
          {text('Firmware', 'firmware')}
          {text('Supported until', 'supportedUntil', '2029-12-31')}
          {text('Licence', 'licence')}
          {text('Licence until', 'licenceUntil', '2029-12-31')}
          {text('Login changed', 'loginChanged', 'the day, 2026-11-24')}
          {text('Login kept', 'loginKept', 'where, never what')}
          {text('Base MAC', 'baseMac')}
        </>
      )}
      {text('Asset tag', 'assetTag')}
      {text('Serial', 'serial')}
      {text('Hardware rev.', 'revision')}
      {!isPassive(device.kind) && <PortPatterns device={device} />}
      <Reuse plan={plan} device={device} />
      <button
        type="button"
        className="button mt-3"
        onClick={() => {
          const found = problemOf(() =>
            session.perform({ operation: 'removeDevice', input: { device: device.id } }),
          );
          setProblem(found);
          if (!found) set({ device: null, ports: [] });
        }}
      >
        Remove {device.name}
      </button>
      <Problem text={problem} className="mt-1" />
    </section>
  );
}

/** The budget as a sum, by class and as such devices usually draw; with two feeds, what is left when one fails. */
function PowerLine({ plan, box }: { plan: Plan; box: Box }) {
  const { reserved, typical, left, ports } = powerOf(plan, box.device);
  return (
    <p className="border-b border-rule py-1 text-[13px]">
      <span className="mono">
        {box.poeBudget} − {reserved} = {left} W
      </span>{' '}
      left; {ports.length} powered, about {typical} W drawn usually.
      {box.powerFeeds > 1 &&
        ` Each of the ${box.powerFeeds} feeds has to carry all of it when the others fail.`}
    </p>
  );
}

const isNullable = (field: keyof Box): boolean =>
  ['supportedUntil', 'licenceUntil', 'loginChanged', 'baseMac'].includes(field);
