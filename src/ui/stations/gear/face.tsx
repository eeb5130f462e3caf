'use client';

import { type KeyboardEvent, type PointerEvent, useEffect, useMemo, useRef, useState } from 'react';
import { cablesAt, carries, isPassive, portLabel } from '@/core/model/wiring';
import type { Plan, Port } from '@/core/plan';
import { useView } from '../../session/view';
import { useNarrow } from '../../parts/narrow';
import { followPointer } from '../../parts/pointer-drag';
import { PortCell, lookOf } from './port-cell';
import type { Gear } from './gear-list';

/** Sides of a port in pixels, at least and at most; a thumb needs more than a mouse. */
const SIDES = { wide: [23, 40], narrow: [40, 44] } as const;
const GAP = 3;

interface Props {
  readonly plan: Plan;
  readonly gear: Gear;
  readonly wrong: ReadonlySet<string>;
  /** The ports at both ends of what is pointed at. */
  readonly pointed: ReadonlySet<string>;
  /** Somebody dragged from a port of this face to a port elsewhere. */
  readonly onJoin: (from: string, to: string) => void;
}

const portUnder = (event: { clientX: number; clientY: number }): string | null =>
  document
    .elementFromPoint(event.clientX, event.clientY)
    ?.closest('[data-port]')
    ?.getAttribute('data-port') ?? null;

/**
 * The face of a box as on its case. Drag across ports or use Shift and the arrow keys to choose several; drag to a port
 * of another box to lay a cable. A wide face is made smaller, and on a phone folded; it is never cut off.
 */
export function Face({ plan, gear, wrong, pointed, onJoin }: Props) {
  const { device } = gear;
  const ports = useMemo(() => gear.ports.filter((port) => port.number > 0), [gear.ports]);
  const { ports: chosen, device: chosenDevice, followed, set } = useView();
  const frame = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(700);
  const anchor = useRef<string | null>(null);
  const [focused, setFocused] = useState<string | null>(null);
  useEffect(() => {
    // The last call may come when the face is gone.
    const observer = new ResizeObserver(() => frame.current && setWidth(frame.current.clientWidth));
    observer.observe(frame.current!);
    return () => observer.disconnect();
  }, []);

  const columns = Math.max(...ports.map((port) => port.column)) + 1;
  const usable = width - 16;
  const [least, most] = SIDES[useNarrow() ? 'narrow' : 'wide'];
  const folds = Math.ceil(columns / Math.max(1, Math.floor(usable / (least + GAP))));
  // Folds of like width, so that no two ports stand alone below.
  const perFold = Math.ceil(columns / folds);
  const size = Math.max(least, Math.min(most, Math.floor(usable / perFold) - GAP));
  const passive = isPassive(device.kind);
  // Made once for a plan, so that choosing ports draws only the ports whose choice changed.
  const drawn = useMemo(
    () =>
      new Map(
        ports.map((port) => [port.id, { look: lookOf(plan, port, passive), label: portLabel(plan, port) }]),
      ),
    [plan, ports, passive],
  );
  const cabled = useMemo(() => {
    const plugged = ({ id }: Port) =>
      cablesAt(plan, { port: id, side: 'front' }).length + cablesAt(plan, { port: id, side: 'rear' }).length >
      0;
    return new Set(ports.filter(plugged).map(({ id }) => id));
  }, [plan, ports]);
  const own = new Set(ports.map((port) => port.id));
  const chosenHere = chosen.filter((id) => own.has(id));

  const choose = (ids: readonly string[]) =>
    set({ ports: ids, device: device.id, asking: null, finding: null });
  const between = (a: string, b: string): string[] => {
    const [from, to] = [a, b].map((id) => ports.findIndex((port) => port.id === id)).sort((x, y) => x - y);
    return ports.slice(from, to! + 1).map((port) => port.id);
  };
  const onPointerDown = (event: PointerEvent) => {
    const id = portUnder(event);
    if (!id || !own.has(id)) return;
    if (event.shiftKey && anchor.current && own.has(anchor.current))
      return choose(between(anchor.current, id));
    if (event.ctrlKey || event.metaKey) {
      anchor.current = id;
      return choose(
        // Also beside ports of other boxes.
        chosen.includes(id) ? chosen.filter((other) => other !== id) : [...chosen, id],
      );
    }
    anchor.current = id;
    const before = { ports: chosen, device: chosenDevice };
    choose([id]);
    followPointer(event, {
      onMove: (native) => {
        const over = portUnder(native);
        if (over && own.has(over)) choose(between(id, over));
      },
      onDrop: (native) => {
        const over = portUnder(native);
        if (!over || own.has(over)) return;
        // Who drags a cable chooses no ports by it.
        set(before);
        onJoin(id, over);
      },
      onCancel: () => choose([id]),
    });
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const id = (event.target as HTMLElement).getAttribute('data-port');
    const at = ports.find((port) => port.id === id);
    if (!at) return;
    const steps: Readonly<Record<string, readonly [number, number]>> = {
      ArrowLeft: [0, -1],
      ArrowRight: [0, 1],
      ArrowUp: [-1, 0],
      ArrowDown: [1, 0],
    };
    const step = steps[event.key];
    if (event.key === ' ') {
      event.preventDefault();
      anchor.current = at.id;
      choose(
        chosenHere.includes(at.id) ? chosenHere.filter((other) => other !== at.id) : [...chosenHere, at.id],
      );
    } else if (event.key === 'Enter') {
      event.preventDefault();
      anchor.current = at.id;
      choose([at.id]);
    } else if (step) {
      event.preventDefault();
      const next = neighbour(ports, at, step);
      if (!next) return;
      setFocused(next.id);
      frame.current!.querySelector<HTMLElement>(`[data-port="${next.id}"]`)?.focus();
      if (event.shiftKey) {
        anchor.current ??= at.id;
        choose(between(anchor.current, next.id));
      }
    }
  };
  const tabStop = focused && own.has(focused) ? focused : ports[0]?.id;
  return (
    <div
      ref={frame}
      role="listbox"
      aria-multiselectable="true"
      aria-label={`Ports of ${device.name}`}
      className="min-w-0"
      onPointerDown={onPointerDown}
      onKeyDown={onKeyDown}
    >
      {Array.from({ length: folds }, (_, fold) => {
        const [from, to] = [fold * perFold, (fold + 1) * perFold];
        const shown = ports.filter((port) => port.column >= from && port.column < to);
        if (shown.length === 0) return null;
        return (
          <div
            key={fold}
            className="own-colours mb-1 inline-grid bg-[#1d2823] p-2"
            style={{ gap: GAP, gridAutoColumns: size, justifyContent: 'start' }}
          >
            {shown.map((port) => (
              <PortCell
                key={port.id}
                port={port}
                column={port.column - from + 1}
                look={drawn.get(port.id)!.look}
                label={drawn.get(port.id)!.label}
                size={size}
                chosen={chosen.includes(port.id)}
                faded={followed !== null && !passive && !carries(port, followed)}
                wrong={wrong.has(port.id)}
                cabled={cabled.has(port.id)}
                pointed={pointed.has(port.id)}
                focusable={port.id === tabStop}
              />
            ))}
          </div>
        );
      })}
    </div>
  );
}

function neighbour(
  ports: readonly Port[],
  at: Port,
  [rows, columns]: readonly [number, number],
): Port | undefined {
  if (rows !== 0) return ports.find((port) => port.column === at.column && port.row === at.row + rows);
  const row = ports.filter((port) => port.row === at.row).sort((a, b) => a.column - b.column);
  return row[row.indexOf(at) + columns];
}
