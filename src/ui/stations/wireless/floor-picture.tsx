'use client';

import { type KeyboardEvent, useRef, useState } from 'react';
import type { Band, Device, Plan, Spot } from '@/core/plan';
import { powerOfRadio, radiosOf, reachOf, spanOfRadio } from '@/core/model/wireless';
import { useSession } from '../../session/context';
import { useView } from '../../session/view';
import { followPointer } from '../../parts/pointer-drag';
import { metres } from './words';

/** A step of the arrow keys, in cm. */
const STEP = 50;
interface Hung {
  readonly device: Device;
  readonly spot: Spot;
}

/** What is shown: everything on the floor with room around it, in whole tens of metres. */
function frameOf(plan: Plan, floor: number, hung: readonly Hung[]) {
  const walls = [...plan.wall.values()].filter((wall) => wall.floor === floor);
  const xs = [0, ...hung.map(({ spot }) => spot.x), ...walls.flatMap(({ fromX, toX }) => [fromX, toX])];
  const ys = [0, ...hung.map(({ spot }) => spot.y), ...walls.flatMap(({ fromY, toY }) => [fromY, toY])];
  const down = (value: number) => Math.floor((value - 300) / 500) * 500;
  const up = (value: number) => Math.ceil((value + 300) / 500) * 500;
  const [left, top] = [down(Math.min(...xs)), down(Math.min(...ys))];
  const [right, bottom] = [
    Math.max(up(Math.max(...xs)), left + 2000),
    Math.max(up(Math.max(...ys)), top + 1000),
  ];
  return { left, top, width: right - left, height: bottom - top, walls };
}

/** A floor with its walls, its access points and a circle for how far each is heard; they are moved by pointer and keys. */
export function FloorPicture({
  plan,
  floor,
  hung,
  band,
  dbm,
}: {
  plan: Plan;
  floor: number;
  hung: readonly Hung[];
  band: Band;
  dbm: number;
}) {
  const session = useSession();
  const { accessPoint, set } = useView();
  const svg = useRef<SVGSVGElement>(null);
  const [dragged, setDragged] = useState<{
    readonly device: string;
    readonly x: number;
    readonly y: number;
  } | null>(null);
  const { left, top, width, height, walls } = frameOf(plan, floor, hung);
  const right = left + width;
  // Text and marks are as large on any floor.
  const unit = Math.max(width / 1000, height / 560);
  const move = ({ device, spot }: Hung, x: number, y: number) => {
    const { id: _id, device: _device, ...where } = spot;
    session.perform({ operation: 'setSpot', input: { ...where, device: device.id, x, y } });
  };
  const onKey = (event: KeyboardEvent, one: Hung) => {
    const step = { ArrowLeft: [-STEP, 0], ArrowRight: [STEP, 0], ArrowUp: [0, -STEP], ArrowDown: [0, STEP] }[
      event.key
    ];
    if (event.key === 'Enter' || event.key === ' ') {
      event.preventDefault();
      set({ accessPoint: one.device.id, ssid: null, finding: null });
    }
    if (!step) return;
    event.preventDefault();
    move(one, one.spot.x + step[0]!, one.spot.y + step[1]!);
  };
  const at = (event: { clientX: number; clientY: number }) => {
    const matrix = svg.current!.getScreenCTM()!.inverse();
    const { x, y } = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix);
    return { x: Math.round(x / 10) * 10, y: Math.round(y / 10) * 10 };
  };
  return (
    <figure className="max-w-[1240px] border-2 border-ink bg-sheet" aria-label={`Floor ${floor}`}>
      <svg
        ref={svg}
        viewBox={`${left} ${top} ${width} ${height}`}
        className="max-h-[62vh] w-full touch-none"
        role="group"
        aria-label={`Floor ${floor}: ${hung.length} access points`}
      >
        <Grid left={left} top={top} width={width} height={height} unit={unit} />
        {walls.map(({ id, fromX, fromY, toX, toY, loss }) => (
          <g key={id}>
            <path d={`M${fromX} ${fromY}L${toX} ${toY}`} stroke="var(--ink)" strokeWidth={5 * unit}>
              <title>{loss} dB</title>
            </path>
            <text
              x={(fromX + toX) / 2 + 8 * unit}
              y={(fromY + toY) / 2 - 6 * unit}
              fontSize={13 * unit}
              className="mono"
              fill="var(--muted)"
            >
              {loss} dB
            </text>
          </g>
        ))}
        {hung.map((one) => {
          const { device, spot } = one;
          const place = dragged?.device === device.id ? dragged : spot;
          const radio = radiosOf(plan, device.id).find((each) => each.enabled && each.band === band);
          const reach = radio ? reachOf(band, powerOfRadio(plan, radio), dbm) * 100 : 0;
          const span = radio && spanOfRadio(radio);
          const chosen = accessPoint === device.id;
          // Near the right edge the name stands at the left.
          const turned = place.x > right - 130 * unit;
          const beside = {
            x: place.x + (turned ? -19 : 19) * unit,
            textAnchor: turned ? 'end' : 'start',
          } as const;
          return (
            <g key={device.id}>
              {reach > 0 && (
                <circle
                  cx={place.x}
                  cy={place.y}
                  r={reach}
                  fill="none"
                  stroke="var(--note)"
                  strokeWidth={(chosen ? 3 : 1.5) * unit}
                  strokeDasharray={`${8 * unit} ${6 * unit}`}
                />
              )}
              <g
                className="cursor-grab"
                onPointerDown={(event) => {
                  set({ accessPoint: device.id, ssid: null, finding: null });
                  // It may be taken by its name, which is beside it: what counts is how far it was drawn.
                  const start = at(event);
                  const drawn = (pointer: { clientX: number; clientY: number }) => {
                    const { x, y } = at(pointer);
                    return { x: spot.x + x - start.x, y: spot.y + y - start.y };
                  };
                  followPointer(event, {
                    onMove: (pointer) => setDragged({ device: device.id, ...drawn(pointer) }),
                    onDrop: (pointer) => {
                      setDragged(null);
                      const { x, y } = drawn(pointer);
                      if (Math.hypot(x - spot.x, y - spot.y) > 5 * unit) move(one, x, y);
                    },
                    onCancel: () => setDragged(null),
                  });
                }}
              >
                <g
                  role="button"
                  tabIndex={0}
                  aria-label={`${device.name}, ${metres(place.x)} m right, ${metres(place.y)} m down`}
                  data-access-point={device.name}
                  onKeyDown={(event) => onKey(event, one)}
                >
                  <circle
                    cx={place.x}
                    cy={place.y}
                    r={13 * unit}
                    fill={chosen ? 'var(--hivis)' : 'var(--sheet)'}
                    stroke="var(--ink)"
                    strokeWidth={3 * unit}
                  />
                  <path
                    d={`M${place.x - 5 * unit} ${place.y}h${10 * unit}M${place.x} ${place.y - 5 * unit}v${10 * unit}`}
                    stroke="var(--ink)"
                    strokeWidth={2 * unit}
                  />
                </g>
                {/* The button says its name; what stands beside it is for the eye. */}
                <g aria-hidden="true">
                  <text
                    {...beside}
                    y={place.y - 2 * unit}
                    fontSize={16 * unit}
                    fontWeight="700"
                    className="mono"
                    fill="var(--ink)"
                  >
                    {device.name}
                  </text>
                  <text
                    {...beside}
                    y={place.y + 15 * unit}
                    fontSize={13 * unit}
                    className="mono"
                    fill="var(--muted)"
                  >
                    {radio ? (span ? `${radio.channel}, ${radio.width} MHz` : 'itself') : `no ${band} GHz`}
                  </text>
                </g>
              </g>
            </g>
          );
        })}
      </svg>
      {hung.length === 0 && (
        <figcaption className="px-2 pb-2">
          No access point has a place on this floor; write metres from a corner below.
        </figcaption>
      )}
    </figure>
  );
}

/** Lines every five metres, named at the edge. */
function Grid({
  left,
  top,
  width,
  height,
  unit,
}: Record<'left' | 'top' | 'width' | 'height' | 'unit', number>) {
  const every = width > 12_000 ? 2000 : width > 5000 ? 1000 : 500;
  const lines = (from: number, size: number) =>
    Array.from(
      { length: Math.floor(size / every) + 1 },
      (_, i) => Math.ceil(from / every) * every + i * every,
    ).filter((value) => value <= from + size);
  return (
    <g aria-hidden="true">
      {lines(left, width).map((x) => (
        <g key={x}>
          <path d={`M${x} ${top}v${height}`} stroke="var(--rule)" strokeWidth={unit} />
          <text
            x={x + 4 * unit}
            y={top + 15 * unit}
            fontSize={12 * unit}
            className="mono"
            fill="var(--muted)"
          >
            {x / 100} m
          </text>
        </g>
      ))}
      {lines(top, height).map((y) => (
        <g key={y}>
          <path d={`M${left} ${y}h${width}`} stroke="var(--rule)" strokeWidth={unit} />
          {y > top + 30 * unit && (
            <text
              x={left + 4 * unit}
              y={y - 4 * unit}
              fontSize={12 * unit}
              className="mono"
              fill="var(--muted)"
            >
              {y / 100} m
            </text>
          )}
        </g>
      ))}
    </g>
  );
}
