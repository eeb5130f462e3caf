'use client';

import { useState } from 'react';
import { controlFrames, type Box, type Device, type Plan, boxOf } from '@/core/plan';
import { powerOf, innerPort, isPassive } from '@/core/model/wiring';
import { problemOf } from '../../session/attempt';
import { useEdit } from '../../session/actions';
import { useSession } from '../../session/context';
import { useView } from '../../session/view';
import { PortPatterns } from './port-patterns';
import { Reuse } from './reuse';
import { Siblings } from './siblings';
import { Choice } from '../../parts/choice';
import { Fold } from '../../parts/fold';
import { RecordField } from '../../parts/record-field';
import { Toggle } from '../../parts/tick';
import { Property } from '../../parts/property';
import { Problem } from '../../parts/problem';

const factoryWords = {
  'default-vlan': 'untagged in VLAN 1',
  'every-vlan': 'every VLAN',
  'by-neighbour': 'by what is plugged in',
};
const treeWords = { rstp: 'RSTP', 'rstp-per-vlan': 'RSTP per VLAN', mst: 'MST', ring: 'ring protocol' };

/** What it does with frames, in a few words. */
const ableWords = ({ vlanAware, layer3, snooping, dot1x }: Box): string =>
  [vlanAware ? 'VLANs' : 'no VLANs', layer3 && 'layer 3', snooping && 'DHCP snooping', dot1x && '802.1X']
    .filter(Boolean)
    .join(', ');
const setUpWords = (plan: Plan, { spanningTree, controller }: Box): string =>
  [
    spanningTree === 'none' ? 'no spanning tree' : treeWords[spanningTree],
    controller !== null && `configured by ${plan.device.get(controller)!.name}`,
  ]
    .filter(Boolean)
    .join(', ');
const careWords = ({ firmware, loginChanged }: Box): string =>
  [firmware, loginChanged ? 'own login' : 'no own login recorded'].filter(Boolean).join(', ');

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
  const field = (name: keyof Box, placeholder?: string, words?: Record<string, string>) => (
    <RecordField table="box" record={box} field={name} placeholder={placeholder} words={words} />
  );
  const controllers = [...plan.device.values()].filter(
    (other) => other.id !== device.id && (other.kind === 'server' || other.kind === 'gateway'),
  );
  return (
    <section aria-label="Chosen box" className="pb-4">
      <h2 className="mono font-bold">{device.name}</h2>
      <RecordField table="device" record={device} field="name" of="the device" />
      {field('model')}
      {field('location')}
      {field('mounting')}
      {inner && (
        <Property label="Inside">
          <button type="button" className="link" onClick={() => set({ ports: [inner.id] })}>
            what the box itself is in
          </button>
        </Property>
      )}
      {!isPassive(device.kind) && (
        <>
          <Fold id="box-frames" title="Frames" told={ableWords(box)}>
            {field('vlanAware')}
            {field('mixesTags')}
            {field('layer3')}
            {field('snooping')}
            {field('dot1x')}
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
            {field('vlanLimit')}
          </Fold>
          <Fold
            id="box-power"
            title="Power"
            told={box.poeBudget === null ? 'no PoE' : `PoE ${box.poeBudget} W`}
          >
            {field('powerFeeds')}
            {field('poeBudget')}
            {box.poeBudget !== null && <PowerLine plan={plan} box={box} />}
          </Fold>
          <Fold id="box-setup" title="Set-up" told={setUpWords(plan, box)}>
            {field('filter')}
            {field('spanningTree', undefined, treeWords)}
            {field('factory', undefined, factoryWords)}
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
          </Fold>
          <Fold id="box-care" title="Upkeep" told={careWords(box)}>
            {field('firmware')}
            {field('supportedUntil', '2029-12-31')}
            {field('licence')}
            {field('licenceUntil', '2029-12-31')}
            {field('loginChanged', 'the day, 2026-11-24')}
            {field('loginKept', 'where, never what')}
          </Fold>
        </>
      )}
      <Fold
        id="box-marks"
        title="On the case"
        told={[box.serial, box.assetTag].filter(Boolean).join(', ') || 'nothing recorded'}
      >
        {!isPassive(device.kind) && field('baseMac')}
        {field('assetTag')}
        {field('serial')}
        {field('revision')}
      </Fold>
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
