import {
  dropping,
  access,
  accessWithVoice,
  carriedOf,
  carries,
  parked,
  trunk,
  type WiredPort,
  innerPort,
} from '../../model/wiring';
import { boxOf, type Draft, type Plan, type Port, type Vlan, vlansOf, portTitle } from '../../plan';
import { fabric } from '../../model/switching';
import type { FaultKind, Spot } from '../kind';
import { linkPorts, nearPort, otherSegments, pluggedIn } from '../places';

/** Faults in what ports carry, and in the boxes they are on. */

const since = 'since the switch was changed';
const named = ({ vid, name }: Vlan) => `VLAN ${vid} ${name}`;

const spot = (
  plan: Plan,
  port: WiredPort,
  told: string,
  set: Partial<Port>,
  near = nearPort(plan, port),
): Spot => ({
  told,
  near,
  edit: (draft: Draft) => draft.update('port', port.id, { ...set, profile: null }),
});

interface Socket {
  readonly port: Port;
  /** The segment sent there without a tag. */
  readonly vlan: Vlan;
}
const socketOf = (plan: Plan, port: Port): Socket[] =>
  (port.role === 'access' || port.role === 'voice') && port.untagged !== null
    ? [{ port, vlan: plan.vlan.get(port.untagged)! }]
    : [];
/** Sockets into which an end device is plugged. */
const accessPorts = (plan: Plan): Socket[] => pluggedIn(plan).flatMap(({ port }) => socketOf(plan, port));

const kind = (id: string, level: FaultKind['level'], spots: FaultKind['spots']): FaultKind => ({
  id,
  level,
  station: 'gear',
  since,
  spots,
});

/** A fault at a socket of a segment. */
const socketKind = (
  id: string,
  level: FaultKind['level'],
  at: (plan: Plan, socket: Socket) => readonly Spot[],
  /** So many at each socket make an exercise. */
  most = 1,
): FaultKind => ({
  ...kind(id, level, (plan) => accessPorts(plan).flatMap((socket) => at(plan, socket).slice(0, most))),
  spotsAt: (plan, port) => socketOf(plan, port).flatMap((socket) => at(plan, socket)),
});

const switchedOff = (plan: Plan, port: WiredPort): Spot =>
  spot(plan, port, `${portTitle(plan, port)} was switched off.`, { enabled: false });

const portOff: FaultKind = {
  ...kind('port-off', 1, (plan) =>
    [...pluggedIn(plan).map(({ port }) => port), ...linkPorts(plan)].map((port) => switchedOff(plan, port)),
  ),
  spotsAt: (plan, port) => [switchedOff(plan, port)],
};

const portParked = kind('port-parked', 1, (plan) =>
  pluggedIn(plan).map(({ port, device }) =>
    spot(
      plan,
      port,
      `${portTitle(plan, port)}, where ${device.name} is plugged in, was parked.`,
      parked(plan),
    ),
  ),
);

const wrongSegment = socketKind(
  'wrong-segment',
  1,
  (plan, { port, vlan }) =>
    otherSegments(plan, vlan.id).map((other) => {
      const carried = port.role === 'voice' ? accessWithVoice(other.id, port.voice!) : access(other.id);
      return spot(
        plan,
        port,
        `${portTitle(plan, port)} was put into ${named(other)} instead of ${named(vlan)}.`,
        carried,
      );
    }),
  3,
);

/** PVID and untagged VLAN, which belong together, set on two screens: one of them is wrong. */
const halfSet = (id: string, half: 'pvid' | 'untagged'): FaultKind =>
  socketKind(
    id,
    3,
    (plan, { port, vlan }) =>
      otherSegments(plan, vlan.id).map((other) => {
        const at = `At ${portTitle(plan, port)}`;
        const what =
          half === 'pvid'
            ? `the PVID was made ${other.vid}, while ${vlan.vid} is still the VLAN sent without a tag`
            : `VLAN ${other.vid} is sent without a tag, while the PVID is still ${vlan.vid}`;
        return spot(plan, port, `${at} ${what}: frames go one way only.`, { [half]: other.id });
      }),
    2,
  );

const pvidOnly = halfSet('pvid-only', 'pvid');
const untaggedOnly = halfSet('untagged-only', 'untagged');

const taggedOnly = socketKind('tagged-only', 2, (plan, { port }) => [
  spot(plan, port, `${portTitle(plan, port)} was set to take tagged frames only.`, { accepts: 'tagged' }),
]);

const accessAsTrunk = socketKind('access-as-trunk', 2, (plan, { port, vlan }) => [
  spot(
    plan,
    port,
    `${portTitle(plan, port)} was made a trunk with ${named(vlan)} tagged; what is plugged in knows no tags.`,
    trunk([vlan.id]),
  ),
]);

const voiceWrong = kind('voice-wrong', 2, (plan) =>
  accessPorts(plan).flatMap(({ port }) => {
    if (port.role !== 'voice') return [];
    const other = otherSegments(plan, port.voice).find(({ id }) => id !== port.untagged);
    return other
      ? [
          spot(
            plan,
            port,
            `${portTitle(plan, port)} announces ${named(other)} to its telephone instead of ${named(plan.vlan.get(port.voice!)!)}.`,
            accessWithVoice(port.untagged!, other.id),
          ),
        ]
      : [];
  }),
);

const vlanForgotten = kind('vlan-forgotten', 2, (plan) =>
  linkPorts(plan).flatMap((port) =>
    vlansOf(plan)
      .filter(({ id }) => port.role === 'trunk' && port.untagged !== id && carries(port, id))
      .map((vlan) =>
        spot(
          plan,
          port,
          `${named(vlan)} is missing from what ${portTitle(plan, port)} carries.`,
          dropping(port, vlan.id),
        ),
      ),
  ),
);

const trunkAsAccess = kind('trunk-as-access', 2, (plan) =>
  linkPorts(plan).flatMap((port) => {
    const vlan = vlansOf(plan).find(({ id }) => carries(port, id));
    return port.role === 'trunk' && vlan
      ? [
          spot(
            plan,
            port,
            `${portTitle(plan, port)} was made an access port of ${named(vlan)}; it is a link.`,
            access(vlan.id),
          ),
        ]
      : [];
  }),
);

const nativeChanged = kind('native-changed', 3, (plan) =>
  linkPorts(plan).flatMap((port) => {
    if (port.role !== 'trunk' || port.untagged === null) return [];
    const was = plan.vlan.get(port.untagged)!;
    return otherSegments(plan, port.untagged)
      .filter(({ id }) => carries(port, id))
      .map((other) =>
        spot(
          plan,
          port,
          `At ${portTitle(plan, port)} ${named(other)} goes without a tag, at the other end ${named(was)}: the two are joined.`,
          { ...trunk([...port.tagged, was.id], other.id, port.taggedMode) },
        ),
      );
  }),
);

const innerForgotten = kind('inner-forgotten', 2, (plan) =>
  fabric(plan).bridges.flatMap(({ device, box }) => {
    const inner = innerPort(plan, device);
    if (!inner || !box.vlanAware || inner.role === 'undecided') return [];
    return vlansOf(plan)
      .filter(({ id }) => carries(inner, id))
      .map((vlan) =>
        spot(
          plan,
          inner,
          `The inside of ${plan.device.get(device)!.name} is no longer a member of ${named(vlan)}.`,
          dropping(inner, vlan.id),
          [device],
        ),
      );
  }),
);

const vlansIgnored = kind('vlans-ignored', 3, (plan) =>
  fabric(plan).bridges.flatMap(({ device, box, ports }): Spot[] => {
    const { name, kind: what } = plan.device.get(device)!;
    if (!box.vlanAware || (what !== 'switch' && what !== 'access-point')) return [];
    const own = boxOf(plan, device)!;
    return [
      {
        told: `${name} was exchanged for one that knows no VLANs: it passes every frame on as it is.`,
        near: ports.flatMap((port) => nearPort(plan, port)).slice(0, 6),
        edit: (draft) => draft.update('box', own.id, { vlanAware: false }),
      },
    ];
  }),
);

const listTurned = kind('list-turned', 3, (plan) =>
  linkPorts(plan).flatMap((port) =>
    port.role === 'trunk' && port.taggedMode === 'list' && port.tagged.length > 0
      ? [
          spot(
            plan,
            port,
            `${portTitle(plan, port)} carries every VLAN except those on its list; it should carry those on its list.`,
            { ...carriedOf(port), taggedMode: 'except' },
          ),
        ]
      : [],
  ),
);

export const portKinds: readonly FaultKind[] = [
  portOff,
  portParked,
  wrongSegment,
  pvidOnly,
  untaggedOnly,
  taggedOnly,
  accessAsTrunk,
  voiceWrong,
  vlanForgotten,
  trunkAsAccess,
  nativeChanged,
  innerForgotten,
  vlansIgnored,
  listTurned,
];
