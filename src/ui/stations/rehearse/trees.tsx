'use client';

import { useMemo, useState } from 'react';
import { ColumnHeads } from '../../parts/column-heads';
import { type Plan, portTitle } from '@/core/plan';
import { linksOf } from '@/core/model/wiring';
import { fabric } from '@/core/model/switching';
import {
  treesOf,
  rootsOf,
  MASTER,
  type Reasons,
  identifierText,
  type Grown,
  forwards,
} from '@/core/model/tree';
import { SiteMap, TreeChoice, treeChosen, treeLook } from '../../map';
import { BridgeTable } from './bridge-table';
import { NewSwitch } from './new-switch';
import { PortSettings } from './port-settings';
import { RootAdvice } from './root-advice';

const roleWords = {
  root: 'root port',
  designated: 'designated',
  alternate: 'alternate',
  backup: 'backup',
  master: 'master',
} as const;

/** The tree that is shown, and what of it is drawn on the map. */
function shownOf(plan: Plan, key: string) {
  const { grown, rings, blocked } = treesOf(plan);
  const { tree, reasons } = treeChosen(plan, grown, key);
  return { grown, rings, blocked, tree, reasons, layers: [treeLook(plan, tree, reasons)] };
}

/** Roots, roles and states of every tree, each with the comparison that decided it; and the settings behind them. */
export function TreesPanel({ plan }: { plan: Plan }) {
  const [key, setKey] = useState('');
  const { grown, rings, blocked, tree, reasons, layers } = useMemo(() => shownOf(plan, key), [plan, key]);
  return (
    <>
      <section aria-label="Tree" className="mb-5">
        {grown.length === 0 && rings.length === 0 && (
          <p className="text-muted">
            No box here runs a spanning tree or a ring. Turn one on below where cables make a ring.
          </p>
        )}
        {tree && reasons && (
          <>
            <div className="flex flex-wrap items-center gap-3 pb-2">
              <label className="flex items-center gap-2 text-[14px]">
                show
                <TreeChoice grown={grown} tree={tree} onChoose={setKey} />
              </label>
              <span className="text-[13px] text-muted">bar across a link: the port that is blocked</span>
            </div>
            <Roots tree={tree} reasons={reasons} />
          </>
        )}
        {rings.map((ring) => (
          <p key={ring.manager} className="py-1">
            <b>Ring of {plan.device.get(fabric(plan).bridges[ring.manager]!.device)!.name}</b>:{' '}
            {ring.boxes.length} boxes,{' '}
            {ring.broken
              ? `open at ${plan.device.get(fabric(plan).bridges[ring.broken.bridge]!.device)!.name}, where ${ring.broken.why}`
              : `kept open at ${portTitle(plan, plan.port.get(ring.blocked!)!)}`}
            ;{' '}
            {ring.recovery === null
              ? 'how long it needs to close a gap is not recorded'
              : `closes a gap within ${ring.recovery} ms`}
            .
          </p>
        ))}
        {(tree || rings.length > 0) && <SiteMap plan={plan} layers={layers} />}
      </section>
      {tree && reasons && <PortRoles plan={plan} tree={tree} reasons={reasons} />}
      {tree && reasons && <RootAdvice plan={plan} tree={tree} reasons={reasons} />}
      <BridgeTable plan={plan} />
      <NewSwitch plan={plan} />
      {blocked.size > 0 && (
        <p className="pb-3 text-[13px] text-muted">
          Frames of the probe, of DHCP and of every finding stop where these trees block.
        </p>
      )}
    </>
  );
}

function Roots({ tree, reasons }: { tree: Grown; reasons: Reasons }) {
  const roots = reasons.roots();
  const other = tree.other;
  const otherRoots = other ? rootsOf(other, tree.topology) : [];
  return (
    <div className="pb-2" role="status">
      {roots.map((bridge) => (
        <p key={bridge}>
          Root is <b>{reasons.name(bridge)}</b>{' '}
          <span className="mono text-[14px]">{identifierText(tree.identifiers[bridge]!)}</span>:{' '}
          {reasons.ofRoot(bridge)}.
        </p>
      ))}
      {other && (
        <p className="border-l-4 border-fix pl-2">
          A MAC address is missing. Shown is the tree if those unknown are the highest; if they are the
          lowest, the root is <b>{otherRoots.map((bridge) => reasons.name(bridge)).join(', ')}</b> and{' '}
          {other.roles.flatMap((role, end) => (forwards(role) ? [] : [reasons.portName(end)])).join(', ') ||
            'no port'}{' '}
          blocks.
        </p>
      )}
    </div>
  );
}

function PortRoles({ plan, tree, reasons }: { plan: Plan; tree: Grown; reasons: Reasons }) {
  const [open, setOpen] = useState<string | null>(null);
  const inside = tree.ports.map((port, end) => ({
    port,
    title: reasons.portName(end),
    cost: tree.topology.ends[end]!.externalCost,
    role: tree.tree.roles[end]!,
    why: reasons.ofPort(end),
  }));
  const edge = tree.edge.map(({ port, role }) => ({
    port,
    title: portTitle(plan, plan.port.get(port.ports[0]!)!),
    cost: null,
    role,
    why: role === 'master' ? MASTER : 'at the edge of the region all instances do as the common tree',
  }));
  const rows = [...inside, ...edge].sort((a, b) => a.title.localeCompare(b.title, 'en', { numeric: true }));
  const far = (id: string) =>
    (linksOf(plan).get(id) ?? []).map(({ to }) => portTitle(plan, plan.port.get(to)!)).join(', ');
  return (
    <section aria-label="Ports of this tree" className="mb-5">
      <h3 className="font-bold">Ports</h3>
      <table className="schedule schedule-stacked text-[14px]" aria-label="Roles of ports, with why">
        <ColumnHeads columns={['Port', 'to', 'Cost', 'Role', 'State', 'Because']} />
        <tbody>
          {rows.map(({ port, title, cost, role, why }) => {
            const passes = forwards(role);
            const id = port.ports[0]!;
            return [
              <tr key={id} className={passes ? '' : 'bg-chosen'}>
                <th scope="row" className="text-left">
                  <button
                    type="button"
                    className="mono min-h-[26px] max-[699px]:min-h-touch whitespace-nowrap text-left hover:underline"
                    aria-expanded={open === id}
                    onClick={() => setOpen(open === id ? null : id)}
                  >
                    {title}
                    {port.ports.length > 1 && ` +${port.ports.length - 1}`}
                  </button>
                </th>
                <td className="mono whitespace-nowrap">{far(id)}</td>
                <td className="mono text-right">{cost}</td>
                <td>{roleWords[role]}</td>
                <td className={passes ? '' : 'font-bold'}>{passes ? 'forwarding' : 'discarding'}</td>
                <td>{why}</td>
              </tr>,
              open === id && (
                <tr key={`${id} settings`}>
                  <td colSpan={6}>
                    <PortSettings plan={plan} port={id} instance={tree.kind === 'common' ? 0 : tree.number} />
                  </td>
                </tr>
              ),
            ];
          })}
        </tbody>
      </table>
    </section>
  );
}
