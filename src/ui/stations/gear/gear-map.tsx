'use client';

import { useEffect, useMemo, useState } from 'react';
import { linksAt } from '@/core/model/wiring';
import { treesOf } from '@/core/model/tree';
import { type Plan, portTitle } from '@/core/plan';
import { type Fault, faultKey } from '@/core/rehearse';
import { Toggle } from '../../parts/tick';
import { TriedFaults } from '../../parts/tried-faults';
import { useJob } from '../../session/job';
import { useTried } from '../../session/tried';
import { useView } from '../../session/view';
import { useAnswer } from '../../shell/probe-bar';
import { type MapLook, SiteMap, TreeChoice, answerLook, faultLook, treeChosen, treeLook } from '../../map';

type Layer = 'tree' | 'probe' | 'faults';

/** The map with its layers: the followed segment, a spanning tree, the way of the probe, and what is tried out of order. */
export function GearMap({ plan }: { plan: Plan }) {
  const [shown, setShown] = useState<ReadonlySet<Layer>>(new Set());
  const toggle = (layer: Layer) => (on: boolean) => {
    const next = new Set(shown);
    if (on) next.add(layer);
    else next.delete(layer);
    setShown(next);
  };
  const tree = useTree(plan, shown.has('tree'));
  const probe = useView((state) => state.probe);
  const answer = useAnswer(plan, probe);
  const faults = useFaults(plan, shown.has('faults'));
  const layers = useMemo(
    (): Partial<MapLook>[] => [
      ...(shown.has('tree') ? [tree.look] : []),
      ...(shown.has('probe') && answer && 'value' in answer ? [answerLook(answer.value)] : []),
      ...(shown.has('faults') ? [faults.look] : []),
    ],
    [shown, tree.look, answer, faults.look],
  );
  const tools = (
    <div className="flex flex-wrap items-center gap-x-2" role="group" aria-label="Layers of the map">
      <Toggle label="spanning tree" checked={shown.has('tree')} onChange={toggle('tree')} />
      <Toggle label="way of the probe" checked={shown.has('probe')} onChange={toggle('probe')} />
      <Toggle label="faults" checked={shown.has('faults')} onChange={toggle('faults')} />
      {shown.has('tree') && <div>{tree.choice}</div>}
    </div>
  );
  return (
    <>
      {shown.has('probe') && !(answer && 'value' in answer) && (
        <p className="pb-2 text-muted">Ask the probe below; its way is drawn here.</p>
      )}
      {shown.has('faults') && faults.line}
      <SiteMap plan={plan} layers={layers} follow tall tools={tools} />
    </>
  );
}

/** The tree that is looked at. */
function useTree(plan: Plan, on: boolean) {
  const [key, setKey] = useState('');
  const grown = useMemo(() => (on ? treesOf(plan).grown : []), [plan, on]);
  const { tree, reasons } = useMemo(() => treeChosen(plan, grown, key), [plan, grown, key]);
  const look = useMemo(() => treeLook(plan, tree, reasons), [plan, tree, reasons]);
  const choice = tree ? (
    <TreeChoice grown={grown} tree={tree} onChoose={setKey} />
  ) : (
    <span className="text-muted">No box here runs a spanning tree.</span>
  );
  return { look, choice };
}

/** What is out of order, worked out while the layer is shown; and the line that puts the chosen box or cable out of it. */
function useFaults(plan: Plan, on: boolean) {
  const { device, ports } = useView();
  const { faults, set } = useTried(plan);
  const { result, start } = useJob();
  useEffect(() => {
    if (on && faults.length > 0) start({ kind: 'what-if', faults });
  }, [on, faults, start]);
  const impact = faults.length > 0 && result?.kind === 'what-if' ? result.impact : null;
  const look = useMemo(() => faultLook(plan, faults, impact), [plan, faults, impact]);
  const tried = new Set(faults.map(faultKey));
  const offers = offered(plan, device, ports).filter(({ fault }) => !tried.has(faultKey(fault)));
  const line = (
    <div className="flex flex-wrap items-center gap-2 pb-2" role="status">
      <TriedFaults plan={plan} faults={faults} onChange={set} />
      {offers.map(({ label, fault }) => (
        <button key={label} type="button" className="button" onClick={() => set([...faults, fault])}>
          {label}
        </button>
      ))}
      {faults.length === 0 && offers.length === 0 && (
        <span className="text-muted">Choose a box or a cable on the map to put it out of order.</span>
      )}
      {impact && (
        <b>
          {impact.cutOff.length === 0
            ? 'Nobody is cut off.'
            : `Cut off: ${impact.cutOff.map(({ name }) => name).join(', ')}.`}
        </b>
      )}
    </div>
  );
  return { look, line };
}

function offered(plan: Plan, device: string | null, ports: readonly string[]) {
  const found: { readonly label: string; readonly fault: Fault }[] = [];
  const port = ports.length === 1 ? plan.port.get(ports[0]!) : undefined;
  const [cable] = port ? linksAt(plan, port).flatMap(({ cables }) => cables) : [];
  if (port && cable)
    found.push({ label: `Pull the cable at ${portTitle(plan, port)}`, fault: { kind: 'cable', cable } });
  const box = device === null ? undefined : plan.device.get(device);
  if (box) found.push({ label: `Switch off ${box.name}`, fault: { kind: 'box', device: box.id } });
  return found;
}
