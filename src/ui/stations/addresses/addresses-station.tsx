'use client';

import { useMemo, useState } from 'react';
import { formatPrefix, sizeOf, usableHosts } from '@/core/address/prefix';
import type { Plan } from '@/core/plan/plan';
import type { Subnet, Vlan } from '@/core/plan/records';
import { subnetsOf, vlansOf } from '@/core/plan/view';
import { layoutOfSubnet } from '@/core/segments/layout';
import { usePlan } from '../../session/context';
import { useView } from '../../session/view';
import { useKeys } from '../../shell/keys';
import { Jacket } from '../../parts/jacket';
import { countText } from '../../parts/short';
import { StationHead } from '../../parts/station-head';
import { AddHost } from './add-host';
import { CellGrid } from './cell-grid';
import { HostsTable } from './hosts-table';
import { PasteDialog } from './paste-dialog';
import { Pools } from './pools';
import { RangeList } from './range-list';
import { SubnetSum } from './subnet-sum';

/** Cells up to a /22; ranges above. */
const MOST_CELLS = 1024;

export function AddressesStation() {
  const plan = usePlan();
  const { vlan: selected, address, select } = useView();
  const withSubnets = vlansOf(plan).filter((vlan) => subnetsOf(plan, vlan.id).length > 0);
  const vlan = withSubnets.find((candidate) => candidate.id === selected) ?? withSubnets[0];
  const [family, setFamily] = useState<string | null>(null);
  if (!vlan)
    return (
      <>
        <StationHead title="Addresses" about="pools, addresses kept out of them, and fixed addresses" />
        <p>No subnets yet. Add a segment with a subnet under Segments first.</p>
      </>
    );
  const subnets = subnetsOf(plan, vlan.id);
  const held = address ? plan.address.get(address)?.subnet : undefined;
  const subnet =
    subnets.find((candidate) => candidate.id === family) ??
    subnets.find((candidate) => candidate.id === held) ??
    subnets[0]!;
  return (
    <>
      <StationHead title="Addresses" about="pools, addresses kept out of them, and fixed addresses" />
      <div className="flex flex-wrap gap-1 pb-3" role="group" aria-label="Segment">
        {withSubnets.map((candidate) => (
          <button
            key={candidate.id}
            type="button"
            aria-pressed={candidate.id === vlan.id}
            title={candidate.name}
            className={`border-2 p-0.5 ${candidate.id === vlan.id ? 'border-ink bg-chosen' : 'border-transparent'}`}
            onClick={() => select(candidate.id)}
          >
            <Jacket vlan={candidate} />
          </button>
        ))}
      </div>
      {subnets.length > 1 && (
        <div className="flex gap-1 pb-2" role="group" aria-label="Subnet">
          {subnets.map((candidate) => (
            <button
              key={candidate.id}
              type="button"
              aria-pressed={candidate.id === subnet.id}
              className={`mono border-2 px-1 ${candidate.id === subnet.id ? 'border-ink' : 'border-transparent'}`}
              onClick={() => setFamily(candidate.id)}
            >
              {formatPrefix(candidate.prefix)}
            </button>
          ))}
        </div>
      )}
      <SubnetAddresses key={subnet.id} plan={plan} vlan={vlan} subnet={subnet} />
    </>
  );
}

function SubnetAddresses({ plan, vlan, subnet }: { plan: Plan; vlan: Vlan; subnet: Subnet }) {
  const [pasting, setPasting] = useState(false);
  const [focusOn, setFocusOn] = useState(0);
  const layout = useMemo(() => layoutOfSubnet(plan, subnet), [plan, subnet]);
  const keys = useMemo(
    () => ({ '+': () => setFocusOn((before) => before + 1), p: () => setPasting(true) }),
    [],
  );
  useKeys(keys);
  return (
    <>
      <div className="flex flex-wrap items-baseline gap-3 pb-1">
        <h3 className="text-[17px] font-bold">{vlan.name}</h3>
        <span className="mono">{formatPrefix(subnet.prefix)}</span>
        <span className="text-muted">fits {countText(usableHosts(subnet.prefix))}</span>
        <button type="button" className="button ml-auto" onClick={() => setPasting(true)}>
          Paste rows… <span className="key">p</span>
        </button>
      </div>
      {sizeOf(subnet.prefix) <= MOST_CELLS && typeof subnet.prefix.address === 'number' ? (
        <CellGrid plan={plan} vlan={vlan} subnet={subnet} />
      ) : (
        <RangeList layout={layout} vlan={vlan} />
      )}
      <SubnetSum layout={layout} />
      <Pools plan={plan} subnet={subnet} />
      <HostsTable plan={plan} subnet={subnet} />
      <AddHost plan={plan} vlan={vlan} subnet={subnet} focusOn={focusOn} />
      {pasting && <PasteDialog plan={plan} subnet={subnet} onClose={() => setPasting(false)} />}
    </>
  );
}
