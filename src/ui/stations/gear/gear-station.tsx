'use client';

import dynamic from 'next/dynamic';
import { useMemo, useState } from 'react';
import { powerOf, isPassive, linksAt, portLabel } from '@/core/model/wiring';
import { type Plan, type Device, vlansOf, boxOf } from '@/core/plan';
import { problemOf } from '../../session/attempt';
import { usePlan, useSession } from '../../session/context';
import { useFindings } from '../../session/open-findings';
import { useView } from '../../session/view';
import { useCommands } from '../../shell/commands';
import { OneOf } from '../../parts/one-of';
import { StationHead } from '../../parts/station-head';
import { AddDevice } from './add-device';
import { CableLine } from './cable-line';
import { ChoosePorts } from './choose-ports';
import { Face } from './face';
import { FollowVlan } from './follow-vlan';
import { type Gear, gearOf, withoutBox } from './gear-list';
import { Problem } from '../../parts/problem';

// What a key opens is typed into at once, so only what is looked at comes late.
const PortTable = dynamic(() => import('./port-table').then((m) => m.PortTable));
const GearMap = dynamic(() => import('./gear-map').then((m) => m.GearMap));

const views = ['faces', 'table', 'map'] as const;
type View = (typeof views)[number];

/** Boxes as on their cases, all ports as a table, or the cables as a map. */
export function GearStation() {
  const plan = usePlan();
  const set = useView((state) => state.set);
  const [view, setView] = useState<View>('faces');
  const [adding, setAdding] = useState<Device | 'new' | null>(null);
  const [cabling, setCabling] = useState(false);
  const gear = useMemo(() => gearOf(plan), [plan]);
  const commands = useMemo(
    () => [
      { key: '+', name: 'add a device', run: () => setAdding('new') },
      { key: 'c', name: 'type a cable', run: () => setCabling(true) },
      {
        key: '#',
        name: 'choose ports by typing their numbers',
        run: () => {
          const field = document.getElementById('choose-ports') as HTMLInputElement | null;
          field?.focus();
          field?.select();
        },
      },
      {
        key: 'Escape',
        name: 'choose no port',
        run: () => set({ ports: [], asking: null, followed: null }),
      },
      {
        key: '← → ↑ ↓',
        name: 'on a face: go to the next port; with Shift choose as you go, with the space bar one by one',
        run: null,
      },
    ],
    [set],
  );
  useCommands(commands);
  const bare = withoutBox(plan);
  return (
    <>
      <StationHead title="Gear & ports" about="numbered as on the case">
        <OneOf
          label="Shown as"
          look="bar"
          value={view}
          of={views.map((name) => ({ value: name, shown: name }))}
          onChoose={setView}
        />
        <button type="button" className="button" onClick={() => setCabling(true)}>
          Cable… <span className="key">c</span>
        </button>
        <button type="button" className="button button-primary" onClick={() => setAdding('new')}>
          Add device <span className="key">+</span>
        </button>
      </StationHead>
      {cabling && <CableLine onClose={() => setCabling(false)} />}
      {bare.length > 0 && (
        <p className="mb-3 border-l-4 border-fix pl-3">
          Without ports yet; choose the model of{' '}
          {bare.map((device) => (
            <button key={device.id} type="button" className="link" onClick={() => setAdding(device)}>
              {device.name}
            </button>
          ))}
        </p>
      )}
      {gear.length === 0 && bare.length === 0 && (
        <p>No boxes yet. Add the gateway and the first switch: press + and choose a model.</p>
      )}
      {gear.length > 0 && vlansOf(plan).length > 0 && <FollowVlan plan={plan} />}
      {view === 'faces' && gear.length > 0 && (
        <div className="mb-3">
          <ChoosePorts gear={gear} />
        </div>
      )}
      {view === 'faces' && <Faces plan={plan} gear={gear} />}
      {view === 'table' && <PortTable plan={plan} gear={gear} />}
      {view === 'map' && <GearMap plan={plan} />}
      {adding !== null && (
        <AddDevice equip={adding === 'new' ? null : adding} onClose={() => setAdding(null)} />
      )}
    </>
  );
}

function Faces({ plan, gear }: { plan: Plan; gear: readonly Gear[] }) {
  const session = useSession();
  const { device: chosen, set } = useView();
  const [problem, setProblem] = useState('');
  const [pointedAt, setPointed] = useState<string | null>(null);
  const at = pointedAt === null ? undefined : plan.port.get(pointedAt);
  const pointed = useMemo(() => {
    const port = pointedAt === null ? undefined : plan.port.get(pointedAt);
    return new Set(port ? [port.id, ...linksAt(plan, port).map(({ to }) => to)] : []);
  }, [plan, pointedAt]);
  const point = (target: EventTarget) =>
    setPointed((target as HTMLElement).closest('[data-port]')?.getAttribute('data-port') ?? null);
  const findings = useFindings();
  const wrong = useMemo(
    () =>
      new Set(
        findings
          .filter((finding) => !finding.accepted && finding.severity !== 'note')
          .flatMap((finding) => finding.where.filter((ref) => ref.table === 'port').map((ref) => ref.id)),
      ),
    [findings],
  );
  const join = (from: string, to: string) => {
    const end = (id: string) => {
      const port = plan.port.get(id)!;
      return { device: port.device, number: port.number };
    };
    setProblem(
      problemOf(() => session.perform({ operation: 'connect', input: { from: end(from), to: end(to) } })),
    );
  };
  return (
    <>
      <Problem text={problem} className="mb-2" />
      {/* As high whatever it says: what is pointed at must not move away. */}
      <p
        className="sticky -top-3 z-20 line-clamp-1 h-6 bg-sheet pt-0.5 text-[14px] max-[699px]:line-clamp-2 max-[699px]:h-touch"
        data-testid="pointed"
      >
        {at ? (
          portLabel(plan, at)
        ) : (
          <span className="text-muted">
            A white bar is a plug. Drag from a port to a port of another box to lay a cable.
          </span>
        )}
      </p>
      <div
        className="flex flex-wrap gap-x-6 gap-y-3"
        onPointerOver={(event) => point(event.target)}
        onPointerLeave={() => setPointed(null)}
        onFocus={(event) => point(event.target)}
      >
        {gear.map((item) => (
          <section
            key={item.device.id}
            aria-label={item.device.name}
            className="max-w-full"
            style={{ flexBasis: widthOf(item) }}
          >
            <button
              type="button"
              aria-pressed={chosen === item.device.id}
              className={`flex w-full flex-wrap content-end items-baseline max-[699px]:min-h-touch gap-x-3 px-1 text-left hover:bg-chosen ${chosen === item.device.id ? 'bg-chosen' : ''}`}
              onClick={() => set({ device: item.device.id, ports: [], asking: null })}
            >
              <b className="mono">{item.device.name}</b>
              <BoxLine plan={plan} device={item.device} />
            </button>
            <Face plan={plan} gear={item} wrong={wrong} pointed={pointed} onJoin={join} />
          </section>
        ))}
      </div>
      {gear.length > 0 && <Legend />}
    </>
  );
}

/** Small boxes stand side by side; a wide one takes the whole line. */
const widthOf = ({ ports }: Gear): string => {
  const columns = Math.max(0, ...ports.map((port) => port.column)) + 1;
  return columns > 14 ? '100%' : `${Math.max(200, columns * 43 + 20)}px`;
};

function BoxLine({ plan, device }: { plan: Plan; device: Device }) {
  const box = boxOf(plan, device.id)!;
  const power = box.poeBudget === null ? null : powerOf(plan, device.id);
  return (
    <span className="text-[14px] text-muted">
      {[box.model, box.location].filter(Boolean).join(', ')}
      {!box.vlanAware && !isPassive(device.kind) && ', no VLANs'}
      {power && ` · PoE ${power.reserved} of ${box.poeBudget} W reserved`}
    </span>
  );
}

function Legend() {
  return (
    <p className="mt-4 border-t-2 border-ink pt-2 text-[13px] text-muted">
      filled: access · striped or ×n: trunk, notch: untagged · round inlay: voice · hatched: parked · dashed:
      undecided · NET: faces a provider · flash: can power
    </p>
  );
}
