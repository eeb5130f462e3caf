'use client';

import { type Remedy, type Plan, boxOf } from '@/core/plan';
import { fabric, atRisk, rootCandidates } from '@/core/model/switching';
import { halvesOf } from '@/core/edit';
import { formatVids, type Reasons, type Grown } from '@/core/model/tree';
import { Remedies } from '../../shell/remedies';

/** Where the root of each part belongs, with what speaks for it; and MST that uses both links. */
export function RootAdvice({ plan, tree, reasons }: { plan: Plan; tree: Grown; reasons: Reasons }) {
  const parts = reasons
    .roots()
    .map((root) => reasons.partOf(root))
    .filter((part) => part.length > 1);
  if (tree.kind === 'vlan' || parts.length === 0) return null;
  return (
    <section aria-label="Where the root belongs" className="mb-5">
      <h3 className="border-b-2 border-ink font-bold">Where the root belongs</h3>
      {parts.map((part) => (
        <Part key={part[0]} plan={plan} tree={tree} part={part} />
      ))}
    </section>
  );
}

function Part({ plan, tree, part }: { plan: Plan; tree: Grown; part: readonly number[] }) {
  const ranked = rootCandidates(plan, fabric(plan), tree, part);
  const [first, second] = ranked;
  if (!first || !second) return null;
  const name = (device: string) => plan.device.get(device)!.name;
  const { first: half, second: other } = halvesOf(plan);
  const vids = (list: typeof half) => formatVids(list.map(({ vid }) => vid)).replaceAll(',', ', ');
  const carry = atRisk(plan);
  const able =
    part.length > 2 && ranked.every(({ device }) => boxOf(plan, device)?.vlanAware) && other.length > 0;
  const remedies: Remedy[] = [
    {
      label: `${name(first.device)} root, then ${name(second.device)}`,
      operation: 'placeRoots',
      input: {
        primary: first.device,
        secondary: second.device,
        instance: tree.kind === 'common' ? 0 : tree.number,
        carry,
      },
    },
    ...(able && tree.kind === 'common'
      ? [
          {
            label: `MST: VLAN ${vids(half)} by ${name(first.device)}, ${vids(other)} by ${name(second.device)}`,
            operation: 'balanceInstances',
            input: {
              devices: ranked.map(({ device }) => device),
              primary: first.device,
              secondary: second.device,
            },
          } satisfies Remedy,
        ]
      : []),
  ];
  return (
    <div className="py-1">
      <ol className="text-[14px]">
        {ranked.slice(0, 4).map(({ device, toRouter, feeds, links }, i) => (
          <li key={device} className="grid grid-cols-[28px_minmax(80px,140px)_1fr] border-b border-rule">
            <span className="mono text-muted">{i + 1}</span>
            <b className="mono">{name(device)}</b>
            <span>
              {Number.isFinite(toRouter)
                ? `${toRouter} ${toRouter === 1 ? 'link' : 'links'} from the router`
                : 'no router is joined'}
              , {feeds === 1 ? 'one power feed' : `${feeds} power feeds`}, {links}{' '}
              {links === 1 ? 'link' : 'links'} in this tree
            </span>
          </li>
        ))}
      </ol>
      <Remedies remedies={remedies} above />
    </div>
  );
}
