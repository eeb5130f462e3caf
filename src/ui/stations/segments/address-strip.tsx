'use client';

import { useEffect, useMemo, useRef, useState } from 'react';
import { formatIpv4, type Prefix, formatPrefix, networkOf, sizeOf } from '@/core/address';
import { isFree } from '@/core/model/segments';
import { problemOf } from '../../session/attempt';
import { usePlan, useSession } from '../../session/context';
import { useView } from '../../session/view';
import { OneOf } from '../../parts/one-of';
import { followPointer } from '../../parts/pointer-drag';
import { textOn } from '@/core/model/segments';
import {
  type StripSpan,
  type StripSegment,
  freeRuns,
  spaceSpans,
  spreadLabels,
  stripSegments,
} from './strip-model';

const HEIGHT = 46;
const MIN_WIDTH = 6;
const LABEL_GAP = 34;

interface Drag {
  readonly segment: StripSegment;
  readonly target: Prefix;
  readonly free: boolean;
}

/** The site's address space as one strip: segments at their place, free blocks named, zoomable, segments draggable. */
export function AddressStrip() {
  const plan = usePlan();
  const session = useSession();
  const { vlan: selected, select } = useView();
  const spans = useMemo(() => spaceSpans(plan), [plan]);
  const [chosen, setChosen] = useState(0);
  const space = spans[Math.min(chosen, spans.length - 1)];
  const [zoom, setZoom] = useState<StripSpan | null>(null);
  const [drag, setDrag] = useState<Drag | null>(null);
  const [message, setMessage] = useState('');
  const strip = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(700);

  const hasSpace = space !== undefined;
  useEffect(() => {
    const element = strip.current;
    if (!element) return;
    const observer = new ResizeObserver(() => setWidth(element.clientWidth));
    observer.observe(element);
    return () => observer.disconnect();
  }, [hasSpace]);

  // Where more segments stand close together than can be named, the strip opens on the part in use.
  const everything = space ? stripSegments(plan, space) : [];
  const used = space && usedSpan(everything, space);
  const [whole, setWhole] = useState(false);
  const crowded =
    space && used && everything.length > width / LABEL_GAP && 4 * sizeOfSpan(used) < sizeOfSpan(space);
  const start = crowded && !whole ? used : space;
  const view = space && zoom && zoom.from >= space.from && zoom.to <= space.to ? zoom : start;
  const zoomBy = (factor: number, centre?: number) => {
    if (!view || !space) return;
    const middle = centre ?? (view.from + view.to) / 2;
    const size = Math.min(space.to - space.from + 1, Math.max(16, (view.to - view.from + 1) * factor));
    const share = (middle - view.from) / (view.to - view.from + 1);
    const from = Math.round(Math.min(Math.max(space.from, middle - share * size), space.to - size + 1));
    setZoom({ from, to: Math.round(from + size - 1) });
  };
  useEffect(() => {
    // React's wheel handlers are passive; zooming must keep the page from scrolling.
    const element = strip.current;
    if (!element || !view) return;
    const onWheel = (event: WheelEvent) => {
      event.preventDefault();
      const box = element.getBoundingClientRect();
      zoomBy(
        event.deltaY > 0 ? 1.5 : 1 / 1.5,
        view.from + ((event.clientX - box.left) / box.width) * (view.to - view.from + 1),
      );
    };
    element.addEventListener('wheel', onWheel, { passive: false });
    return () => element.removeEventListener('wheel', onWheel);
  });
  if (!space || !view) return <p>This site has no IPv4 address space; give it one in Brief.</p>;

  const x = (address: number) => ((address - view.from) / (view.to - view.from + 1)) * width;
  const segments = stripSegments(plan, view);
  const shown =
    segments.length <= width / LABEL_GAP
      ? segments
      : segments.filter((_, i) => i % Math.ceil((segments.length * LABEL_GAP) / width) === 0);
  const centres = shown.map(
    (segment) => (x(Math.max(segment.from, view.from)) + x(Math.min(segment.to, view.to) + 1)) / 2,
  );
  const labels = spreadLabels(centres, LABEL_GAP, width);

  const move = (segment: StripSegment, target: Prefix) => {
    const input = {
      subnet: segment.subnet.id,
      prefix: formatPrefix(target),
      relocate: true,
      seen: formatPrefix(segment.subnet.prefix),
    };
    setMessage(problemOf(() => session.perform({ operation: 'setPrefix', input })));
  };
  const step = (segment: StripSegment, direction: 1 | -1) => {
    const size = sizeOf(segment.subnet.prefix);
    for (
      let at = segment.from + direction * size;
      at >= space.from && at + size - 1 <= space.to;
      at += direction * size
    ) {
      const target = { address: at, length: segment.subnet.prefix.length };
      if (isFree(plan, target, segment.subnet)) return move(segment, target);
    }
    setMessage(`No free block of this size ${direction > 0 ? 'after' : 'before'} ${segment.vlan.name}.`);
  };
  const targetAt = (event: { clientX: number }, segment: StripSegment): Drag => {
    const element = strip.current!;
    const at = event.clientX - element.getBoundingClientRect().left - element.clientLeft;
    // Tiny segments are drawn wider than they are: dropping on what is seen must mean what is seen.
    const under = segments.find(
      (other) =>
        other !== segment && at >= x(other.from) && at < Math.max(x(other.to + 1), x(other.from) + MIN_WIDTH),
    );
    const share = Math.min(1, Math.max(0, at / width));
    const address =
      under?.from ?? Math.min(view.to, Math.floor(view.from + share * (view.to - view.from + 1)));
    const target = networkOf(address, segment.subnet.prefix.length);
    return { segment, target, free: isFree(plan, target, segment.subnet) };
  };
  const drop = ({ segment, target, free }: Drag) => {
    if (target.address === segment.subnet.prefix.address) return;
    if (free) move(segment, target);
    else setMessage(`${formatPrefix(target)} is not free; drop ${segment.vlan.name} on a white place.`);
  };

  return (
    <section aria-label="Address space" className="select-none">
      <div className="flex items-end justify-between gap-2 pb-1">
        <span className="mono text-[13px]">{formatIpv4(view.from)}</span>
        <div className="flex items-center gap-1 text-[13px]">
          {spans.length > 1 && (
            <OneOf
              label="Which space"
              look="bar"
              value={String(spans.indexOf(space))}
              of={spans.map((span, i) => ({ value: String(i), shown: formatIpv4(span.from) }))}
              onChoose={(at) => setChosen(Number(at))}
            />
          )}
          <button
            type="button"
            className="border-2 border-ink px-2"
            aria-label="Zoom out"
            onClick={() => zoomBy(2)}
          >
            −
          </button>
          <button
            type="button"
            className="border-2 border-ink px-2"
            aria-label="Zoom in"
            onClick={() => zoomBy(0.5, selectedCentre(segments, selected))}
          >
            +
          </button>
          <button type="button" className="border-2 border-ink px-2" onClick={() => setZoom(used ?? null)}>
            used
          </button>
          <button
            type="button"
            className="border-2 border-ink px-2"
            onClick={() => {
              setWhole(true);
              setZoom(null);
            }}
          >
            all
          </button>
        </div>
        <span className="mono text-[13px]">{formatIpv4(view.to)}</span>
      </div>
      <div
        ref={strip}
        className="own-colours relative border-2 border-ink bg-(--free-cell)"
        style={{ height: HEIGHT }}
        data-testid="strip"
      >
        {Array.from({ length: 15 }, (_, i) => (
          <span
            key={i}
            className="absolute top-0 bottom-0 w-px bg-rule"
            style={{ left: `${((i + 1) / 16) * 100}%` }}
          />
        ))}
        {segments.map((segment) => {
          const left = Math.max(0, x(segment.from));
          const right = Math.min(width, x(segment.to + 1));
          const wide = Math.max(MIN_WIDTH, right - left);
          return (
            <button
              key={segment.subnet.id}
              type="button"
              aria-label={`${segment.vlan.vid} ${segment.vlan.name} ${formatPrefix(segment.subnet.prefix)}; arrow keys move it`}
              title={`${segment.vlan.name} ${formatPrefix(segment.subnet.prefix)}`}
              className={`absolute top-0 bottom-0 touch-none overflow-hidden ${segment.vlan.id === selected ? 'outline-2 outline-offset-2 outline-ink' : ''}`}
              style={{
                left: Math.min(left, width - wide),
                width: wide,
                background: segment.vlan.colour,
                color: textOn(segment.vlan.colour),
                cursor: 'grab',
              }}
              onClick={() => select(segment.vlan.id)}
              onKeyDown={(event) => {
                if (event.key === 'ArrowLeft' || event.key === 'ArrowRight') {
                  event.preventDefault();
                  step(segment, event.key === 'ArrowRight' ? 1 : -1);
                }
              }}
              onPointerDown={(event) => {
                event.currentTarget.setPointerCapture(event.pointerId);
                const pressed = event.clientX;
                const moved = (native: globalThis.PointerEvent) => Math.abs(native.clientX - pressed) > 3;
                followPointer(event, {
                  onMove: (native) => moved(native) && setDrag(targetAt(native, segment)),
                  onDrop: (native) => {
                    setDrag(null);
                    if (moved(native)) drop(targetAt(native, segment));
                  },
                  onCancel: () => setDrag(null),
                });
              }}
            >
              {wide > 60 ? <span className="mono text-[12px] font-bold">{segment.vlan.code}</span> : null}
            </button>
          );
        })}
        {drag && (
          <span
            className={`pointer-events-none absolute -top-1 -bottom-1 z-10 border-[3px] ${drag.free ? 'border-ink' : 'border-stop'}`}
            style={{
              left: x(drag.target.address as number),
              width: Math.max(
                MIN_WIDTH,
                x((drag.target.address as number) + sizeOf(drag.target)) - x(drag.target.address as number),
              ),
            }}
          />
        )}
      </div>
      <svg className="block w-full overflow-visible" height="30" aria-hidden="true">
        {shown.map((segment, i) => (
          <g key={segment.subnet.id}>
            <polyline
              points={`${centres[i]},0 ${centres[i]},4 ${labels[i]},12 ${labels[i]},15`}
              fill="none"
              stroke="var(--ink)"
            />
            <text
              x={labels[i]}
              y="27"
              textAnchor="middle"
              className="mono"
              fontSize="13"
              fontWeight="700"
              fill="var(--ink)"
            >
              {segment.vlan.vid}
            </text>
          </g>
        ))}
      </svg>
      <div className="relative h-[30px] overflow-hidden" aria-label="Free blocks">
        {freeRuns(plan, view).map((run) => {
          const left = x(Math.max(run.from, view.from));
          const right = x(Math.min(run.to, view.to) + 1);
          const text =
            right - left > run.text.length * 7
              ? run.text
              : right - left > 84
                ? run.text.split(',')[0]!
                : null;
          return (
            text && (
              <span key={run.from} className="absolute block" style={{ left, width: right - left - 2 }}>
                <svg className="block h-[10px] w-full overflow-visible" aria-hidden="true">
                  <path
                    d={`M0.5 0v10M0 5H${right - left - 2}M${right - left - 2.5} 0v10`}
                    stroke="var(--ink)"
                    fill="none"
                  />
                </svg>
                <span className="mono block text-center text-[12px] whitespace-nowrap">{text}</span>
              </span>
            )
          );
        })}
      </div>
      <p role="status" className="min-h-5 text-[14px]">
        {drag
          ? `${drag.segment.vlan.name} → ${formatPrefix(drag.target)}${drag.free ? '' : ', taken'}`
          : message}
      </p>
    </section>
  );
}

const sizeOfSpan = (span: StripSpan): number => span.to - span.from + 1;

/** The part of the space that is in use, with a little air. */
function usedSpan(segments: readonly StripSegment[], space: StripSpan): StripSpan | null {
  if (segments.length === 0) return null;
  const from = Math.min(...segments.map((segment) => segment.from));
  const to = Math.max(...segments.map((segment) => segment.to));
  const air = Math.ceil((to - from + 1) / 20);
  return { from: Math.max(space.from, from - air), to: Math.min(space.to, to + air) };
}

const selectedCentre = (segments: readonly StripSegment[], vlan: string | null): number | undefined => {
  const segment = segments.find((candidate) => candidate.vlan.id === vlan);
  return segment && (segment.from + segment.to) / 2;
};
