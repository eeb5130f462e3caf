'use client';

import { useVirtualizer } from '@tanstack/react-virtual';
import { type KeyboardEvent, useEffect, useMemo, useRef, useState } from 'react';
import { formatAddress, formatPrefix, usableHosts, shortAddress, shortRange } from '@/core/address';
import { type Plan, type Vlan, gatewaysOf, hostOf, subnetOf, vlansOf } from '@/core/plan';
import { layoutOfSubnet, needOf } from '@/core/model/segments';
import { typedAddress, typedPrefix, useEdit, usePerformOrReview, wholeNumber } from '../../session/actions';
import { usePlan, useSession } from '../../session/context';
import { useView } from '../../session/view';
import { type Columns, ColumnChoice, useColumns } from '../../parts/columns';
import { ColumnHead, sortOf } from '../../parts/column-head';
import { Field } from '../../parts/field';
import { FilterLine } from '../../parts/filter-line';
import { type RecordColumn, useRecordTable } from '../../parts/record-table';
import { InsideBar } from '../../parts/inside-bar';
import { Jacket } from '../../parts/jacket';
import { SortableRows, useSortableRow } from '../../parts/sortable-rows';
import { useNarrow } from '../../parts/narrow';
import { countText } from '../../parts/count-text';

const COLUMNS = ['VLAN', 'Subnet', 'Gateway', 'Need', 'Fits', 'Pool', 'Inside it'] as const;
type Column = (typeof COLUMNS)[number];
const NARROW: ReadonlySet<string> = new Set(['VLAN', 'Need', 'Fits', 'Inside it']);
const ROW = 34;
const CARD = 180;
/** Up to this many rows all exist; beyond it only those that can be seen. */
const SHORT = 60;

/** Every segment as one row, edited in place; Alt and the arrow keys or dragging change the order. */
export function SegmentTable() {
  const plan = usePlan();
  const session = useSession();
  const all = vlansOf(plan);
  const heads = useMemo(() => headsOf(plan), [plan]);
  const records = useRecordTable('segments', all, heads);
  const { shown: vlans, sizes } = records;
  /** Rows can be moved where they stand in the site's own order. */
  const ordered = vlans.length === all.length && records.table.getState().sorting.length === 0;
  const selected = useView((state) => state.vlan);
  const ids = useMemo(() => vlans.map(({ id }) => id), [vlans]);
  const columns = useColumns('segments', COLUMNS);
  const table = useRef<HTMLTableElement>(null);
  const [top, setTop] = useState(0);
  const scroller = () => document.getElementById('station');
  const narrow = useNarrow();
  const short = vlans.length <= SHORT;
  // eslint-disable-next-line react-hooks/incompatible-library
  const rows = useVirtualizer({
    count: vlans.length,
    getScrollElement: scroller,
    estimateSize: () => (narrow ? CARD : ROW),
    overscan: short ? vlans.length : 12,
    scrollMargin: top,
    getItemKey: (index) => vlans[index]!.id,
  });
  useEffect(() => {
    const box = scroller();
    if (box && table.current)
      setTop(table.current.getBoundingClientRect().top - box.getBoundingClientRect().top + box.scrollTop);
  }, []);
  useEffect(() => {
    const at = vlans.findIndex((vlan) => vlan.id === selected);
    if (at >= 0) rows.scrollToIndex(at, { align: 'auto' });
    // Only a new selection scrolls; edits of the list must not.
  }, [selected]); // eslint-disable-line react-hooks/exhaustive-deps
  const items = rows.getVirtualItems();
  const before = (items[0]?.start ?? top) - top;
  const after = rows.getTotalSize() - ((items.at(-1)?.end ?? top) - top);
  const moveTo = (vlan: string, index: number) => {
    const others = vlans.filter((other) => other.id !== vlan);
    if (index < 0 || index > others.length) return;
    session.perform({ operation: 'moveSegment', input: { vlan, after: others[index - 1]?.id ?? null } });
  };
  return (
    <>
      <div className="flex flex-wrap items-center gap-2">
        <h3 className="font-bold">
          {all.length} segment{all.length === 1 ? '' : 's'}
        </h3>
        <FilterLine records={records} words="segments" of={all.length} placeholder="name, VLAN, subnet" />
        <span className="flex-1" />
        <ColumnChoice columns={columns} />
      </div>
      <SortableRows ids={ids} nameOf={(id) => plan.vlan.get(id)!.name} onMove={moveTo}>
        <table ref={table} className="schedule schedule-cards">
          <thead className="max-[699px]:sr-only">
            <tr>
              {(['Segment', 'Name', ...COLUMNS] as const).map(
                (head) =>
                  (head === 'Segment' || head === 'Name' || columns.shows(head)) && (
                    <th
                      key={head}
                      scope="col"
                      aria-sort={sortOf(records.table, head)}
                      className="p-0!"
                      {...(sizes[head] === undefined
                        ? {}
                        : { style: { width: sizes[head], minWidth: sizes[head] } })}
                    >
                      <ColumnHead
                        records={records}
                        column={head}
                        narrow={NARROW.has(head)}
                        className={head === 'Need' || head === 'Fits' ? 'justify-end' : ''}
                      />
                    </th>
                  ),
              )}
            </tr>
          </thead>
          <tbody className="max-[699px]:block">
            {before > 0 && <tr aria-hidden="true" style={{ height: before }} className="max-[699px]:block" />}
            {items.map(({ index }) => {
              const vlan = vlans[index]!;
              return (
                <SegmentRow
                  key={vlan.id}
                  plan={plan}
                  vlan={vlan}
                  index={index}
                  measure={rows.measureElement}
                  columns={columns}
                  ordered={ordered}
                  onAltArrow={(direction) => ordered && moveTo(vlan.id, index + direction)}
                />
              );
            })}
            {after > 0 && <tr aria-hidden="true" style={{ height: after }} className="max-[699px]:block" />}
          </tbody>
        </table>
      </SortableRows>
    </>
  );
}

/** What segments are ordered and filtered by. */
function headsOf(plan: Plan): readonly RecordColumn<Vlan>[] {
  const ipv4 = ({ id }: Vlan) => subnetOf(plan, id, 4);
  const gateway = (vlan: Vlan) => {
    const subnet = ipv4(vlan);
    return subnet && gatewaysOf(plan, subnet.id)[0];
  };
  const size = (vlan: Vlan) => {
    const subnet = ipv4(vlan);
    return subnet ? usableHosts(subnet.prefix) : 0;
  };
  const need = (vlan: Vlan) => {
    const subnet = ipv4(vlan);
    return subnet ? needOf(plan, vlan, subnet).total : 0;
  };
  const pools = (vlan: Vlan) => {
    const subnet = ipv4(vlan);
    return subnet ? [...plan.pool.group(subnet.id).values()] : [];
  };
  const free = (vlan: Vlan) => {
    const subnet = ipv4(vlan);
    return subnet ? layoutOfSubnet(plan, subnet).counts.free : 0;
  };
  return [
    { id: 'Segment', text: ({ code }) => code },
    { id: 'Name', text: ({ name }) => name },
    { id: 'VLAN', text: ({ vid }) => String(vid), order: ({ vid }) => vid },
    {
      id: 'Subnet',
      text: (vlan) => {
        const subnet = ipv4(vlan);
        return subnet ? formatPrefix(subnet.prefix) : '';
      },
      order: (vlan) => ipv4(vlan)?.prefix.address ?? -1,
    },
    {
      id: 'Gateway',
      text: (vlan) => {
        const address = gateway(vlan);
        return address ? `${formatAddress(address.address)} ${hostOf(plan, address).device.name}` : '';
      },
    },
    { id: 'Need', text: (vlan) => String(need(vlan)), order: need },
    { id: 'Fits', text: (vlan) => String(size(vlan)), order: size },
    {
      id: 'Pool',
      text: (vlan) =>
        pools(vlan)
          .map(({ start }) => formatAddress(start))
          .join(' '),
      order: (vlan) => pools(vlan)[0]?.start ?? -1,
    },
    { id: 'Inside it', text: () => '', order: free },
  ];
}

interface RowProps {
  readonly plan: Plan;
  readonly vlan: Vlan;
  readonly index: number;
  readonly measure: (row: HTMLTableRowElement | null) => void;
  readonly columns: Columns<Column>;
  /** Do the rows stand in the site's own order? */
  readonly ordered: boolean;
  readonly onAltArrow: (direction: 1 | -1) => void;
}

function SegmentRow({ plan, vlan, index, measure, columns, ordered, onAltArrow }: RowProps) {
  const session = useSession();
  const edit = useEdit();
  const performOrReview = usePerformOrReview();
  const { vlan: selected, select } = useView();
  const { setNodeRef, style, handle } = useSortableRow(vlan.id);
  const subnet = subnetOf(plan, vlan.id, 4);
  const v6 = subnetOf(plan, vlan.id, 6);
  const gateway = subnet && gatewaysOf(plan, subnet.id)[0];
  const pools = subnet ? [...plan.pool.group(subnet.id).values()] : [];
  const need = subnet && needOf(plan, vlan, subnet);
  const layout = subnet && layoutOfSubnet(plan, subnet);

  const commitSubnet = (text: string, seen: string) => {
    if (text === '' || /^none$/i.test(text)) {
      if (subnet) session.perform({ operation: 'removeSubnet', input: { subnet: subnet.id } });
      return;
    }
    const prefix = typedPrefix(text, subnet);
    if (!subnet) return void session.perform({ operation: 'addSubnet', input: { vlan: vlan.id, prefix } });
    const input = { subnet: subnet.id, prefix, seen };
    performOrReview(
      { operation: 'setPrefix', input },
      { operation: 'setPrefix', input: { ...input, relocate: true } },
      'What would move',
    );
  };
  const commitGateway = (text: string) => {
    if (!subnet) return;
    const none = text === '' || /^none$/i.test(text);
    const input = {
      subnet: subnet.id,
      address: none ? null : typedAddress(text, subnet),
      seen: gateway ? formatAddress(gateway.address) : null,
    };
    session.perform({ operation: 'setGateway', input });
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (!event.altKey || (event.key !== 'ArrowUp' && event.key !== 'ArrowDown')) return;
    event.preventDefault();
    onAltArrow(event.key === 'ArrowUp' ? -1 : 1);
  };
  return (
    <tr
      data-testid={`segment-${vlan.vid}`}
      data-index={index}
      data-record={[vlan.id, subnet?.id, v6?.id, gateway?.id, ...pools.map(({ id }) => id)].join(' ')}
      ref={(row) => {
        setNodeRef(row);
        measure(row);
      }}
      style={style}
      className={`min-[700px]:h-[34px] max-[699px]:grid max-[699px]:grid-cols-2 max-[699px]:border-b-2 max-[699px]:border-ink max-[699px]:py-2 ${selected === vlan.id ? 'bg-chosen' : 'bg-sheet'}`}
      onFocus={() => selected !== vlan.id && select(vlan.id)}
      onClick={() => selected !== vlan.id && select(vlan.id)}
      onKeyDown={onKeyDown}
    >
      <th scope="row" className="text-left whitespace-nowrap">
        <span className="inline-flex items-center pr-1">
          {ordered && handle(vlan.name)}
          <Jacket vlan={vlan} />
        </span>
      </th>
      <td className="min-w-[120px]">
        <Field
          label={`Name of ${vlan.name}`}
          value={vlan.name}
          onCommit={(text, seen) => edit('vlan', vlan.id, 'name', text, seen)}
        />
      </td>
      {columns.shows('VLAN') && (
        <td className="w-[56px]">
          <Field
            mono
            label={`VLAN id of ${vlan.name}`}
            value={String(vlan.vid)}
            onCommit={(text, seen) =>
              edit('vlan', vlan.id, 'vid', wholeNumber(text, 'VLAN id'), Number(seen))
            }
          />
        </td>
      )}
      {columns.shows('Subnet') && (
        <td className="min-w-[150px]">
          <Field
            mono
            label={`Subnet of ${vlan.name}`}
            value={subnet ? formatPrefix(subnet.prefix) : ''}
            placeholder={v6 ? 'IPv6 only' : 'none'}
            onCommit={commitSubnet}
          />
        </td>
      )}
      {columns.shows('Gateway') && (
        <td className="w-[112px]">
          <span className="flex items-center">
            <Field
              mono
              label={`Gateway of ${vlan.name}`}
              value={subnet && gateway ? shortAddress(gateway.address, subnet.prefix) : ''}
              placeholder={subnet ? 'none' : ''}
              onCommit={commitGateway}
            />
            {gateway && (
              <span className="pr-1 text-[13px] whitespace-nowrap text-muted">
                {hostOf(plan, gateway).device.name}
              </span>
            )}
          </span>
        </td>
      )}
      {columns.shows('Need') && (
        <td className="mono px-1 text-right" title={need?.text}>
          <span className="min-[700px]:hidden">need </span>
          {need?.total ?? ''}
        </td>
      )}
      {columns.shows('Fits') && (
        <td
          className={`mono px-1 text-right ${subnet && need && usableHosts(subnet.prefix) < need.total ? 'font-bold text-stop' : ''}`}
        >
          <span className="min-[700px]:hidden">fits </span>
          {subnet ? countText(usableHosts(subnet.prefix)) : ''}
        </td>
      )}
      {columns.shows('Pool') && (
        <td className="mono px-1 text-[13px] whitespace-nowrap">
          {subnet &&
            (pools.length ? (
              pools.map((pool) => shortRange(pool, subnet.prefix)).join(', ')
            ) : (
              <span className="text-muted">none</span>
            ))}
        </td>
      )}
      {columns.shows('Inside it') && (
        <td>
          {layout && (
            <InsideBar
              layout={layout}
              colour={vlan.colour}
              label={`${layout.counts.fixed + layout.counts.reserved} fixed, ${layout.counts.pool} in the pool, ${layout.counts.free} free`}
            />
          )}
        </td>
      )}
    </tr>
  );
}
