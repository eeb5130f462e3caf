'use client';

import dagre from '@dagrejs/dagre';
import { useMemo } from 'react';
import { carries, isPassive, linksOf, portsOf } from '@/core/model/wiring';
import { type Plan, type Port, boxOf } from '@/core/plan';
import { useView } from '../../session/view';

const WIDTH = 116;
const HEIGHT = 44;

/** What is drawn on the map besides: a way, blocked ports, and a word at a box. */
export interface MapMarks {
  readonly along: ReadonlySet<string>;
  readonly blocked: ReadonlySet<string>;
  readonly words: ReadonlyMap<string, string>;
}

interface Node {
  readonly id: string;
  readonly name: string;
  readonly detail: string;
  readonly x: number;
  readonly y: number;
  /** Is it in the followed VLAN? */
  readonly lit: boolean;
}
interface Edge {
  readonly key: string;
  readonly points: readonly { x: number; y: number }[];
  readonly ends: string;
  readonly lit: boolean;
  /** Carried at one end only: it does not get through. */
  readonly half: boolean;
  /** The ports at its ends. */
  readonly ports: readonly [string, string];
}

/** The boxes and the cables between them, laid out by themselves from the outside inwards. */
export function SiteMap({ plan, marks }: { plan: Plan; marks?: MapMarks }) {
  const { followed: chosenVlan, device: chosen, set } = useView();
  const followed = marks ? null : chosenVlan;
  const { nodes, edges, width, height } = useMemo(() => layOut(plan, followed), [plan, followed]);
  const colour = followed ? plan.vlan.get(followed)?.colour : undefined;
  if (nodes.length === 0) return <p>Nothing to draw yet: add boxes and lay cables between them.</p>;
  return (
    <div
      className="overflow-auto border-2 border-ink bg-paper"
      role="region"
      aria-label="Site map"
      tabIndex={0}
    >
      <svg width={width} height={height} className="block" role="group" aria-label="Boxes and cables">
        {edges.map((edge) => (
          <g key={edge.key}>
            <title>{edge.ends}</title>
            {edge.ports.some((id) => marks?.along.has(id)) && (
              <polyline
                points={edge.points.map(({ x, y }) => `${x},${y}`).join(' ')}
                fill="none"
                stroke="var(--hivis)"
                strokeWidth="10"
              />
            )}
            <polyline
              points={edge.points.map(({ x, y }) => `${x},${y}`).join(' ')}
              fill="none"
              stroke={edge.lit && colour ? colour : 'var(--ink)'}
              strokeWidth={edge.lit ? 6 : 2}
              strokeDasharray={edge.half ? '6 5' : undefined}
              opacity={followed && !edge.lit && !edge.half ? 0.3 : 1}
            />
          </g>
        ))}
        {edges.map((edge) => {
          const middle = edge.points[Math.floor(edge.points.length / 2)]!;
          return (
            <text
              key={edge.key}
              x={middle.x}
              y={middle.y}
              dy="4"
              textAnchor="middle"
              fontSize="12"
              className="mono"
              fill="var(--ink)"
              stroke="var(--paper)"
              strokeWidth="5"
              paintOrder="stroke"
            >
              {edge.ends}
            </text>
          );
        })}
        {edges.flatMap((edge) =>
          edge.ports.map(
            (id, end) => marks?.blocked.has(id) && <Bar key={id} points={edge.points} end={end} />,
          ),
        )}
        {nodes.map((node) => (
          <g
            key={node.id}
            role="button"
            tabIndex={0}
            transform={`translate(${node.x - WIDTH / 2} ${node.y - HEIGHT / 2})`}
            className="cursor-pointer"
            onClick={() => set({ device: node.id, ports: [] })}
            onKeyDown={(event) => {
              if (event.key === 'Enter' || event.key === ' ') set({ device: node.id, ports: [] });
            }}
          >
            <rect
              width={WIDTH}
              height={HEIGHT}
              fill={chosen === node.id ? 'var(--chosen)' : 'var(--sheet)'}
              stroke="var(--ink)"
              strokeWidth={chosen === node.id ? 4 : 2}
              opacity={followed && !node.lit ? 0.45 : 1}
            />
            {node.lit && colour && (
              <rect width="8" height={HEIGHT} fill={colour} stroke="var(--ink)" strokeWidth="1" />
            )}
            <text x="14" y="18" fontSize="14" fontWeight="700" className="mono" fill="var(--ink)">
              {short(node.name, 11)}
            </text>
            {marks?.words.has(node.id) && (
              <rect x="10" y="23" width={WIDTH - 20} height="17" fill="var(--hivis)" stroke="var(--ink)" />
            )}
            <text
              x="14"
              y="35"
              fontSize="12"
              fontWeight={marks?.words.has(node.id) ? 700 : 400}
              fill={marks?.words.has(node.id) ? 'var(--on-hivis)' : 'var(--muted)'}
            >
              {short(marks?.words.get(node.id) ?? node.detail, 16)}
            </text>
          </g>
        ))}
      </svg>
    </div>
  );
}

const short = (text: string, room: number) => (text.length > room ? `${text.slice(0, room - 1)}…` : text);

/** Two strokes across a link near the end that is blocked. */
function Bar({ points, end }: { points: Edge['points']; end: number }) {
  const way = end === 0 ? points : [...points].reverse();
  const [from, to] = [way[0]!, way[1]!];
  const length = Math.hypot(to.x - from.x, to.y - from.y) || 1;
  const [dx, dy] = [(to.x - from.x) / length, (to.y - from.y) / length];
  const at = Math.min(5, length / 2);
  const [x, y] = [from.x + dx * at, from.y + dy * at];
  return (
    <path
      d={`M${x - dy * 12} ${y + dx * 12}L${x + dy * 12} ${y - dx * 12}`}
      stroke="var(--stop)"
      strokeWidth="6"
      fill="none"
    />
  );
}

function layOut(plan: Plan, followed: string | null) {
  const graph = new dagre.graphlib.Graph({ multigraph: true });
  graph.setGraph({ rankdir: 'LR', nodesep: 18, ranksep: 16, marginx: 10, marginy: 14 });
  graph.setDefaultEdgeLabel(() => ({}));
  const member = (port: Port) => followed !== null && carries(port, followed);
  const boxes = [...plan.box.values()]
    .map((box) => plan.device.get(box.device)!)
    .filter((device) => !isPassive(device.kind))
    .sort(
      (a, b) =>
        Number(b.kind === 'provider-box') - Number(a.kind === 'provider-box') ||
        Number(b.kind === 'gateway') - Number(a.kind === 'gateway') ||
        (a.name < b.name ? -1 : 1),
    );
  for (const device of boxes) graph.setNode(device.id, { width: WIDTH, height: HEIGHT });
  const links = linksOf(plan);
  // Ranks run from the gateway outwards, so an edge is drawn in the direction it was first reached.
  const depth = new Map<string, number>();
  const queue: string[] = [];
  for (const device of boxes) {
    if (depth.has(device.id)) continue;
    depth.set(device.id, 0);
    queue.push(device.id);
    for (let at = queue.shift(); at !== undefined; at = queue.shift())
      for (const port of portsOf(plan, at))
        for (const link of links.get(port.id) ?? []) {
          const next = plan.port.get(link.to)!.device;
          if (!graph.hasNode(next) || depth.has(next)) continue;
          depth.set(next, depth.get(at)! + 1);
          queue.push(next);
        }
  }
  const ends = new Map<
    string,
    { text: string; lit: boolean; half: boolean; ports: readonly [string, string] }
  >();
  for (const list of links.values())
    for (const link of list) {
      const [from, to] = [plan.port.get(link.from)!, plan.port.get(link.to)!];
      if (link.from >= link.to || !graph.hasNode(from.device) || !graph.hasNode(to.device)) continue;
      const down = depth.get(from.device)! <= depth.get(to.device)!;
      const [a, b] = down ? [from, to] : [to, from];
      const key = [link.from, link.to].join(' ');
      graph.setEdge(a.device, b.device, { width: 50, height: 14 }, key);
      const plain = (port: Port) => !boxOf(plan, port.device)!.vlanAware;
      const [one, two] = [
        member(a) || (followed !== null && plain(a) && member(b)),
        member(b) || (followed !== null && plain(b) && member(a)),
      ];
      ends.set(key, {
        text: `${a.number} = ${b.number}`,
        lit: one && two,
        half: one !== two,
        ports: [a.id, b.id],
      });
    }
  dagre.layout(graph);
  const nodes = boxes.map((device): Node => {
    const { x, y } = graph.node(device.id);
    const lit = portsOf(plan, device.id).some(member);
    return {
      id: device.id,
      name: device.name,
      detail: boxOf(plan, device.id)!.location || device.kind,
      x,
      y,
      lit,
    };
  });
  const edges = graph.edges().map((edge): Edge => {
    const end = ends.get(edge.name!)!;
    return {
      key: edge.name!,
      points: graph.edge(edge).points,
      ends: end.text,
      lit: end.lit,
      half: end.half,
      ports: end.ports,
    };
  });
  const { width = 0, height = 0 } = graph.graph();
  return { nodes, edges, width, height };
}
