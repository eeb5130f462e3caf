import { type Device, type Plan, type Radio, type Ssid, vlansOf } from '../../plan';
import { dropping, innerPort, linksAt, portsOf } from '../../model/wiring';
import {
  accessPoints,
  bandsSent,
  clashesOf,
  joinersOf,
  radiosIn,
  radiosOf,
  sentBy,
  ssidsOf,
} from '../../model/wireless';
import type { FaultKind, Spot } from '../kind';

/** Faults of what goes through the air. */

const nearAir = (plan: Plan, devices: readonly Device[]): string[] =>
  devices.flatMap(({ id }) => (joinersOf(plan).get(id) ?? []).map(({ device }) => device)).slice(0, 6);

/** A fault of a network that is on the air. */
const ofNetwork = (
  id: string,
  level: FaultKind['level'],
  since: string,
  of: (plan: Plan, ssid: Ssid) => Omit<Spot, 'near'> | null,
): FaultKind => ({
  id,
  level,
  station: 'wireless',
  since,
  spots: (plan) =>
    ssidsOf(plan).flatMap((ssid) => {
      const at = sentBy(plan, ssid);
      const spot = at.length > 0 && ssid.vlan !== null ? of(plan, ssid) : null;
      return spot ? [{ ...spot, near: nearAir(plan, at) }] : [];
    }),
});

/** A fault of a network at one access point. */
const atAccessPoint = (
  id: string,
  level: FaultKind['level'],
  since: string,
  of: (plan: Plan, ssid: Ssid, at: Device) => Omit<Spot, 'near'> | null,
  station: FaultKind['station'] = 'wireless',
): FaultKind => ({
  id,
  level,
  station,
  since,
  spots: (plan) =>
    ssidsOf(plan).flatMap((ssid) =>
      sentBy(plan, ssid).flatMap((at) => {
        const spot = ssid.vlan === null ? null : of(plan, ssid, at);
        return spot ? [{ ...spot, near: nearAir(plan, [at]) }] : [];
      }),
    ),
});

const nameMistyped = ofNetwork('network-name', 1, 'since the names were typed in anew', (_, ssid) => ({
  told: `The network ${ssid.name} is called ${misspelt(ssid.name)}.`,
  edit: (draft) => draft.update('ssid', ssid.id, { name: misspelt(ssid.name) }),
}));
/** As somebody types it in a hurry: two letters the wrong way round, or one too many. */
function misspelt(name: string): string {
  const at = [...name].findIndex((letter, i) => i > 0 && letter !== name[i + 1] && i + 1 < name.length);
  return at < 0
    ? `${name}${name}`.slice(0, 32)
    : name.slice(0, at) + name[at + 1] + name[at] + name.slice(at + 2);
}

const offAtOne = atAccessPoint(
  'network-off',
  1,
  'since the access point was set up anew',
  (plan, ssid, at) => {
    const others = sentBy(plan, ssid).filter(({ id }) => id !== at.id);
    return others.length === 0
      ? null
      : {
          told: `${ssid.name} is not on ${at.name}.`,
          edit: (draft) => draft.update('ssid', ssid.id, { on: others.map(({ id }) => id) }),
        };
  },
);

const nowhere = ofNetwork('network-nowhere', 1, 'since the segments were tidied up', (_, ssid) => ({
  told: `${ssid.name} leads to no segment.`,
  edit: (draft) => draft.update('ssid', ssid.id, { vlan: null }),
}));

const elsewhere = ofNetwork('network-elsewhere', 2, 'since the segments were tidied up', (plan, ssid) => {
  const other = vlansOf(plan).find(
    ({ id, purpose }) =>
      id !== ssid.vlan && purpose !== 'parking' && ssidsOf(plan).some(({ vlan }) => vlan === id),
  );
  return other
    ? {
        told: `${ssid.name} leads to ${other.name}.`,
        edit: (draft) => draft.update('ssid', ssid.id, { vlan: other.id }),
      }
    : null;
});

const noServer = ofNetwork(
  'network-by-name',
  2,
  'since everybody was to have a password of their own',
  (_, ssid) =>
    ssid.security.endsWith('enterprise')
      ? null
      : {
          told: `${ssid.name} asks a RADIUS server who comes in.`,
          edit: (draft) => draft.update('ssid', ssid.id, { security: 'wpa2-enterprise' }),
        },
);

const fewerBands = ofNetwork('network-bands', 2, 'since it was to be faster', (plan, ssid) => {
  const [at] = sentBy(plan, ssid);
  const sent = bandsSent(plan, at!.id, ssid);
  return sent.length < 2
    ? null
    : {
        told: `${ssid.name} is sent at ${sent.at(-1)} GHz only.`,
        edit: (draft) => draft.update('ssid', ssid.id, { bands: [sent.at(-1)!] }),
      };
});

const apart = ofNetwork('clients-apart', 3, 'since visitors were to be kept apart', (_, ssid) =>
  ssid.isolated
    ? null
    : {
        told: `${ssid.name} keeps its clients apart.`,
        edit: (draft) => draft.update('ssid', ssid.id, { isolated: true }),
      },
);
const together = ofNetwork(
  'clients-together',
  3,
  'since somebody wanted to play music from a telephone',
  (_, ssid) =>
    ssid.isolated
      ? {
          told: `${ssid.name} no longer keeps its clients apart.`,
          edit: (draft) => draft.update('ssid', ssid.id, { isolated: false }),
        }
      : null,
);

/** The inside of the box, or the socket it hangs on, lacks a network’s VLAN. */
const notInside = atAccessPoint(
  'network-not-inside',
  2,
  'since the access point was replaced',
  (plan, ssid, at) => {
    const inner = innerPort(plan, at.id);
    return inner && inner.role === 'trunk' && inner.tagged.includes(ssid.vlan!)
      ? {
          told: `The inside of ${at.name} is no member of the VLAN of ${ssid.name}.`,
          edit: (draft) => draft.update('port', inner.id, dropping(inner, ssid.vlan!)),
        }
      : null;
  },
);
const notAtSocket = atAccessPoint(
  'network-not-carried',
  3,
  'since the cables in the cupboard were tidied up',
  (plan, ssid, at) => {
    const [far] = portsOf(plan, at.id)
      .flatMap((port) => linksAt(plan, port))
      .map(({ to }) => plan.port.get(to)!);
    return far && far.role === 'trunk' && far.tagged.includes(ssid.vlan!)
      ? {
          told: `The port that ${at.name} hangs on does not carry the VLAN of ${ssid.name}.`,
          edit: (draft) => draft.update('port', far.id, dropping(far, ssid.vlan!)),
        }
      : null;
  },
  'gear',
);

const radioOff: FaultKind = {
  id: 'radio-off',
  level: 1,
  station: 'wireless',
  since: 'since somebody looked for what disturbs the hearing aids',
  spots: (plan) =>
    accessPoints(plan).flatMap((at) =>
      radiosOf(plan, at.id)
        .filter(({ enabled }) => enabled)
        .map((radio) => ({
          told: `The radio of ${at.name} at ${radio.band} GHz is off.`,
          near: nearAir(plan, [at]),
          edit: (draft) => draft.update('radio', radio.id, { enabled: false }),
        })),
    ),
};

/** Two who were apart stand on one channel. */
const sameChannel: FaultKind = {
  id: 'same-channel',
  level: 3,
  station: 'wireless',
  since: 'since the access points chose their channels again',
  spots: (plan) =>
    (['2.4', '5'] as const).flatMap((band) => {
      const radios = radiosIn(plan, band).filter(({ channel }) => channel !== null);
      return radios.flatMap((radio): Spot[] => {
        const loud = radios.find((other) => other.device !== radio.device && other.channel !== radio.channel);
        const quiet = clashesOf(plan, radio).length === 0;
        return loud && quiet ? [onto(plan, radio, loud)] : [];
      });
    }),
};
const onto = (plan: Plan, radio: Radio, other: Radio): Spot => ({
  told: `${plan.device.get(radio.device)!.name} is on channel ${other.channel} at ${radio.band} GHz, as ${plan.device.get(other.device)!.name} is.`,
  near: nearAir(plan, [plan.device.get(radio.device)!]),
  edit: (draft) => draft.update('radio', radio.id, { channel: other.channel, width: other.width }),
});

export const airKinds: readonly FaultKind[] = [
  nameMistyped,
  offAtOne,
  nowhere,
  elsewhere,
  noServer,
  fewerBands,
  apart,
  together,
  notInside,
  notAtSocket,
  radioOff,
  sameChannel,
];
