'use client';

import { type KeyboardEvent, memo, useMemo, useRef, useState } from 'react';
import { type IpAddress, addOffset, formatAddress, sizeOf, shortAddress } from '@/core/address';
import {
  type Call,
  type Plan,
  type Address,
  type Pool,
  type Subnet,
  type Vlan,
  addressesOf,
  hostOf,
} from '@/core/plan';
import { type AddressUse, layoutOfSubnet } from '@/core/model/segments';
import { problemOf } from '../../session/attempt';
import { useSession } from '../../session/context';
import { useFindings, locationOf } from '../../session/open-findings';
import { useView } from '../../session/view';
import { textOn } from '@/core/model/segments';
import { fillOf } from '../../parts/inside-bar';
import { useNarrow } from '../../parts/narrow';
import { followPointer } from '../../parts/pointer-drag';

const COLUMNS = 32;
const NARROW_COLUMNS = 16;

const useWords: Readonly<Record<AddressUse, string>> = {
  network: 'network',
  broadcast: 'broadcast',
  gateway: 'gateway',
  virtual: 'virtual',
  fixed: 'fixed, static on the device',
  reserved: 'reserved by MAC',
  excluded: 'excluded from the pool',
  pool: 'pool',
  free: 'free',
};

interface Edge {
  readonly pool: Pool;
  readonly side: 'start' | 'end';
  readonly address: IpAddress;
}

/** Every address of a subnet as a cell; pool edges are dragged or moved with the arrow keys. */
export function CellGrid({ plan, vlan, subnet }: { plan: Plan; vlan: Vlan; subnet: Subnet }) {
  const session = useSession();
  const { address: selected, select } = useView();
  const [edge, setEdge] = useState<Edge | null>(null);
  const [message, setMessage] = useState('');
  /** What the cell is that is pointed at. */
  const [pointed, setPointed] = useState('');
  const grid = useRef<HTMLDivElement>(null);
  const size = sizeOf(subnet.prefix);
  const columns = Math.min(useNarrow() ? NARROW_COLUMNS : COLUMNS, size);
  const base = subnet.prefix.address as number;

  const shown = useMemo(() => {
    if (!edge) return plan;
    const pool = { ...edge.pool, [edge.side]: edge.address };
    return { ...plan, pool: plan.pool.with(pool.id, pool) };
  }, [plan, edge]);
  const uses = useMemo(() => {
    const list: AddressUse[] = new Array(size);
    for (const run of layoutOfSubnet(shown, subnet).runs)
      for (let at = run.start as number; at <= (run.end as number); at++) list[at - base] = run.use;
    return list;
  }, [shown, subnet, size, base]);
  const hosts = useMemo(() => {
    const map = new Map<number, Address>();
    for (const host of addressesOf(plan, subnet.id))
      if (typeof host.address === 'number') map.set(host.address - base, host);
    return map;
  }, [plan, subnet.id, base]);
  const findings = useFindings();
  const wrong = useMemo(() => {
    const ids = findings
      .filter((finding) => !finding.accepted && finding.severity !== 'note')
      .map((finding) => locationOf(plan, finding).address);
    return new Set(ids);
  }, [findings, plan]);
  const pools = [...shown.pool.group(subnet.id).values()];

  const commit = ({ pool, side, address }: Edge) => {
    const before = plan.pool.get(pool.id)?.[side];
    setEdge(null);
    if (before === undefined || before === address) return;
    const set = { [side]: formatAddress(address) };
    const seen = { [side]: formatAddress(before) };
    const call = { operation: 'edit', input: { table: 'pool', id: pool.id, set, seen } } satisfies Call;
    setMessage(problemOf(() => session.perform(call)));
  };
  const addressAt = (event: { clientX: number; clientY: number }): number | null => {
    const box = grid.current!.getBoundingClientRect();
    const column = Math.floor(((event.clientX - box.left) / box.width) * columns);
    const row = Math.floor(((event.clientY - box.top) / box.height) * Math.ceil(size / columns));
    const offset = row * columns + Math.min(columns - 1, Math.max(0, column));
    return offset >= 0 && offset < size ? base + offset : null;
  };
  const limited = (pool: Pool, side: Edge['side'], address: IpAddress): IpAddress =>
    side === 'start'
      ? address > pool.end
        ? pool.end
        : address
      : address < pool.start
        ? pool.start
        : address;
  const onEdgeKey = (event: KeyboardEvent, pool: Pool, side: Edge['side']) => {
    const by = { ArrowLeft: -1, ArrowRight: 1, ArrowUp: -columns, ArrowDown: columns }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    commit({ pool, side, address: limited(pool, side, addOffset(pool[side], by)) });
  };
  const edgeAt = (offset: number): { pool: Pool; side: Edge['side'] }[] =>
    pools.flatMap((pool) => [
      ...((pool.start as number) - base === offset ? [{ pool, side: 'start' as const }] : []),
      ...((pool.end as number) - base === offset ? [{ pool, side: 'end' as const }] : []),
    ]);
  return (
    <div>
      <div
        ref={grid}
        role="group"
        aria-label={`Addresses of ${vlan.name}`}
        className="own-colours relative grid border-2 border-ink bg-ink"
        style={{ gridTemplateColumns: `repeat(${columns}, minmax(0, 1fr))`, gap: 1 }}
        data-testid="cells"
        onPointerOver={({ target }) =>
          setPointed((target as HTMLElement).closest('[data-cell]')?.getAttribute('data-cell') ?? '')
        }
        onPointerLeave={() => setPointed('')}
        onClick={(event) => {
          // A pointer's short cut; the table below is the same by keyboard.
          const at = addressAt(event);
          const host = at === null ? undefined : hosts.get(at - base);
          if (host && !host.gateway) select(vlan.id, host.id);
        }}
      >
        {uses.map((use, offset) => {
          const host = hosts.get(offset);
          const edges =
            use === 'pool' || use === 'reserved' || use === 'fixed' || use === 'excluded'
              ? edgeAt(offset)
              : [];
          return (
            <Cell
              key={offset}
              use={use}
              colour={vlan.colour}
              label={`${formatAddress(base + offset)} ${host ? `${hostOf(plan, host).device.name}, ` : ''}${useWords[use]}`}
              text={(base + offset) % 256}
              tall={size <= 256}
              selected={host?.id !== undefined && host.id === selected}
              wrong={host !== undefined && wrong.has(host.id)}
            >
              {edges.map(({ pool, side }) => (
                <button
                  key={side}
                  type="button"
                  aria-label={`Pool ${side} ${formatAddress(pool[side])}; arrow keys move it`}
                  className={`absolute inset-y-0 z-10 touch-none ${side === 'start' ? 'left-0' : 'right-0'} ${edges.length > 1 ? 'w-1/2' : 'w-full'}`}
                  style={{ cursor: 'ew-resize' }}
                  onKeyDown={(event) => onEdgeKey(event, pool, side)}
                  onPointerDown={(event) => {
                    event.stopPropagation();
                    grid.current!.setPointerCapture(event.pointerId);
                    const original = plan.pool.get(pool.id)!;
                    const edgeFor = (native: globalThis.PointerEvent): Edge => {
                      const address = addressAt(native) ?? original[side];
                      return { pool: original, side, address: limited(original, side, address) };
                    };
                    setEdge({ pool: original, side, address: original[side] });
                    followPointer(event, {
                      onMove: (native) => setEdge(edgeFor(native)),
                      onDrop: (native) => commit(edgeFor(native)),
                      onCancel: () => setEdge(null),
                    });
                  }}
                >
                  <Grip side={side} />
                </button>
              ))}
            </Cell>
          );
        })}
      </div>
      <p role="status" className="mono min-h-5 pt-1 text-[13px]">
        {edge ? `${edge.side} ${shortAddress(edge.address, subnet.prefix)}` : message || pointed}
      </p>
    </div>
  );
}

/** Where a pool begins or ends, at the foot of its cell, so that the number stays readable. */
const Grip = ({ side }: { side: Edge['side'] }) => (
  <>
    <span className="absolute inset-x-0 bottom-0 h-[6px] border-t border-ink bg-hivis" />
    <span className={`absolute inset-y-0 w-[2px] bg-hivis ${side === 'start' ? 'left-0' : 'right-0'}`} />
  </>
);

interface CellProps {
  readonly use: AddressUse;
  readonly colour: string;
  readonly label: string;
  readonly text: number;
  readonly tall: boolean;
  readonly selected: boolean;
  readonly wrong: boolean;
  readonly children: React.ReactNode;
}

const lettered: Partial<Record<AddressUse, string>> = { gateway: 'G', virtual: 'V', excluded: '×' };

/** The text colour on each fill; a pool's follows from its jacket. */
const inkOn: Readonly<Record<AddressUse, string>> = {
  network: 'var(--sheet)',
  broadcast: 'var(--sheet)',
  gateway: 'var(--on-hivis)',
  virtual: 'var(--on-hivis)',
  fixed: 'var(--on-hivis)',
  reserved: 'var(--on-hivis)',
  excluded: 'var(--ink)',
  pool: 'var(--ink)',
  free: 'var(--ink)',
};

const Cell = memo(function Cell({ use, colour, label, text, tall, selected, wrong, children }: CellProps) {
  const background = wrong ? 'var(--stop)' : fillOf(use, colour);
  const ink = wrong ? 'var(--sheet)' : use === 'pool' ? textOn(colour) : inkOn[use];
  const content = wrong ? '!' : (lettered[use] ?? (tall ? text : ''));
  const style = {
    background,
    color: ink,
    outline: selected ? '3px solid var(--ink)' : undefined,
    outlineOffset: -3,
  };
  const shared = {
    'data-cell': label,
    className: `mono relative block overflow-hidden text-center leading-none ${tall ? 'h-[22px] pt-[5px] text-[11px]' : 'h-[13px] text-[10px]'} ${use === 'reserved' ? 'underline' : ''}`,
    style,
  };
  return (
    <span {...shared}>
      {content}
      {children}
    </span>
  );
});
