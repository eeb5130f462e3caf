'use client';

import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useMemo, useRef } from 'react';
import { formatAddress } from '@/core/address';
import { type Plan, type Address, type Subnet, addressesOf, hostOf } from '@/core/plan';
import { typedAddress, useEdit } from '../../session/actions';
import { useSession } from '../../session/context';
import { type JudgedFinding, locationOf, useFindings } from '../../session/open-findings';
import { useView } from '../../session/view';
import { type Columns, ColumnChoice, useColumns } from '../../parts/columns';
import { Choice, Field } from '../../parts/field';
import { SeverityMark } from '../../parts/marks';
import { useNarrow } from '../../parts/narrow';
import { type RecordColumn, useRecordTable } from '../../parts/record-table';
import { SortHead } from '../../parts/sort-head';
import { assignmentOptions, kindOptions } from './host-options';
import { MarkedHosts } from './marked-hosts';
import { shortAddress } from '../../parts/short';

const ROW = 33;
const CARD = 190;
const GRID = 'grid items-center min-[700px]:grid-cols-(--columns) max-[699px]:grid-cols-2';
const OPTIONAL = ['Kind', 'MAC', 'Fixed by', 'Note'] as const;
type Column = (typeof OPTIONAL)[number];
const WIDTHS: Readonly<Record<Column, string>> = {
  Kind: 'minmax(90px,0.8fr)',
  MAC: '158px',
  'Fixed by': '92px',
  Note: 'minmax(70px,1fr)',
};

/** The fixed addresses of a subnet, edited in place; any number of them, since only the visible rows exist. */
export function HostsTable({ plan, subnet }: { plan: Plan; subnet: Subnet }) {
  const { address: selected, select } = useView();
  const columns = useColumns('hosts', OPTIONAL);
  const shownColumns = OPTIONAL.filter(columns.shows);
  const template = ['34px 26px 92px minmax(110px,1.2fr)', ...shownColumns.map((name) => WIDTHS[name])].join(
    ' ',
  );
  const scroller = useRef<HTMLDivElement>(null);
  const findings = useFindings();
  const byAddress = useMemo(() => {
    const map = new Map<string, JudgedFinding>();
    for (const finding of findings) {
      const { address } = locationOf(plan, finding);
      if (address && !finding.accepted && !map.has(address)) map.set(address, finding);
    }
    return map;
  }, [findings, plan]);
  const all = useMemo(
    () => addressesOf(plan, subnet.id).filter((address) => !address.gateway),
    [plan, subnet.id],
  );
  const order = useMemo(() => columnsOf(plan), [plan]);
  const {
    table,
    shown: hosts,
    marked,
    filter,
    setFilter,
    mark,
    markAll,
  } = useRecordTable('hosts', all, order);
  const narrow = useNarrow();
  // eslint-disable-next-line react-hooks/incompatible-library
  const rows = useVirtualizer({
    count: hosts.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => (narrow ? CARD : ROW),
    overscan: 8,
    getItemKey: (index) => hosts[index]!.id,
  });
  useEffect(() => {
    // A row that somebody is working in stays where it is, under the pointer.
    if (scroller.current?.contains(document.activeElement)) return;
    const at = hosts.findIndex((host) => host.id === selected);
    if (at >= 0) rows.scrollToIndex(at);
    // Only a new selection scrolls; edits of the list must not.
  }, [selected]); // eslint-disable-line react-hooks/exhaustive-deps
  const isMarked = new Set(marked.map(({ id }) => id));
  const heads = ['Address', 'Host name', ...shownColumns];
  return (
    <section aria-label="Fixed addresses">
      <div className="flex min-h-9 flex-wrap items-center gap-2">
        <h3 className="font-bold">
          {all.length} fixed address{all.length === 1 ? '' : 'es'}
        </h3>
        {all.length > 0 && (
          <input
            type="search"
            className="field field-line max-w-44"
            aria-label="Filter the fixed addresses"
            placeholder="name, MAC, kind"
            value={filter}
            onChange={(event) => setFilter(event.target.value)}
          />
        )}
        {filter !== '' && (
          <span role="status" className="text-[14px] text-muted">
            {hosts.length} of {all.length}
          </span>
        )}
        <span className="flex-1" />
        <ColumnChoice columns={columns} />
      </div>
      {marked.length > 0 && (
        <MarkedHosts plan={plan} subnet={subnet} marked={marked} onDone={() => markAll(false)} />
      )}
      <div className="overflow-x-auto">
        <div
          className="min-w-[760px] max-[699px]:min-w-0"
          style={{ '--columns': template } as React.CSSProperties}
        >
          <div className={`${GRID} border-y-2 border-ink text-[13px] font-bold max-[699px]:hidden`}>
            <label className="flex min-h-8 items-center justify-center">
              <input
                type="checkbox"
                className="size-4 accent-ink"
                aria-label="Mark all that are shown"
                checked={marked.length > 0 && marked.length === hosts.length}
                onChange={(event) => markAll(event.target.checked)}
              />
            </label>
            <span />
            {heads.map((head) => (
              <SortHead
                key={head}
                table={table}
                head={head}
                {...(head === 'Fixed by' && { hint: 'reservation = fixed lease = address binding' })}
              />
            ))}
          </div>
          <div ref={scroller} className="max-h-[420px] overflow-y-auto" data-testid="hosts">
            <ul className="relative" style={{ height: rows.getTotalSize() }}>
              {rows.getVirtualItems().map((item) => {
                const host = hosts[item.index]!;
                return (
                  <li
                    key={item.key}
                    className={`absolute inset-x-0 ${GRID} border-b border-rule ${host.id === selected ? 'bg-chosen' : 'bg-sheet'}`}
                    style={{ top: item.start, minHeight: item.size }}
                    data-index={item.index}
                    data-record={host.id}
                    ref={rows.measureElement}
                    onFocus={() =>
                      host.id !== selected && select(plan.subnet.get(host.subnet)!.vlan, host.id)
                    }
                    onClick={() =>
                      host.id !== selected && select(plan.subnet.get(host.subnet)!.vlan, host.id)
                    }
                  >
                    <HostCells
                      plan={plan}
                      subnet={subnet}
                      columns={columns}
                      address={host}
                      finding={byAddress.get(host.id)}
                      marked={isMarked.has(host.id)}
                      onMark={(on, through) => mark(host.id, on, through)}
                    />
                  </li>
                );
              })}
            </ul>
          </div>
        </div>
      </div>
    </section>
  );
}

/** What the columns are ordered and filtered by. */
const columnsOf = (plan: Plan): readonly RecordColumn<Address>[] => [
  {
    id: 'Address',
    text: ({ address }) => formatAddress(address),
    order: ({ address }) => address,
  },
  { id: 'Host name', text: (address) => hostOf(plan, address).device.name },
  { id: 'Kind', text: (address) => hostOf(plan, address).device.kind.replaceAll('-', ' ') },
  { id: 'MAC', text: (address) => hostOf(plan, address).interface.mac ?? '' },
  {
    id: 'Fixed by',
    text: ({ assignment }) => assignmentOptions.find(({ value }) => value === assignment)!.label,
  },
  { id: 'Note', text: ({ note }) => note },
];

interface CellsProps {
  readonly plan: Plan;
  readonly subnet: Subnet;
  readonly columns: Columns<Column>;
  readonly address: Address;
  readonly finding: JudgedFinding | undefined;
  readonly marked: boolean;
  readonly onMark: (on: boolean, through: boolean) => void;
}

function HostCells({ plan, subnet, columns, address, finding, marked, onMark }: CellsProps) {
  const session = useSession();
  const edit = useEdit();
  const { device, interface: item } = hostOf(plan, address);
  return (
    <>
      <label className="flex min-h-8 items-center justify-center max-[699px]:min-h-11 max-[699px]:justify-start max-[699px]:px-1">
        <input
          type="checkbox"
          className="size-4 accent-ink"
          aria-label={`Mark ${device.name}`}
          checked={marked}
          onChange={(event) => onMark(event.target.checked, (event.nativeEvent as MouseEvent).shiftKey)}
        />
      </label>
      <span className="flex justify-center">{finding && <SeverityMark severity={finding.severity} />}</span>
      <span>
        <Field
          mono
          label={`Address of ${device.name}`}
          value={shortAddress(address.address, subnet.prefix)}
          onCommit={(text) =>
            session.perform({
              operation: 'moveHost',
              input: {
                address: address.id,
                to: typedAddress(text, subnet),
                seen: formatAddress(address.address),
              },
            })
          }
        />
      </span>
      <span>
        <Field
          label={`Name of ${device.name}`}
          value={device.name}
          onCommit={(text, seen) =>
            session.perform({ operation: 'renameHost', input: { address: address.id, name: text, seen } })
          }
        />
      </span>
      {columns.shows('Kind') && (
        <span>
          <Choice
            label={`Kind of ${device.name}`}
            value={device.kind}
            options={kindOptions}
            onChoose={(kind) => edit('device', device.id, 'kind', kind)}
          />
        </span>
      )}
      {columns.shows('MAC') && (
        <span>
          <Field
            mono
            label={`MAC of ${device.name}`}
            value={item.mac ?? ''}
            placeholder="none"
            className="text-[13px]"
            onCommit={(text) => edit('interface', item.id, 'mac', text === '' ? null : text, item.mac)}
          />
        </span>
      )}
      {columns.shows('Fixed by') && (
        <span>
          <Choice
            label={`Assignment of ${device.name}`}
            value={address.assignment}
            options={assignmentOptions}
            onChoose={(assignment) =>
              session.perform({ operation: 'setAssignment', input: { addresses: [address.id], assignment } })
            }
          />
        </span>
      )}
      {columns.shows('Note') && (
        <span>
          <Field
            label={`Note on ${device.name}`}
            value={address.note}
            onCommit={(text, seen) => edit('address', address.id, 'note', text, seen)}
          />
        </span>
      )}
    </>
  );
}
