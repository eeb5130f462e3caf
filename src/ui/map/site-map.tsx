'use client';

import '@xyflow/react/dist/base.css';
import {
  ConnectionMode,
  type Edge,
  type EdgeProps,
  Handle,
  type Node,
  type NodeChange,
  type NodeProps,
  Position,
  ReactFlow,
  ReactFlowProvider,
  useReactFlow,
} from '@xyflow/react';
import { type ReactNode, createContext, memo, useCallback, useContext, useMemo, useState } from 'react';
import type { Plan } from '@/core/plan';
import { useView } from '../session/view';
import {
  type Arrangement,
  type Frame,
  type PlacedBox,
  type Point,
  ROW,
  placesOf,
  rowKey,
  rowsOf,
  withMoved,
  INTERNET,
  type MapBox,
  type MapCable,
  type MapModel,
  boxSentence,
  mapOf,
} from '@/core/model/map';
import { BoxArt, CableArt, PlaceArt, pathOf } from './art';
import { type MapLook, PLAIN, followedLook, together } from './look';
import { FIT, MapTools } from './map-tools';
import { useMoved } from './moved';
import type { Picture } from './picture';
import { useArrangement } from './use-arrangement';

/** What all boxes and cables are drawn from; where they are stands with each, so that moving one draws that one alone. */
interface Shown extends Omit<Picture, 'arrangement'> {
  readonly onFold: (row: string) => void;
}
const PictureContext = createContext<Shown | null>(null);
const usePicture = () => useContext(PictureContext)!;

type BoxNode = Node<{ readonly box: MapBox; readonly placed: PlacedBox }, 'box'>;
type PlaceNode = Node<{ readonly place: string; readonly frame: Frame }, 'place'>;
type CableEdge = Edge<{ readonly cable: MapCable; readonly points: readonly Point[] }, 'cable'>;

/** Where a box is on the page is the library's affair: only what it shows makes it anew. */
const sameBox = (a: NodeProps<BoxNode>, b: NodeProps<BoxNode>): boolean =>
  a.data.box === b.data.box && a.selected === b.selected && sameLook(a.data.placed, b.data.placed);
const sameLook = (a: PlacedBox, b: PlacedBox): boolean =>
  a.sockets === b.sockets && a.width === b.width && a.height === b.height;

const BoxOnMap = memo(function BoxOnMap({ data: { box, placed }, selected }: NodeProps<BoxNode>) {
  const { plan, unfolded, look, onFold } = usePicture();
  return (
    <>
      <svg width={placed.width} height={placed.height} className="block overflow-visible" aria-hidden="true">
        <BoxArt plan={plan} box={box} placed={placed} unfolded={unfolded} look={look} chosen={selected} />
      </svg>
      {[...placed.sockets].map(([id, { x, y, side }]) => (
        <Handle
          key={id}
          id={id}
          type="source"
          isConnectable={false}
          position={positions[side]}
          style={{ left: x, top: y, right: 'auto', width: 1, height: 1, minWidth: 1, opacity: 0 }}
        />
      ))}
      {rowsOf(box, unfolded).map(({ ends: { segment, devices }, y, open }) => (
        <button
          key={segment ?? '-'}
          type="button"
          aria-expanded={open}
          aria-label={`${devices.length} in ${segment === null ? 'no segment' : plan.vlan.get(segment)!.name} at ${box.name}${open ? `: ${devices.map(({ name }) => name).join(', ')}` : ''}`}
          className="nodrag nopan absolute left-0 w-full"
          style={{ top: y, height: Math.max(24, ROW) }}
          onClick={(event) => {
            event.stopPropagation();
            onFold(rowKey(box.id, segment));
          }}
        />
      ))}
    </>
  );
}, sameBox);

function PlaceOnMap({ data: { place, frame } }: NodeProps<PlaceNode>) {
  return (
    <svg width={frame.width} height={frame.height} className="block overflow-visible" aria-hidden="true">
      <PlaceArt name={place} frame={frame} />
    </svg>
  );
}

function CableOnMap({ data }: EdgeProps<CableEdge>) {
  const { look } = usePicture();
  const { cable, points } = data!;
  return (
    <>
      <CableArt cable={cable} points={points} look={look} />
      <path
        d={pathOf(points)}
        fill="none"
        stroke="transparent"
        strokeWidth="14"
        className="react-flow__edge-interaction"
      />
    </>
  );
}

const positions = {
  left: Position.Left,
  right: Position.Right,
  top: Position.Top,
  bottom: Position.Bottom,
};
const nodeTypes = { box: BoxOnMap, place: PlaceOnMap };
const edgeTypes = { cable: CableOnMap };
const words = {
  'node.a11yDescription.default':
    'Enter or the space bar chooses the box. Then the arrow keys move it; Esc lets it go.',
  'node.a11yDescription.keyboardDisabled': 'Enter or the space bar chooses the box.',
  'edge.a11yDescription.default': 'Enter chooses the port of the cable.',
  'node.a11yDescription.ariaLiveMessage': ({ direction }: { direction: string }) => `Moved ${direction}.`,
};

interface Props {
  readonly plan: Plan;
  /** What is drawn besides: a way, blocked ports, a word at a box. */
  readonly layers?: readonly Partial<MapLook>[];
  /** Whether the followed segment is drawn too. */
  readonly follow?: boolean;
  readonly tall?: boolean;
  /** What else stands in the line of tools. */
  readonly tools?: ReactNode;
}
const NO_LAYERS: readonly Partial<MapLook>[] = [];

/** The boxes and the cables between them, laid out by themselves from the outside inwards. It shows the plan; only where boxes stand on it can be changed. */
export function SiteMap(props: Props) {
  const model = useMemo(() => mapOf(props.plan), [props.plan]);
  if (model.boxes.length === 0) return <p>Nothing to draw yet: add boxes and lay cables between them.</p>;
  return (
    <ReactFlowProvider>
      <MapView {...props} model={model} />
    </ReactFlowProvider>
  );
}

function MapView({
  plan,
  layers = NO_LAYERS,
  follow = false,
  tall = false,
  tools,
  model: latest,
}: Props & { model: MapModel }) {
  const { followed, device, set } = useView();
  const flow = useReactFlow();
  const [unfolded, setUnfolded] = useState<ReadonlySet<string>>(new Set());
  const { moved, move, letGo, reset } = useMoved(plan);
  const arranged = useArrangement(latest, unfolded);
  const onFold = useCallback(
    (row: string) =>
      setUnfolded((before) => {
        const next = new Set(before);
        if (!next.delete(row)) next.add(row);
        return next;
      }),
    [],
  );
  const shown = useMemo((): Shown | null => {
    if (!arranged) return null;
    const { model } = arranged;
    const own =
      follow && followed !== null && plan.vlan.get(followed) ? [followedLook(plan, model, followed)] : [];
    const all = [...own, ...layers];
    const look = all.length === 0 ? PLAIN : together(all);
    return { plan, model, unfolded: arranged.unfolded, look, onFold };
  }, [arranged, plan, follow, followed, layers, onFold]);
  const arrangement = useMemo(
    () => arranged && withMoved(arranged.arrangement, arranged.model, moved),
    [arranged, moved],
  );
  const sentences = useMemo(
    () =>
      new Map(
        (arranged?.model.boxes ?? []).map(
          (box) => [box.id, boxSentence(plan, arranged!.model, box)] as const,
        ),
      ),
    [arranged, plan],
  );
  const nodes = useMemo(
    () => (arranged && arrangement ? nodesOf(arranged.model, arrangement, sentences, device) : []),
    [arranged, arrangement, sentences, device],
  );
  const edges = useMemo(
    () => (arranged && arrangement ? edgesOf(arranged.model, arrangement) : []),
    [arranged, arrangement],
  );
  const onNodesChange = useCallback(
    (changes: NodeChange<BoxNode | PlaceNode>[]) => {
      for (const change of changes) {
        if (change.type === 'select' && change.selected && change.id !== INTERNET)
          set({ device: change.id, ports: [] });
        if (change.type === 'position' && change.position) move(change.id, change.position);
      }
    },
    [set, move],
  );
  if (!shown || !arrangement) return <p className="text-muted">Drawing the map…</p>;
  const picture: Picture = { ...shown, arrangement };
  const show = (id: string, row: string | null) => {
    if (row !== null) setUnfolded((before) => new Set(before).add(row));
    const box = arrangement.boxes.get(id)!;
    void flow.setCenter(box.x + box.width / 2, box.y + box.height / 2, { zoom: 1 });
    if (id !== INTERNET) set({ device: id, ports: [] });
  };
  return (
    <PictureContext value={shown}>
      <MapTools picture={picture} onShow={show} onArrange={Object.keys(moved).length > 0 ? reset : null}>
        {tools}
      </MapTools>
      <div
        className={`border-2 border-ink bg-paper ${tall ? 'h-[max(420px,62vh)]' : 'h-[min(420px,60vh)]'}`}
        role="region"
        aria-label="Site map"
      >
        <ReactFlow
          nodes={nodes}
          edges={edges}
          nodeTypes={nodeTypes}
          edgeTypes={edgeTypes}
          onNodesChange={onNodesChange}
          onNodeDragStop={letGo}
          onKeyUp={letGo}
          onBlur={letGo}
          onEdgeClick={(_event, { data }) => {
            const { from, to } = data!.cable;
            const end = [from, to].find(({ port }) => plan.port.get(port));
            if (end) set({ device: end.box, ports: [end.port] });
          }}
          ariaLabelConfig={words}
          fitView
          fitViewOptions={FIT}
          minZoom={0.1}
          maxZoom={2.5}
          onlyRenderVisibleElements
          // A socket is one end or the other of its cable.
          connectionMode={ConnectionMode.Loose}
          nodesConnectable={false}
          edgesFocusable={false}
          deleteKeyCode={null}
          zoomOnScroll={false}
          panOnScroll={false}
          preventScrolling={false}
          proOptions={{ hideAttribution: true }}
        />
      </div>
    </PictureContext>
  );
}

function nodesOf(
  model: MapModel,
  arrangement: Arrangement,
  sentences: ReadonlyMap<string, string>,
  device: string | null,
): (BoxNode | PlaceNode)[] {
  const places = [...placesOf(model, arrangement)].map(([place, frame]): PlaceNode => ({
    id: `place ${place}`,
    type: 'place',
    position: { x: frame.x, y: frame.y },
    width: frame.width,
    height: frame.height,
    data: { place, frame },
    draggable: false,
    selectable: false,
    focusable: false,
    zIndex: -1,
    style: { pointerEvents: 'none' },
  }));
  const boxes = model.boxes.map((box): BoxNode => {
    const placed = arrangement.boxes.get(box.id)!;
    const { x, y, width, height } = placed;
    return {
      id: box.id,
      type: 'box',
      position: { x, y },
      width,
      height,
      data: { box, placed },
      selected: box.id === device,
      selectable: box.id !== INTERNET,
      ariaRole: 'group',
      ariaLabel: sentences.get(box.id)!,
    };
  });
  return [...places, ...boxes];
}

const edgesOf = ({ cables }: MapModel, arrangement: Arrangement): CableEdge[] =>
  cables.map((cable) => ({
    id: cable.id,
    type: 'cable',
    source: cable.from.box,
    target: cable.to.box,
    sourceHandle: cable.from.socket,
    targetHandle: cable.to.socket,
    data: { cable, points: arrangement.cables.get(cable.id)! },
    selectable: false,
  }));
