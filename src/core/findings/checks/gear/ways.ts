import { carryRemedy } from '../../../rehearse';
import {
  portsTitle,
  egress,
  ingress,
  linksAt,
  portsOf,
  type Link,
  type WiredPort,
} from '../../../model/wiring';
import {
  type Plan,
  type Vlan,
  addressesOn,
  interfacesOf,
  deriveBy,
  plainVlansOf,
  portTitle,
  boxOf,
  type Remedy,
} from '../../../plan';
import {
  boxLinks,
  missingPorts,
  partsOf,
  ringsOf,
  goesRound,
  type Island,
  fabric,
  islandsOf,
} from '../../../model/switching';
import { settingsOf, stpPortOf } from '../../../model/tree';
import type { VlanCheck } from '../../finding';
import { onPort } from '../refs';
import { gearCheck } from './shared';

/** Whether VLANs get where they are used, and what happens to frames between two boxes. */

/** The pieces of a VLAN that cables would let be one; what no cable joins yet is still being built. */
export const cutIslands = deriveBy((plan, vlan: string): readonly Island[] => {
  const parts = partsOf(plan);
  const islands = islandsOf(plan, vlan);
  const partOf = (island: Island) => parts[island.users[0]!.state.bridge];
  return islands.filter((island) =>
    islands.some((other) => other !== island && partOf(other) === partOf(island)),
  );
});

/** Is a VLAN in pieces although cables join those who use it? */
export const isCut = (plan: Plan, vlan: string): boolean => cutIslands(plan, vlan).length > 1;

/** A check of one VLAN over all boxes. */
const vlanCheck = (id: string, find: VlanCheck['find']): VlanCheck => ({
  id,
  station: 'gear',
  scope: 'vlan',
  find,
});

const carry = (plan: Plan, vlan: Vlan, missing: readonly WiredPort[]): Remedy =>
  carryRemedy(`Carry ${vlan.vid} on ${portsTitle(plan, missing)}`, vlan);

const vlanCut = vlanCheck('vlan-cut', function* (plan, vlan) {
  const missing = missingPorts(plan, vlan.id);
  if (missing.length === 0) return;
  const islands = cutIslands(plan, vlan.id);
  if (islands.length < 2) return;
  const parts = islands.map((island) => portTitle(plan, island.users[0]!.port)).slice(0, 3);
  yield {
    severity: 'stop',
    on: { table: 'vlan', id: vlan.id },
    also: missing.map(onPort),
    what: `${vlan.name} does not get through`,
    because: `VLAN ${vlan.vid} is in ${islands.length} pieces (at ${parts.join(', ')}): ${portsTitle(plan, missing)} would have to carry it.`,
    remedies: [carry(plan, vlan, missing)],
  };
});

const vlanNotRedundant = vlanCheck('vlan-not-redundant', function* (plan, vlan) {
  const missing = missingPorts(plan, vlan.id);
  if (missing.length === 0 || cutIslands(plan, vlan.id).length > 1) return;
  if (missing.every((port) => port.number === 0)) return;
  yield {
    severity: 'fix',
    on: { table: 'vlan', id: vlan.id },
    also: missing.map(onPort),
    what: `${vlan.name} has no second way`,
    because: `VLAN ${vlan.vid} works today, but ${portsTitle(plan, missing)} on another way between its users does not carry it: when a cable breaks, it is cut.`,
    remedies: [carry(plan, vlan, missing)],
  };
});

const factsOf = (plan: Plan, port: WiredPort) => {
  const { seats, bridges } = fabric(plan);
  const seat = seats.get(port.id)!;
  const bridge = bridges[seat.bridge]!;
  const facts = bridge.box.vlanAware ? bridge.facts[seat.port]! : null;
  // A blocked link may be the one in use tomorrow.
  return facts && { ...facts, blocked: null };
};

/** The VLAN at the other end into which untagged frames of this end's VLAN fall, where it is another one. */
function strays(plan: Plan, from: WiredPort, to: WiredPort): { sent: number; landed: number } | null {
  const [out, into] = [factsOf(plan, from), factsOf(plan, to)];
  if (!out || !into || out.untagged === null || egress(out, out.untagged) !== 0) return null;
  const entered = ingress(into, 0);
  return 'vid' in entered && entered.vid !== out.untagged
    ? { sent: out.untagged, landed: entered.vid }
    : null;
}

/** Does all that is plugged into a port, and into the rest of its bundle, send a VLAN untagged? */
const othersSend = (plan: Plan, port: WiredPort, vlan: string): boolean =>
  portsOf(plan, port.device)
    .filter(({ id, lag }) => id === port.id || (lag !== null && lag === port.lag))
    .flatMap((each) => linksAt(plan, each))
    .every(({ to }) => plan.port.get(to)!.untagged === vlan);

const nativeMismatch = gearCheck('native-mismatch', function* (plan) {
  const named = (vid: number) => {
    const vlan = plainVlansOf(plan).find((item) => item.vid === vid);
    return vlan ? `${plan.vlan.get(vlan.id)!.name} (${vid})` : `VLAN ${vid}`;
  };
  for (const { link, a, b } of boxLinks(plan)) {
    const [there, back] = [strays(plan, a, b), strays(plan, b, a)];
    const joined = there ?? back;
    if (!joined) continue;
    const sameAs = (port: WiredPort, other: WiredPort) =>
      // Only a port that is at one with itself can be the measure.
      other.untagged === null ||
      other.pvid !== other.untagged ||
      port.role === 'undecided' ||
      !othersSend(plan, port, other.untagged)
        ? []
        : [
            {
              label: `Send ${named(plan.vlan.get(other.untagged)!.vid)} untagged on ${portTitle(plan, port)} too`,
              operation: 'setNative',
              input: { port: port.id, vlan: other.untagged },
            } satisfies Remedy,
          ];
    yield {
      severity: 'stop',
      on: { table: 'cable', id: link.cables[0]! },
      also: [a, b].map(onPort),
      what: `${named(joined.sent)} and ${named(joined.landed)} are joined`,
      because: `Between ${portTitle(plan, a)} and ${portTitle(plan, b)} untagged frames change segment: ${[
        there,
        back,
      ]
        .flatMap((way) => (way ? [`${way.sent} becomes ${way.landed}`] : []))
        .join(', ')}.`,
      remedies: [...sameAs(b, a), ...sameAs(a, b)],
    };
  }
});

const innerNotMember = gearCheck('inner-not-member', function* (plan) {
  const { bridges } = fabric(plan);
  for (const bridge of bridges) {
    if (!bridge.box.vlanAware) continue;
    const inner = bridge.ports[0];
    const facts = bridge.facts[0];
    if (inner?.number !== 0 || !facts) continue;
    const device = plan.device.get(bridge.device)!;
    const addresses = interfacesOf(plan, device.id).flatMap((item) => addressesOn(plan, item.id));
    for (const address of addresses) {
      const vlan = plan.vlan.get(plan.subnet.get(address.subnet)!.vlan)!;
      if (egress(facts, vlan.vid) !== null) continue;
      yield {
        severity: 'stop',
        on: { table: 'address', id: address.id },
        also: [onPort(inner)],
        what: `${device.name} does not hear ${vlan.name}`,
        because: `It has an address in VLAN ${vlan.vid}, but its inside is no member of it: nobody reaches it there.`,
        remedies: [carryRemedy(`Carry ${vlan.vid} ${vlan.code} to ${device.name}`, vlan)],
      };
    }
  }
});

/** A cable from a box to itself is of no use; one of several pieces is not taken out as one. */
export const takenOut = ({ cables }: Link): Remedy[] =>
  cables.length === 1
    ? [{ label: 'Take the cable out', operation: 'disconnect', input: { cable: cables[0]! } }]
    : [];

const loopOpen = gearCheck('loop-open', function* (plan) {
  for (const { trunks, devices: boxes } of ringsOf(plan)) {
    if (!goesRound(plan, trunks)) continue;
    const open = boxes.filter((device) => settingsOf(plan, boxOf(plan, device)!).mode === 'none');
    const able = open.filter((device) => boxOf(plan, device)!.vlanAware);
    // A tree that blocks the one link that carries a VLAN would cut it.
    const ends = new Set(trunks.flatMap(({ from, to }) => [from.id, to.id]));
    const lacking = plainVlansOf(plan).filter(({ id }) =>
      missingPorts(plan, id).some((port) => ends.has(port.id)),
    );
    const deaf = [...ends].filter((id) => stpPortOf(plan, id, 0).guard === 'filter');
    const inRing = boxes.some((device) => settingsOf(plan, boxOf(plan, device)!).mode === 'ring');
    const names = (ids: readonly string[]) => ids.map((id) => plan.device.get(id)!.name).join(', ');
    const deafPorts = portsTitle(
      plan,
      deaf.map((id) => plan.port.get(id)!),
    );
    const carry = lacking.map(({ id }) => id);
    const too = carry.length > 0 ? ' and carry every VLAN all the way round' : '';
    const why = [
      ...(open.length > 0 ? [`${names(open)} ${open.length === 1 ? 'runs' : 'run'} no spanning tree`] : []),
      ...(deaf.length > 0 ? [`${deafPorts} ${deaf.length === 1 ? 'filters' : 'filter'} its messages`] : []),
    ];
    // Where one end is access and another a trunk, what a tree leaves open may not carry what it shuts elsewhere.
    const roles = new Set(
      trunks.flatMap(({ from, to }) =>
        [from, to].filter(({ device }) => boxOf(plan, device)!.vlanAware).map(({ role }) => role),
      ),
    );
    // A port with a BPDU guard would shut instead, as soon as a tree speaks to it.
    const guarded = [...ends].some((id) => stpPortOf(plan, id, 0).guard === 'bpdu');
    const mendable =
      !inRing && !guarded && able.length === open.length && why.length === 1 && roles.size === 1;
    yield {
      severity: 'stop',
      // A cable is on one ring only, a box may be on several.
      on: { table: 'cable', id: trunks.map(({ link }) => link.cables[0]!).sort()[0]! },
      also: open.map((id) => ({ table: 'device' as const, id })),
      what: 'A loop that nothing opens',
      because: `${boxes.length === 1 ? `A cable joins ${portsTitle(plan, [trunks[0]!.from, trunks[0]!.to])}` : `${names(boxes)} are joined in a ring`} and ${why.join(', ') || 'no tree or ring manager opens it'}: the first broadcast goes round for ever.`,
      remedies:
        boxes.length === 1
          ? takenOut(trunks[0]!.link)
          : !mendable
            ? []
            : open.length > 0
              ? [
                  {
                    label: `Turn RSTP on at ${names(able)}${too}`,
                    operation: 'turnOnRstp',
                    input: { devices: able, carry },
                  },
                ]
              : [
                  {
                    label: `No filter at ${deafPorts}${too}`,
                    operation: 'setStpPort',
                    input: { ports: deaf, set: { guard: 'none' }, carry },
                  },
                ],
    };
  }
});

export const wayChecks = [nativeMismatch, innerNotMember, loopOpen];
export const wayVlanChecks = [vlanCut, vlanNotRedundant];
