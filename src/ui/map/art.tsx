import type { Plan } from '@/core/plan';
import { textOn } from '@/core/model/segments';
import {
  HEAD,
  NAME_ROW,
  PLACE_HEAD,
  type Frame,
  type PlacedBox,
  type Point,
  ROW,
  SOCKET,
  rowsOf,
  INTERNET,
  type MapBox,
  type MapCable,
} from '@/core/model/map';
import type { MapLook } from './look';

/** What is drawn is the same on the page and in the picture that is taken away. */

const MONO = 'var(--font-mono)';

/** A word in place of what a box is: ROOT, stopped here, off. */
function Word({ text }: { text: string }) {
  return (
    <>
      <rect x="8" y="22" width={text.length * 7.2 + 10} height="17" fill="var(--hivis)" stroke="var(--ink)" />
      <text x="13" y="35" fontSize="12" fontWeight="700" fill="var(--on-hivis)">
        {text}
      </text>
    </>
  );
}

/** A box with its sockets at its sides and its end devices counted by segment; its origin is its top left corner. */
export function BoxArt({
  plan,
  box,
  placed,
  unfolded,
  look,
  chosen,
}: {
  plan: Plan;
  box: MapBox;
  placed: PlacedBox;
  unfolded: ReadonlySet<string>;
  look: MapLook;
  chosen: boolean;
}) {
  const { width, height } = placed;
  const word = look.words.get(box.id);
  const lit = look.lit.has(box.id);
  const outside = box.kind === INTERNET;
  return (
    <>
      {box.sockets.map(({ id, port, number }) => {
        const { left, top } = placed.sockets.get(id)!;
        const blocked = look.blocked.has(port);
        return (
          <g key={id}>
            <rect
              x={left}
              y={top}
              width={SOCKET.width}
              height={SOCKET.height}
              fill={look.along.has(port) ? 'var(--hivis)' : 'var(--sheet)'}
              stroke={blocked ? 'var(--stop)' : 'var(--ink)'}
              strokeWidth={blocked ? 3 : 1.5}
            />
            {number !== null && (
              <text
                x={left + SOCKET.width / 2}
                y={top + SOCKET.height / 2 + 4.5}
                textAnchor="middle"
                fontSize="12"
                fontWeight="700"
                fontFamily={MONO}
                fill={look.along.has(port) ? 'var(--on-hivis)' : 'var(--ink)'}
              >
                {number}
              </text>
            )}
          </g>
        );
      })}
      <rect
        width={width}
        height={height}
        fill={chosen ? 'var(--chosen)' : outside ? 'var(--ink)' : 'var(--sheet)'}
        stroke="var(--ink)"
        strokeWidth={chosen ? 4 : 2}
      />
      {lit && look.colour && (
        <rect width="8" height={HEAD} fill={look.colour} stroke="var(--ink)" strokeWidth="1" />
      )}
      <text
        x="13"
        y="19"
        fontSize="16"
        fontWeight="700"
        fontFamily={MONO}
        fill={outside && !chosen ? 'var(--sheet)' : 'var(--ink)'}
      >
        {box.name}
      </text>
      {word ? (
        <Word text={word} />
      ) : (
        <text x="13" y="35" fontSize="13" fill={outside ? 'var(--sheet)' : 'var(--muted)'}>
          {outside ? 'outside' : box.kind.replaceAll('-', ' ')}
        </text>
      )}
      {rowsOf(box, unfolded).map(({ ends: { segment, devices }, y, open }) => {
        const vlan = segment === null ? null : plan.vlan.get(segment)!;
        return (
          <g key={segment ?? '-'} transform={`translate(0 ${y})`}>
            <path d={`M0 0H${width}`} stroke="var(--rule)" />
            <rect x="13" y="3" width="62" height="16" fill={vlan?.colour ?? 'none'} stroke="var(--ink)" />
            <text
              x="44"
              y="15.5"
              textAnchor="middle"
              fontSize="12"
              fontWeight="700"
              fontFamily={MONO}
              fill={vlan ? textOn(vlan.colour) : 'var(--ink)'}
            >
              {vlan ? `${vlan.vid} ${vlan.code}` : 'none'}
            </text>
            <text x="84" y="15.5" fontSize="13" fontWeight="700" fontFamily={MONO} fill="var(--ink)">
              ×{devices.length}
            </text>
            <path
              d={open ? 'M0 0h8L4 6z' : 'M0 0v8L6 4z'}
              transform={`translate(${width - 17} 7)`}
              fill="var(--ink)"
            />
            {open &&
              devices.map(({ id, name, at }, i) => (
                <text
                  key={`${id} ${at}`}
                  x="13"
                  y={ROW + i * NAME_ROW + 13}
                  fontSize="13"
                  fontFamily={MONO}
                  fontWeight={look.struck.has(id) ? 400 : 500}
                  fill={look.struck.has(id) ? 'var(--stop)' : 'var(--ink)'}
                  textDecoration={look.struck.has(id) ? 'line-through' : undefined}
                >
                  {at} {name}
                </text>
              ))}
          </g>
        );
      })}
    </>
  );
}

/** A cable as a path. */
export const pathOf = (points: readonly Point[]) =>
  points.map(({ x, y }, i) => `${i === 0 ? 'M' : 'L'}${x} ${y}`).join('');

/** A stroke across a cable beside the socket that is blocked. */
function barAt(points: readonly Point[], end: 'from' | 'to'): string {
  const [from, to] = end === 'from' ? [points[0]!, points[1]!] : [points.at(-1)!, points.at(-2)!];
  const length = Math.hypot(to.x - from.x, to.y - from.y) || 1;
  const [dx, dy] = [(to.x - from.x) / length, (to.y - from.y) / length];
  const at = Math.min(7, length / 2);
  const [x, y] = [from.x + dx * at, from.y + dy * at];
  return `M${x - dy * 11} ${y + dx * 11}L${x + dy * 11} ${y - dx * 11}`;
}

/** A cable, at full strength only where it belongs to what is looked at. */
export function CableArt({
  cable: { from, to },
  points,
  look,
}: {
  cable: MapCable;
  points: readonly Point[];
  look: MapLook;
}) {
  const d = pathOf(points);
  const carried = [from, to].filter(({ port }) => look.carrying.has(port)).length;
  const pulled = look.pulled.has(from.port) || look.pulled.has(to.port);
  const follows = look.colour !== null;
  const middle = points[Math.floor(points.length / 2)]!;
  return (
    <>
      {[from, to].some(({ port }) => look.along.has(port)) && (
        <path d={d} fill="none" stroke="var(--hivis)" strokeWidth="10" />
      )}
      {carried === 2 && <path d={d} fill="none" stroke="var(--ink)" strokeWidth="7" />}
      <path
        d={d}
        fill="none"
        stroke={carried === 2 && look.colour ? look.colour : pulled ? 'var(--stop)' : 'var(--ink)'}
        strokeWidth={carried === 2 ? 4.5 : follows && carried === 0 ? 1 : 2}
        strokeDasharray={carried === 1 || pulled ? '6 5' : undefined}
      />
      {look.blocked.has(from.port) && (
        <path d={barAt(points, 'from')} stroke="var(--stop)" strokeWidth="5" fill="none" />
      )}
      {look.blocked.has(to.port) && (
        <path d={barAt(points, 'to')} stroke="var(--stop)" strokeWidth="5" fill="none" />
      )}
      {pulled && (
        <path
          d="M-7 -7L7 7M7 -7L-7 7"
          transform={`translate(${middle.x} ${middle.y})`}
          stroke="var(--stop)"
          strokeWidth="4"
        />
      )}
    </>
  );
}

/** The place where boxes stand, as a frame with its name. */
export function PlaceArt({ name, frame: { width, height } }: { name: string; frame: Frame }) {
  return (
    <>
      <rect
        width={width}
        height={height}
        fill="none"
        stroke="var(--muted)"
        strokeWidth="1.5"
        strokeDasharray="2 4"
      />
      <text x="10" y={PLACE_HEAD - 6} fontSize="15" fontWeight="700" fill="var(--muted)">
        {name}
      </text>
    </>
  );
}
