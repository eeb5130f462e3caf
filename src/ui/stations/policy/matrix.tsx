'use client';

import { type KeyboardEvent, type PointerEvent, useMemo, useRef, useState } from 'react';
import { followPointer } from '../../parts/pointer-drag';
import { today } from '@/today';
import type { Plan } from '@/core/plan';
import { forwardText, forwardsInto, serviceNames, zonesOf } from '@/core/model/policy';
import { type Pair as WholePair, wholeMatrix } from '@/core/rehearse';
import { useView } from '../../session/view';
import { Gate, decisionWords } from './gate';

interface Pair {
  readonly from: string;
  readonly to: string;
}
const keyOf = ({ from, to }: Pair) => `${from} ${to}`;

/**
 * What passes from each zone (rows) to each (columns). Cells are chosen by drag, Shift and the arrow keys; with a brush
 * taken up, what is dragged over is decided at once.
 */
export function Matrix({
  plan,
  onPaint,
}: {
  plan: Plan;
  onPaint: ((pairs: readonly Pair[]) => void) | null;
}) {
  const zones = zonesOf(plan);
  const { pairs, zone: chosenZone, set } = useView();
  const chosen = new Set(pairs.map(keyOf));
  // Many zones stand in narrow columns under upright names, so that the whole matrix is in view.
  const narrow = zones.length > 7;
  const grid = useRef<HTMLTableElement>(null);
  const anchor = useRef<readonly [number, number] | null>(null);
  const [focused, setFocused] = useState<readonly [number, number]>([0, 0]);
  const decided = useMemo(() => wholeMatrix(plan, today()), [plan]);
  const between = (a: readonly [number, number], b: readonly [number, number]): Pair[] => {
    const found: Pair[] = [];
    for (let row = Math.min(a[0], b[0]); row <= Math.max(a[0], b[0]); row++)
      for (let column = Math.min(a[1], b[1]); column <= Math.max(a[1], b[1]); column++)
        found.push({ from: zones[row]!.id, to: zones[column]!.id });
    return found;
  };
  const choose = (next: readonly Pair[]) => set({ pairs: next, zone: null, rule: null, finding: null });
  const cellUnder = (x: number, y: number): readonly [number, number] | null => {
    const at = document.elementFromPoint(x, y)?.closest('[data-cell]')?.getAttribute('data-cell');
    return at ? (at.split(' ').map(Number) as unknown as [number, number]) : null;
  };
  const onPointerDown = (event: PointerEvent) => {
    const at = cellUnder(event.clientX, event.clientY);
    if (!at) return;
    if (event.shiftKey && anchor.current) return choose(between(anchor.current, at));
    anchor.current = at;
    setFocused(at);
    choose([...between(at, at)]);
    let last: readonly Pair[] = between(at, at);
    followPointer(event, {
      onMove: ({ clientX, clientY }) => {
        const over = cellUnder(clientX, clientY);
        if (over) choose((last = between(at, over)));
      },
      onDrop: () => onPaint?.(last),
      onCancel: () => choose([]),
    });
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const steps: Readonly<Record<string, readonly [number, number]>> = {
      ArrowUp: [-1, 0],
      ArrowDown: [1, 0],
      ArrowLeft: [0, -1],
      ArrowRight: [0, 1],
    };
    const step = steps[event.key];
    if (!step) return;
    event.preventDefault();
    const clamp = (n: number) => Math.min(zones.length - 1, Math.max(0, n));
    const next = [clamp(focused[0] + step[0]), clamp(focused[1] + step[1])] as const;
    setFocused(next);
    if (!event.shiftKey) anchor.current = next;
    choose(between(event.shiftKey ? (anchor.current ?? focused) : next, next));
    grid.current?.querySelector<HTMLElement>(`[data-cell="${next[0]} ${next[1]}"]`)?.focus();
  };
  return (
    <div className="overflow-x-auto">
      <table
        ref={grid}
        role="grid"
        aria-label="Who may talk to whom"
        aria-multiselectable="true"
        className="border-collapse text-[14px] select-none min-[700px]:touch-none"
        onPointerDown={onPointerDown}
        onKeyDown={onKeyDown}
      >
        <thead>
          <tr>
            <td className="pr-2 text-right align-bottom text-[13px] text-muted">from ↓ to →</td>
            {zones.map((zone) => (
              <th
                key={zone.id}
                scope="col"
                className="border-b-2 border-ink px-1 pb-1.5 align-bottom font-bold"
              >
                <span
                  className={`block truncate text-left ${narrow ? 'max-h-[110px] rotate-180 [writing-mode:vertical-rl]' : 'max-w-[92px]'}`}
                  title={zone.name}
                >
                  {zone.name}
                </span>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {zones.map((from, row) => (
            <tr key={from.id}>
              <th scope="row" className="sticky left-0 z-10 border-r-2 border-ink bg-sheet p-0 text-left">
                <button
                  type="button"
                  className={`min-h-9 w-full max-[699px]:min-h-touch max-w-[170px] truncate px-1 text-left font-bold hover:bg-chosen ${chosenZone === from.id ? 'bg-chosen' : ''}`}
                  onClick={() => set({ zone: from.id, pairs: [], rule: null, finding: null })}
                >
                  {from.name}
                </button>
              </th>
              {zones.map((to, column) => (
                <CellView
                  key={to.id}
                  plan={plan}
                  pair={decided[row * zones.length + column]!}
                  at={`${row} ${column}`}
                  chosen={chosen.has(keyOf({ from: from.id, to: to.id }))}
                  narrow={narrow}
                  focusable={focused[0] === row && focused[1] === column}
                />
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function CellView({
  plan,
  pair,
  at,
  chosen,
  narrow,
  focusable,
}: {
  plan: Plan;
  pair: WholePair;
  at: string;
  chosen: boolean;
  narrow: boolean;
  focusable: boolean;
}) {
  const { from, to, passing: found, rules } = pair;
  const named = found.decision === 'services' ? serviceNames(plan, found.services) : '';
  const differs = new Set(pair.differences.map(({ kind }) => kind));
  const above = rules.length === 0 ? '' : `; ${rules.length} rule${rules.length === 1 ? '' : 's'} above`;
  const rehearsed = differs.has('excess')
    ? ', more passes'
    : differs.has('missing')
      ? ', not all of it works'
      : '';
  const forwards = forwardsInto(plan, from, to);
  const led =
    forwards.length === 0
      ? ''
      : `; forwards lead in: ${forwards.map((forward) => forwardText(plan, forward)).join(', ')}`;
  const words = named ? `only ${named}` : decisionWords[found.decision];
  return (
    <td
      role="gridcell"
      aria-selected={chosen}
      title={`${from.name} to ${to.name}: ${words}; ${found.why}${led}${above}${rehearsed && `; rehearsed${rehearsed}`}`}
      data-cell={at}
      tabIndex={focusable ? 0 : -1}
      className={`relative h-10 cursor-pointer border border-rule ${narrow ? 'min-w-[44px] px-0.5' : 'w-[96px] min-w-[64px] px-1.5'} ${chosen ? 'outline-[3px] -outline-offset-2 outline-ink' : ''} ${found.cell ? 'bg-chosen' : from === to ? 'bg-paper' : 'bg-sheet'}`}
    >
      {/* The whole sentence is for a reader; gate and number are for the eye. */}
      <span className="sr-only">
        {`${from.name} to ${to.name}: ${words}${found.cell ? ', decided here' : ', as usual'}${led}${above}${rehearsed && `; rehearsed${rehearsed}`}`}
      </span>
      {rules.length > 0 && (
        <span
          aria-hidden="true"
          className="mono absolute bottom-0 left-0.5 text-[11px] leading-none font-bold"
        >
          +{rules.length}
        </span>
      )}
      {forwards.length > 0 && (
        <span
          aria-hidden="true"
          className="mono absolute top-0.5 right-0.5 border border-ink bg-hivis px-0.5 text-[11px] leading-none font-bold text-on-hivis"
        >
          →{forwards.length}
        </span>
      )}
      {differs.size > 0 && <Corner excess={differs.has('excess')} />}
      <span aria-hidden="true" className="flex items-center gap-1">
        <Gate decision={found.decision} />
        {found.decision === 'services' && (
          <span
            className={`mono text-[12px] font-bold ${narrow ? 'absolute top-0 right-0.5 leading-none' : ''}`}
          >
            {found.services.length}
          </span>
        )}
      </span>
    </td>
  );
}

/** What the rehearsal found in a cell: a full corner where more passes than is allowed, an open one where less does. */
export function Corner({ excess }: { excess: boolean }) {
  return (
    <svg width="13" height="13" viewBox="0 0 13 13" aria-hidden="true" className="absolute right-0 bottom-0">
      {excess ? (
        <path d="M13 0v13H0z" fill="var(--stop)" />
      ) : (
        <path d="M12 3v9H3z" fill="var(--sheet)" stroke="var(--ink)" strokeWidth="1.6" />
      )}
    </svg>
  );
}
