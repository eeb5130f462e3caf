'use client';

import { type FormEvent, useEffect, useMemo, useRef, useState } from 'react';
import {
  typedTagged,
  typedVlan,
  taggedText,
  portsTitle,
  describePorts,
  isPassive,
  portsOf,
  roleWords,
} from '@/core/model/wiring';
import type { Plan, Port } from '@/core/plan';
import { plugIn } from '@/core/rehearse';
import { problemOf } from '../../session/attempt';
import { useSession } from '../../session/context';
import { useView } from '../../session/view';
import { useCommands } from '../../shell/commands';
import { Jacket } from '../../parts/jacket';
import { BundleLine } from './bundle-line';
import { FollowFrame } from './follow-frame';
import { PortCable } from './port-cable';
import { PortProfiles } from './port-profiles';
import { PortFactsList } from './port-facts';
import { OneOf } from '../../parts/one-of';
import { Problem } from '../../parts/problem';

type Role = Port['role'];
const buttons: readonly (readonly [Role, string, string])[] = [
  ['access', 'Access', 'a'],
  ['trunk', 'Trunk', 't'],
  ['voice', 'Access + voice', 'v'],
  ['parked', 'Park', 'x'],
  ['uplink', 'Faces a provider', ''],
  ['undecided', 'Undecided', ''],
];
const needsSegment = (role: Role): role is 'access' | 'trunk' | 'voice' =>
  role === 'access' || role === 'trunk' || role === 'voice';

/** What the chosen ports are and carry; keys set the role, then the segment is typed. */
export function PortInspector({ plan, ports }: { plan: Plan; ports: readonly Port[] }) {
  const session = useSession();
  const { asking, set } = useView();
  const [problem, setProblem] = useState('');
  const first = ports[0]!;
  const device = plan.device.get(first.device)!;
  const passive = isPassive(device.kind);
  const role: Role | null = ports.every((port) => port.role === first.role) ? first.role : null;
  const ids = useMemo(() => ports.map((port) => port.id), [ports]);
  const choose = (next: Role) => {
    if (needsSegment(next)) return set({ asking: next });
    set({ asking: null });
    setProblem(
      problemOf(() => session.perform({ operation: 'assignPorts', input: { ports: ids, role: next } })),
    );
  };
  const commands = useMemo(
    () =>
      buttons.flatMap(([name, label, key]) =>
        key && !passive
          ? [{ key, name: `on chosen ports: ${label.toLowerCase()}`, run: () => choose(name) }]
          : [],
      ),
    [ids, passive], // eslint-disable-line react-hooks/exhaustive-deps
  );
  useCommands(commands);
  const { lag } = first;
  const shown = asking ?? (role && needsSegment(role) ? role : null);
  return (
    <section aria-label="Chosen ports" className="pb-4">
      <h2 className="mono font-bold">{portsTitle(plan, ports)}</h2>
      <p className="pb-2 text-muted">
        {describePorts(ports, portsOf(plan, first.device))}
        {ports.length === 1 && first.number === 0 && ', where the box itself lives'}
      </p>
      {!passive && (
        <>
          <OneOf
            label="Role"
            look="roles"
            value={asking ?? role}
            of={buttons.map(([name, label, key]) => ({
              value: name,
              shown: (
                <>
                  {label} {key && <span className="key">{key}</span>}
                </>
              ),
            }))}
            onChoose={choose}
          />
          <Problem text={problem} className="text-[14px]" />
          {shown && (
            <SegmentLine key={shown} plan={plan} ports={ports} role={shown} focus={asking !== null} />
          )}
          <Carried plan={plan} port={first} count={ports.length} />
          <PortProfiles plan={plan} ports={ports} />
        </>
      )}
      {ports.length === 1 && first.number > 0 && !passive && <Plugged plan={plan} port={first} />}
      {ports.length === 1 && first.number > 0 && !passive && <FollowFrame plan={plan} port={first} />}
      {ports.length === 1 && first.number > 0 && <PortCable plan={plan} port={first} />}
      {ports.length > 1 && !passive && ports.every((port) => port.device === first.device) && (
        <button
          type="button"
          className="button mt-2"
          onClick={() =>
            setProblem(problemOf(() => session.perform({ operation: 'bundlePorts', input: { ports: ids } })))
          }
        >
          Bundle into one
        </button>
      )}
      {lag !== null && <BundleLine plan={plan} lag={lag} />}
      <PortFactsList plan={plan} ports={ports} passive={passive} />
    </section>
  );
}

/** The line in which the segment of a role is typed. */
function SegmentLine({
  plan,
  ports,
  role,
  focus,
}: {
  plan: Plan;
  ports: readonly Port[];
  role: 'access' | 'trunk' | 'voice';
  focus: boolean;
}) {
  const session = useSession();
  const set = useView((state) => state.set);
  const first = ports[0]!;
  const known = first.role === role ? first : null;
  const vidOf = (id: string | null | undefined) => (id ? String(plan.vlan.get(id)!.vid) : '');
  const [vlan, setVlan] = useState(vidOf(known?.untagged));
  const [tagged, setTagged] = useState(known && role === 'trunk' ? taggedText(plan, known) : '');
  const [problem, setProblem] = useState('');
  const line = useRef<HTMLInputElement>(null);
  useEffect(() => {
    if (focus) line.current?.select();
  }, [focus]);
  const commit = (event: FormEvent) => {
    event.preventDefault();
    setProblem(
      problemOf(() => {
        const untagged = vlan.trim() === '' || /^none$/i.test(vlan.trim()) ? null : typedVlan(plan, vlan).id;
        const input = { ports: ports.map((port) => port.id), vlan: untagged };
        if (role === 'trunk' && /^\s*needed\s*$/i.test(tagged))
          session.perform({ operation: 'trunkWhatIsNeeded', input });
        else
          session.perform({
            operation: 'assignPorts',
            input: { ...input, role, ...(role === 'trunk' ? typedTagged(plan, tagged) : {}) },
          });
        set({ asking: null });
        document.querySelector<HTMLElement>(`[data-port="${first.id}"]`)?.focus();
      }),
    );
  };
  const suggestions = `segments-${first.id}`;
  const escape = (event: React.KeyboardEvent) => {
    if (event.key === 'Escape') set({ asking: null });
  };
  return (
    <form
      onSubmit={commit}
      onKeyDown={escape}
      className="grid grid-cols-[5.4rem_1fr_auto] items-center gap-x-2 gap-y-1 pt-2"
    >
      <datalist id={suggestions}>
        {[...plan.vlan.values()].map((item) => (
          <option key={item.id} value={item.vid}>{`${item.code} ${item.name}`}</option>
        ))}
      </datalist>
      {role === 'trunk' && (
        <>
          <label htmlFor="port-tagged" className="text-[14px]">
            Tagged
          </label>
          <input
            id="port-tagged"
            ref={line}
            className="field field-line mono col-span-2"
            value={tagged}
            placeholder="10, 20, all, needed"
            list="trunk-words"
            autoComplete="off"
            onChange={(event) => setTagged(event.target.value)}
          />
          <datalist id="trunk-words">
            <option value="needed">what is needed beyond it, and no more</option>
            <option value="all" />
            <option value="none" />
          </datalist>
        </>
      )}
      <label htmlFor="port-vlan" className="text-[14px]">
        {role === 'trunk' ? 'Untagged' : 'Segment'}
      </label>
      <input
        id="port-vlan"
        ref={role === 'trunk' ? undefined : line}
        className="field field-line mono"
        list={suggestions}
        value={vlan}
        placeholder={role === 'trunk' ? 'none' : 'VLAN id or code'}
        autoComplete="off"
        onChange={(event) => setVlan(event.target.value)}
      />
      <button type="submit" className="button button-primary">
        Set
      </button>
      <Problem text={problem} className="col-span-3 text-[14px]" />
    </form>
  );
}

function Carried({ plan, port, count }: { plan: Plan; port: Port; count: number }) {
  const untagged = port.untagged === null ? null : plan.vlan.get(port.untagged)!;
  if (port.role === 'parked' || port.role === 'undecided' || port.role === 'uplink')
    return <p className="pt-2 text-[14px] text-muted">{count === 1 ? `Now ${roleWords[port.role]}.` : ''}</p>;
  return (
    <div className="flex flex-wrap items-center gap-1 pt-2 text-[14px]">
      {untagged ? (
        <>
          <Jacket vlan={untagged} />{' '}
          <span>untagged{port.tagged.length || port.taggedMode === 'all' ? ';' : ', nothing tagged'}</span>
        </>
      ) : (
        <span>nothing untagged;</span>
      )}
      {port.taggedMode === 'all' && <span>every segment tagged</span>}
      {port.taggedMode === 'except' && <span>every segment tagged but</span>}
      {port.tagged.map((id) => (
        <Jacket key={id} vlan={plan.vlan.get(id)!} wide={false} />
      ))}
      {port.taggedMode === 'list' && port.tagged.length > 0 && <span>tagged</span>}
    </div>
  );
}

function Plugged({ plan, port }: { plan: Plan; port: Port }) {
  const { works, byTagging, sentence } = useMemo(() => plugIn(plan, { port: port.id }), [plan, port.id]);
  return (
    <p className={`my-3 border-l-4 pl-2 ${works ? 'border-ink' : 'border-stop'}`} aria-label="Plug in here">
      <b>Plug in here and</b> {sentence}.
      {byTagging.length > 0 && (
        <> Who tags frames is also in {byTagging.map(({ vid, code }) => `${vid} ${code}`).join(', ')}.</>
      )}
    </p>
  );
}
