'use client';

import { useVirtualizer } from '@tanstack/react-virtual';
import { useMemo, useRef, useState } from 'react';
import type { Plan, Port } from '@/core/plan';
import { useEdit } from '../../session/actions';
import { useView } from '../../session/view';
import { useCommands } from '../../shell/commands';
import { Field } from '../../parts/field';
import { ChoosePorts } from './choose-ports';
import { PastePorts } from './paste-ports';
import type { Gear } from './gear-list';
import { carriedText, leadsTo } from '@/core/model/wiring';

const ROW = 33;
const GRID =
  'grid grid-cols-[34px_minmax(84px,1fr)_58px_minmax(170px,2.2fr)_minmax(120px,1.6fr)_minmax(90px,1fr)_76px] items-center max-[699px]:grid-cols-[34px_1fr_44px]';

interface Row {
  readonly port: Port;
  readonly device: string;
  readonly carries: string;
  readonly to: string;
}

type Sort = 'place' | 'carries' | 'to';

/** Every port of every box as a row, for those who think in rows: filter, sort, mark; what is marked is set at the right. */
export function PortTable({ plan, gear }: { plan: Plan; gear: readonly Gear[] }) {
  const edit = useEdit();
  const { ports: chosen, set } = useView();
  const [filter, setFilter] = useState('');
  const [sort, setSort] = useState<Sort>('place');
  const [pasting, setPasting] = useState(false);
  const commands = useMemo(
    () => [{ key: 'p', name: 'paste ports from a spreadsheet', run: () => setPasting(true) }],
    [],
  );
  useCommands(commands);
  const scroller = useRef<HTMLDivElement>(null);
  const all = useMemo<Row[]>(
    () =>
      gear.flatMap(({ device, ports }) =>
        ports.map((port) => ({
          port,
          device: device.name,
          carries: carriedText(plan, port),
          to: leadsTo(plan, port),
        })),
      ),
    [plan, gear],
  );
  const shown = useMemo(() => {
    const wanted = filter.trim().toLowerCase();
    const rows = all.filter((row) =>
      `${row.device} ${row.port.number} ${row.carries} ${row.to} ${row.port.label} ${row.port.name}`
        .toLowerCase()
        .includes(wanted),
    );
    if (sort === 'place') return rows;
    return [...rows].sort((a, b) => a[sort].localeCompare(b[sort], undefined, { numeric: true }));
  }, [all, filter, sort]);
  // eslint-disable-next-line react-hooks/incompatible-library
  const rows = useVirtualizer({
    count: shown.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 10,
    getItemKey: (index) => shown[index]!.port.id,
  });
  const marked = new Set(chosen);
  const choose = (ids: readonly string[]) => set({ ports: ids, asking: null });
  const show = (ports: readonly Port[]) => {
    const first = shown.findIndex((row) => row.port.id === ports[0]?.id);
    if (first >= 0) rows.scrollToIndex(first, { align: 'start' });
  };
  return (
    <section aria-label="All ports">
      {pasting && <PastePorts plan={plan} onClose={() => setPasting(false)} />}
      <div className="flex flex-wrap items-end gap-3 pb-2">
        <label className="text-[13px]">
          Filter
          <input
            className="field field-line"
            placeholder="trunk, sw-a, camera"
            value={filter}
            onChange={(event) => setFilter(event.target.value)}
          />
        </label>
        <ChoosePorts gear={gear} onChosen={show} />
        <button type="button" className="button" onClick={() => setPasting(true)}>
          Paste rows… <span className="key">p</span>
        </button>
        <span role="status" className="text-[14px]">
          {`${shown.length} of ${all.length} ports${marked.size ? `, ${marked.size} chosen` : ''}`}
        </span>
      </div>
      <div className="overflow-x-auto">
        <div className="min-w-[680px] max-[699px]:min-w-0">
          <div className={`${GRID} border-y-2 border-ink text-[13px] font-bold`}>
            <label className="flex min-h-8 items-center justify-center">
              <input
                type="checkbox"
                className="size-4 accent-ink"
                aria-label="Choose all shown"
                checked={shown.length > 0 && shown.every((row) => marked.has(row.port.id))}
                onChange={(event) => choose(event.target.checked ? shown.map((row) => row.port.id) : [])}
              />
            </label>
            <Head label="Box" on={() => setSort('place')} active={sort === 'place'} />
            <span>Port</span>
            <Head label="Carries" on={() => setSort('carries')} active={sort === 'carries'} />
            <Head label="Leads to" on={() => setSort('to')} active={sort === 'to'} />
            <span className="max-[699px]:hidden">Label</span>
            <span className="max-[699px]:hidden">Config</span>
          </div>
          <div ref={scroller} className="max-h-[540px] overflow-y-auto" data-testid="ports">
            <ul className="relative" style={{ height: rows.getTotalSize() }}>
              {rows.getVirtualItems().map((item) => {
                const { port, device, carries, to } = shown[item.index]!;
                return (
                  <li
                    key={item.key}
                    className={`absolute inset-x-0 ${GRID} border-b border-rule ${marked.has(port.id) ? 'bg-chosen' : 'bg-sheet'}`}
                    style={{ top: item.start, minHeight: item.size }}
                    data-index={item.index}
                    data-record={port.id}
                    ref={rows.measureElement}
                  >
                    <label className="flex min-h-8 items-center justify-center">
                      <input
                        type="checkbox"
                        className="size-4 accent-ink"
                        aria-label={`Choose ${device} ${port.number}`}
                        checked={marked.has(port.id)}
                        onChange={(event) =>
                          choose(
                            event.target.checked
                              ? [...chosen, port.id]
                              : chosen.filter((id) => id !== port.id),
                          )
                        }
                      />
                    </label>
                    <span className="mono truncate">{device}</span>
                    <span className={port.number === 0 ? 'text-[13px]' : 'mono'}>
                      {port.number === 0 ? 'inside' : port.number}
                    </span>
                    <span className="truncate max-[699px]:col-span-3 max-[699px]:pl-9" title={carries}>
                      {carries}
                    </span>
                    <span className="truncate max-[699px]:col-span-3 max-[699px]:pl-9" title={to}>
                      {to}
                    </span>
                    <span className="max-[699px]:hidden">
                      <Field
                        label={`Label of ${device} ${port.number}`}
                        value={port.label}
                        onCommit={(text, seen) => edit('port', port.id, 'label', text, seen)}
                      />
                    </span>
                    <span className="mono truncate text-[13px] max-[699px]:hidden">{port.name}</span>
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

function Head({ label, on, active }: { label: string; on: () => void; active: boolean }) {
  return (
    <button
      type="button"
      className={`min-h-8 text-left font-bold hover:underline max-[699px]:hidden ${active ? 'underline' : ''}`}
      aria-pressed={active}
      onClick={on}
    >
      {label}
    </button>
  );
}
