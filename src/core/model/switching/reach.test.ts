import fc from 'fast-check';
import { type Cable, type Plan, type Port, withRecord } from '../../plan';
import { drawnNetwork, network } from '../../testing/networks';
import { afresh } from '../../testing/plans';
import { type Flood, fabricOf, flood, linksOf, stateKey } from '../wiring';
import { floodFrom } from './reach';
import { moreThan, runs } from '../../testing/runs';

const portEdit = fc.record({
  at: fc.nat(40),
  fields: fc.oneof(
    fc.record({ label: fc.constantFrom('a', 'b') }),
    fc.record({
      tagged: fc
        .uniqueArray(fc.constantFrom('v0', 'v1', 'v2', 'v3'), { maxLength: 4 })
        .map((list) => list.sort()),
    }),
    fc.record({ untagged: fc.constantFrom('v0', 'v1', null) }),
    fc.record({ pvid: fc.constantFrom('v1', 'v2', null) }),
    fc.record({ role: fc.constantFrom('trunk', 'parked', 'undecided') }),
    fc.record({ ingressFilter: fc.boolean() }),
    fc.record({ accepts: fc.constantFrom('all', 'tagged', 'untagged') }),
  ),
});
const cableEdit = fc.record({
  at: fc.nat(40),
  end: fc.nat(60),
  what: fc.constantFrom('takeOut', 'putBack', 'move', 'turn', 'name') as fc.Arbitrary<CableEdit>,
});
type CableEdit = 'takeOut' | 'putBack' | 'move' | 'turn' | 'name';

function editPort(plan: Plan, { at, fields }: { at: number; fields: object }): Plan {
  const ports = [...plan.port.values()].filter((port) => port.device.startsWith('b'));
  const port = ports[at % ports.length]!;
  return withRecord(plan, 'port', port.id, { ...port, ...(fields as Partial<Port>) });
}

/** `out` holds the cables taken out, to be put back. */
function editCable(
  plan: Plan,
  { at, end, what }: { at: number; end: number; what: CableEdit },
  out: Cable[],
): Plan {
  if (what === 'putBack') {
    const cable = out.pop();
    return cable ? withRecord(plan, 'cable', cable.id, cable) : plan;
  }
  const cables = [...plan.cable.values()];
  const cable = cables[at % cables.length];
  if (!cable) return plan;
  if (what === 'takeOut') {
    out.push(cable);
    return withRecord(plan, 'cable', cable.id, null);
  }
  const ports = [...plan.port.values()].filter(({ id, number }) => number > 0 && id !== cable.from);
  const to = ports[end % ports.length]!.id;
  const { from, fromSide, toSide } = cable;
  const changed = {
    move: { to, toSide: 'front' as const },
    turn: { from: cable.to, fromSide: toSide, to: from, toSide: fromSide },
    name: { label: `c${end}` },
  }[what];
  return withRecord(plan, 'cable', cable.id, { ...cable, ...changed });
}

describe('floods kept over an edit', () => {
  const written = (made: Flood) => [
    made.heard.map(({ port, tag }) => `${port} ${tag}`).sort(),
    [...made.came.keys()].sort((a, b) => a - b),
  ];
  test('are those of the plan as it is now, from every box in every VLAN', () => {
    let kept = 0;
    let keptOverCables = 0;
    const edits = fc.array(fc.oneof(portEdit, cableEdit), { minLength: 1, maxLength: 5 });
    fc.assert(
      fc.property(drawnNetwork, edits, (drawn, list) => {
        let plan = network(drawn);
        const out: Cable[] = [];
        const known = new Map<number, Flood>();
        const all = (now: Plan): number => {
          let same = 0;
          const again = afresh(now);
          const fresh = fabricOf(again);
          expect(linksOf(now)).toEqual(linksOf(again));
          for (let bridge = 0; bridge < fresh.bridges.length; bridge++)
            for (const vid of [1, 10, 20, 30]) {
              const state = { bridge, vid };
              const made = floodFrom(now, state);
              if (known.get(stateKey(state)) === made) same++;
              known.set(stateKey(state), made);
              expect(written(made)).toEqual(written(flood(fresh, { state })));
            }
          return same;
        };
        all(plan);
        for (const edit of list) {
          plan = 'fields' in edit ? editPort(plan, edit) : editCable(plan, edit, out);
          const same = all(plan);
          kept += same;
          if (!('fields' in edit) && edit.what !== 'name') keptOverCables += same;
        }
      }),
      { numRuns: runs(1000) },
    );
    // Not by making everything anew.
    expect(kept).toBeGreaterThan(moreThan(1000));
    expect(keptOverCables).toBeGreaterThan(moreThan(300));
  });
});
