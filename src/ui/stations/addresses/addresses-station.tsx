'use client';

import { useMemo, useState } from 'react';
import { formatPrefix, sizeOf, usableHosts } from '@/core/address';
import { type Plan, type Subnet, type Vlan, subnetsOf, vlansOf } from '@/core/plan';
import { layoutOfSubnet } from '@/core/model/segments';
import { usePlan } from '../../session/context';
import { useView } from '../../session/view';
import { useCommands } from '../../shell/commands';
import { Jacket } from '../../parts/jacket';
import { countText } from '../../parts/count-text';
import { OneOf } from '../../parts/one-of';
import { StationHead } from '../../parts/station-head';
import { AddHost } from './add-host';
import { CellGrid } from './cell-grid';
import { HostsTable } from './hosts-table';
import { Pools } from './pools';
import { RangeList } from './range-list';
import { SubnetSum } from './subnet-sum';
import { PasteDialog } from './paste-dialog';

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
      <SegmentChoice vlans={withSubnets} chosen={vlan} onChoose={(id) => select(id)} />
      {subnets.length > 1 && (
        <div className="pb-2">
          <OneOf
            label="Subnet"
            look="bar"
            value={subnet.id}
            of={subnets.map(({ id, prefix }) => ({
              value: id,
              shown: <span className="mono">{formatPrefix(prefix)}</span>,
            }))}
            onChoose={setFamily}
          />
        </div>
      )}
      <SubnetAddresses key={subnet.id} plan={plan} vlan={vlan} subnet={subnet} />
    </>
  );
}

/** More segments than this get a line to find one by id, code or name. */
const MANY = 30;

/** The segments as jackets; of many, those that match what is typed. */
function SegmentChoice({
  vlans,
  chosen,
  onChoose,
}: {
  vlans: readonly Vlan[];
  chosen: Vlan;
  onChoose: (id: string) => void;
}) {
  const [typed, setTyped] = useState('');
  const wanted = typed.trim().toLowerCase();
  const matching = vlans.filter(
    (vlan) =>
      String(vlan.vid).startsWith(wanted) ||
      vlan.code.toLowerCase().startsWith(wanted) ||
      vlan.name.toLowerCase().includes(wanted),
  );
  const shown = matching.slice(0, MANY);
  if (typed === '' && !shown.includes(chosen)) shown.splice(0, 1, chosen);
  return (
    <div className="flex flex-wrap items-center gap-1 pb-3">
      {vlans.length > MANY && (
        <input
          className="field field-line max-w-44"
          aria-label="Find a segment"
          placeholder="VLAN, code or name"
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
          onKeyDown={(event) => {
            if (event.key === 'Enter' && matching[0]) onChoose(matching[0].id);
          }}
        />
      )}
      <OneOf
        label="Segment"
        look="jackets"
        value={chosen.id}
        of={shown.map((vlan) => ({ value: vlan.id, shown: <Jacket vlan={vlan} />, title: vlan.name }))}
        onChoose={onChoose}
      />
      {matching.length > shown.length && (
        <span className="text-[13px] text-muted">and {matching.length - shown.length} more</span>
      )}
      {matching.length === 0 && <span className="text-[13px]">No segment is called “{typed}”.</span>}
    </div>
  );
}

function SubnetAddresses({ plan, vlan, subnet }: { plan: Plan; vlan: Vlan; subnet: Subnet }) {
  const [pasting, setPasting] = useState(false);
  const [focusOn, setFocusOn] = useState(0);
  const layout = useMemo(() => layoutOfSubnet(plan, subnet), [plan, subnet]);
  const commands = useMemo(
    () => [
      { key: '+', name: 'add a fixed address', run: () => setFocusOn((before) => before + 1) },
      { key: 'p', name: 'paste rows from a spreadsheet', run: () => setPasting(true) },
      { key: '← →', name: 'on the edge of a pool: one address more or less', run: null },
    ],
    [],
  );
  useCommands(commands);
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
