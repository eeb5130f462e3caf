import { portsTitle } from '../../gear/ports';
import { powerOf, reservedFor } from '../../gear/power';
import { rangeText } from '../../gear/ranges';
import { type Carried, vlansIn } from '../../gear/roles';
import { groupBy } from '../../plan/memo';
import { type Plan, withRecord } from '../../plan/plan';
import type { Box, Device, Port, Vlan } from '../../plan/records';
import { addressesOn, interfacesOf, subnetsOf, vlansOf } from '../../plan/view';
import { portTitle } from '../../plan/words';
import { boxOf, cablesAt, isPassive, linksOf, portsOf } from '../../switching/wiring';
import type { Remedy, Report, SiteCheck } from '../finding';
import { GEAR, boxLinks, cutVlans } from './gear-ways';

/** What is wrong at single ports, boxes and cables. */

const ref = (port: Port) => ({ table: 'port' as const, id: port.id });
const isCabled = (plan: Plan, port: Port) => cablesAt(plan, { port: port.id, side: 'front' }).length > 0;

interface Bridging {
  readonly box: Box;
  readonly device: Device;
  readonly ports: readonly Port[];
}
function* bridging(plan: Plan): Generator<Bridging> {
  for (const box of plan.box.values()) {
    const device = plan.device.get(box.device)!;
    if (!isPassive(device.kind))
      yield { box, device, ports: portsOf(plan, device.id).filter((port) => port.number > 0) };
  }
}

const assign = (label: string, ports: readonly Port[], role: Port['role'], fields: object = {}): Remedy => ({
  label,
  operation: 'assignPorts',
  input: { ports: ports.map((port) => port.id), role, ...fields },
});

const join = (label: string, port: Port, vlan: Vlan): Remedy => ({
  label,
  operation: 'joinSegment',
  input: { port: port.id, vlan: vlan.id },
});

/** The segments an end device has addresses in. */
const segmentsOf = (plan: Plan, device: string): Vlan[] => {
  const ids = interfacesOf(plan, device)
    .flatMap((item) => addressesOn(plan, item.id))
    .map((address) => plan.subnet.get(address.subnet)!.vlan);
  return [...new Set(ids)].map((id) => plan.vlan.get(id)!);
};

/** The end devices a port leads to. */
const endsAt = (plan: Plan, port: Port): Device[] =>
  (linksOf(plan).get(port.id) ?? [])
    .map((link) => plan.device.get(plan.port.get(link.to)!.device)!)
    .filter((device) => !boxOf(plan, device.id));

const undecidedPorts: SiteCheck = {
  id: 'port-undecided',
  station: 'gear',
  scope: 'site',
  reads: GEAR,
  *find(plan): Generator<Report> {
    for (const { box, device, ports } of bridging(plan)) {
      if (!box.vlanAware) continue;
      const open = ports.filter((port) => port.role === 'undecided' && port.enabled && !port.defective);
      if (open.length === 0) continue;
      const free = open.filter((port) => !isCabled(plan, port));
      const factory = {
        'default-vlan': 'in VLAN 1',
        'every-vlan': 'a member of every VLAN',
        'by-neighbour': 'whatever its neighbour asks for',
      }[box.factory];
      yield {
        severity: box.factory === 'default-vlan' ? 'fix' : 'stop',
        on: { table: 'box', id: box.id },
        also: open.map(ref),
        what: `${open.length === 1 ? 'A port' : `${open.length} ports`} of ${device.name} nobody decided`,
        because: `${open.length === 1 ? 'Port' : 'Ports'} ${rangeText(open)} ${open.length === 1 ? 'is' : 'are each'} as it left the factory, ${factory}.`,
        remedies: free.length === open.length ? [assign(`Park ${rangeText(free)}`, free, 'parked')] : [],
      };
    }
  },
};

const unusedPorts: SiteCheck = {
  id: 'port-unused',
  station: 'gear',
  scope: 'site',
  reads: GEAR,
  *find(plan): Generator<Report> {
    for (const { box, device, ports } of bridging(plan)) {
      const free = ports.filter(
        (port) =>
          ['access', 'voice', 'trunk'].includes(port.role) &&
          port.enabled &&
          !port.defective &&
          !isCabled(plan, port),
      );
      if (!box.vlanAware || free.length === 0) continue;
      yield {
        severity: 'note',
        on: { table: 'box', id: box.id },
        also: free.map(ref),
        what: `${device.name} has open ports without a cable`,
        because: `Whoever plugs into ${rangeText(free)} is in the network.`,
        remedies: [assign(`Park ${rangeText(free)}`, free, 'parked')],
      };
    }
  },
};

const pvidDiffers: SiteCheck = {
  id: 'pvid-differs',
  station: 'gear',
  scope: 'site',
  reads: GEAR,
  *find(plan): Generator<Report> {
    for (const { box, ports } of bridging(plan))
      for (const port of box.vlanAware ? ports : []) {
        if (port.pvid === port.untagged || port.role === 'undecided' || port.role === 'parked') continue;
        const vlan = (id: string | null) => (id === null ? 'no VLAN' : `VLAN ${plan.vlan.get(id)!.vid}`);
        yield {
          severity: 'fix',
          on: ref(port),
          what: `${portTitle(plan, port)} hears one VLAN and speaks another`,
          because: `Untagged frames go in as ${vlan(port.pvid)} (PVID) and come out of ${vlan(port.untagged)}: answers never arrive.`,
          remedies: [
            {
              label: `Make both ${vlan(port.untagged)}`,
              operation: 'setNative',
              input: { port: port.id, vlan: port.untagged },
            },
          ],
        };
      }
  },
};

const trunkToEnd: SiteCheck = {
  id: 'trunk-to-end',
  station: 'gear',
  scope: 'site',
  reads: GEAR,
  *find(plan): Generator<Report> {
    for (const { box, ports } of bridging(plan))
      for (const port of box.vlanAware ? ports : []) {
        if (port.role !== 'trunk') continue;
        const [end, other] = endsAt(plan, port);
        if (!end || other) continue;
        const [home, second] = segmentsOf(plan, end.id);
        const deaf = port.untagged === null;
        if (!deaf && port.taggedMode === 'list') continue;
        yield {
          severity: deaf ? 'stop' : 'fix',
          on: ref(port),
          what: deaf ? `${end.name} hears only tagged frames` : `${end.name} gets every segment`,
          because: deaf
            ? `${portTitle(plan, port)} is a trunk without an untagged VLAN, and ${end.name} does not tag.`
            : `${portTitle(plan, port)} carries all segments to a ${end.kind.replaceAll('-', ' ')}: whoever owns it is in all of them.`,
          remedies: home && !second ? [join(`Make it access ${home.vid} ${home.code}`, port, home)] : [],
        };
      }
  },
};

const wrongSegment: SiteCheck = {
  id: 'port-wrong-segment',
  station: 'gear',
  scope: 'site',
  reads: GEAR,
  *find(plan): Generator<Report> {
    for (const { box, ports } of bridging(plan))
      for (const port of box.vlanAware ? ports : []) {
        if (port.role !== 'access' && port.role !== 'voice') continue;
        // Two cables in one port are a finding of their own.
        for (const end of endsAt(plan, port).slice(0, 1)) {
          const homes = segmentsOf(plan, end.id);
          if (homes.length !== 1) continue;
          const [home] = homes;
          if (home!.id === port.untagged || home!.id === port.voice) continue;
          const here = port.untagged === null ? undefined : plan.vlan.get(port.untagged);
          yield {
            severity: 'stop',
            on: ref(port),
            also: [{ table: 'device', id: end.id }],
            what: `${end.name} is plugged into the wrong segment`,
            because: `Its address is in ${home!.name} (${home!.vid}), and ${portTitle(plan, port)} is in ${here ? `${here.name} (${here.vid})` : 'none'}.`,
            remedies:
              endsAt(plan, port).length === 1
                ? [join(`Put ${portTitle(plan, port)} in ${home!.vid} ${home!.code}`, port, home!)]
                : [],
          };
        }
      }
  },
};

/** The VLANs a box needs at its wire: those its inside takes part in with a tag. */
const innerTagged = (plan: Plan, device: string): string[] => {
  const inner = portsOf(plan, device).find((port) => port.number === 0);
  return inner && inner.taggedMode === 'list' ? [...inner.tagged] : [];
};

const accessToAp: SiteCheck = {
  id: 'access-to-ap',
  station: 'gear',
  scope: 'site',
  reads: GEAR,
  *find(plan): Generator<Report> {
    for (const { link, a, b } of boxLinks(plan))
      for (const [port, far] of [
        [a, b],
        [b, a],
      ] as const) {
        const device = plan.device.get(far.device)!;
        if (port.role !== 'access' || device.kind !== 'access-point') continue;
        const needed = innerTagged(plan, device.id).filter((vlan) => vlan !== port.untagged);
        if (needed.length === 0 || !boxOf(plan, port.device)!.vlanAware) continue;
        const names = needed.map((id) => plan.vlan.get(id)!.name).join(', ');
        yield {
          severity: 'fix',
          on: ref(port),
          also: [ref(far), { table: 'cable', id: link.cables[0]! }],
          what: `${device.name} hangs on an access port`,
          because: `It serves ${names} besides, and ${portTitle(plan, port)} lets only one segment through.`,
          remedies: [
            assign(`Make ${portTitle(plan, port)} a trunk for it`, [port], 'trunk', {
              vlan: port.untagged,
              tagged: needed,
            }),
          ],
        };
      }
  },
};

const setsItself: SiteCheck = {
  id: 'port-sets-itself',
  station: 'gear',
  scope: 'site',
  reads: GEAR,
  *find(plan): Generator<Report> {
    const towardsBox = new Set(boxLinks(plan).flatMap(({ a, b }) => [a.id, b.id]));
    for (const { ports } of bridging(plan))
      for (const port of ports) {
        if (port.setsItself === 'no' || (!port.exposed && !towardsBox.has(port.id))) continue;
        yield {
          severity: 'fix',
          on: ref(port),
          what: `${portTitle(plan, port)} sets its role itself`,
          because: port.exposed
            ? 'Strangers can reach it, and what they plug in decides what they are in.'
            : 'It joins two boxes; a neighbour that is mistaken for something else cuts them off.',
          remedies: [
            {
              label: 'Let it keep its role',
              operation: 'edit',
              input: {
                table: 'port',
                id: port.id,
                set: { setsItself: 'no' },
                seen: { setsItself: port.setsItself },
              },
            },
          ],
        };
      }
  },
};

const exposedManagement: SiteCheck = {
  id: 'management-exposed',
  station: 'gear',
  scope: 'site',
  reads: GEAR,
  *find(plan): Generator<Report> {
    for (const { box, ports } of bridging(plan))
      for (const port of box.vlanAware ? ports : []) {
        if (!port.exposed || port.role === 'parked') continue;
        const vlan = vlansIn(port as Carried)
          .map((id) => plan.vlan.get(id)!)
          .find((item) => item.purpose === 'management');
        if (!vlan) continue;
        yield {
          severity: 'stop',
          on: ref(port),
          what: `${vlan.name} lies open at ${portTitle(plan, port)}`,
          because: 'Strangers can plug in there and talk to the switches themselves.',
          remedies: isCabled(plan, port) ? [] : [assign('Park it', [port], 'parked')],
        };
      }
  },
};

/** Could a cable go without cutting a segment that is whole now? */
function spare(plan: Plan, cable: string): boolean {
  const before = cutVlans(plan);
  return [...cutVlans(withRecord(plan, 'cable', cable, null))].every((vlan) => before.has(vlan));
}

const twoCables: SiteCheck = {
  id: 'two-cables',
  station: 'gear',
  scope: 'site',
  reads: GEAR,
  *find(plan): Generator<Report> {
    for (const port of plan.port.values())
      for (const side of ['front', 'rear'] as const) {
        const [first, ...others] = cablesAt(plan, { port: port.id, side });
        if (!first || others.length === 0) continue;
        const far = (cable: { from: string; to: string }) =>
          portTitle(plan, plan.port.get(cable.from === port.id ? cable.to : cable.from)!);
        yield {
          severity: 'stop',
          on: ref(port),
          also: [first, ...others].map((cable) => ({ table: 'cable' as const, id: cable.id })),
          what: `${portTitle(plan, port)} holds ${others.length + 1} cables`,
          because: `One socket takes one plug; recorded are ${[first, ...others].map(far).join(' and ')}.`,
          remedies:
            others.length === 1
              ? [first, others[0]!]
                  .filter((cable) => spare(plan, cable.id))
                  .map((cable) => ({
                    label: `Take out the one to ${far(cable)}`,
                    operation: 'disconnect',
                    input: { cable: cable.id },
                  }))
              : [],
        };
      }
  },
};

const tooMuch: SiteCheck = {
  id: 'box-overloaded',
  station: 'gear',
  scope: 'site',
  reads: GEAR,
  *find(plan): Generator<Report> {
    for (const { box, device, ports } of bridging(plan)) {
      const held = new Set(portsOf(plan, device.id).flatMap((port) => vlansIn(port as Carried)));
      const mixed = ports.filter(
        (port) => port.role === 'trunk' && port.untagged !== null && port.tagged.length > 0,
      );
      const { reserved, left } = powerOf(plan, device.id);
      const parts = [
        ...(box.vlanLimit !== null && box.vlanAware && held.size > box.vlanLimit
          ? [`it is to hold ${held.size} VLANs and can hold ${box.vlanLimit}`]
          : []),
        ...(box.vlanAware && !box.mixesTags && mixed.length > 0
          ? [`${portsTitle(plan, mixed)} would have to mix tagged and untagged, which it cannot`]
          : []),
        ...(left !== null && left < 0
          ? [`${reserved} W are reserved by class and its budget is ${box.poeBudget} W`]
          : []),
      ];
      if (parts.length === 0) continue;
      yield {
        severity: 'fix',
        on: { table: 'box', id: box.id },
        what: `More than ${device.name} can do`,
        because: `${parts.join('; ')}.`,
      };
    }
  },
};

const notPowered: SiteCheck = {
  id: 'not-powered',
  station: 'gear',
  scope: 'site',
  reads: GEAR,
  *find(plan): Generator<Report> {
    const links = linksOf(plan);
    for (const port of plan.port.values()) {
      if (port.poeClass === null || boxOf(plan, port.device)?.poeBudget != null) continue;
      const sources = (links.get(port.id) ?? []).map((link) => plan.port.get(link.to)!);
      if (sources.length === 0 || sources.some((source) => (source.poeClass ?? 0) >= port.poeClass!))
        continue;
      const [source] = sources;
      const gives = source!.poeClass === null ? 'no power' : `class ${source!.poeClass}`;
      const device = plan.device.get(port.device)!;
      yield {
        severity: 'fix',
        on: ref(port),
        also: [ref(source!)],
        what: `${device.name} gets too little power`,
        because: `It asks for class ${port.poeClass} (${reservedFor(port.poeClass)} W); ${portTitle(plan, source!)} gives ${gives}.`,
      };
    }
  },
};

const COPPER_LIMIT = 100;
const cableFit: SiteCheck = {
  id: 'cable-unfit',
  station: 'gear',
  scope: 'site',
  reads: GEAR,
  *find(plan): Generator<Report> {
    const done = new Set<string>();
    for (const list of linksOf(plan).values())
      for (const link of list) {
        const key = [link.from, link.to].sort().join(' ');
        if (done.has(key)) continue;
        done.add(key);
        const cables = link.cables.map((id) => plan.cable.get(id)!);
        const copper = cables.filter((cable) => cable.media === 'copper');
        const length = copper.reduce((sum, cable) => sum + (cable.length ?? 0), 0);
        const ends = [link.from, link.to].map((id) => plan.port.get(id)!);
        const wrong = ends.find(
          (port) =>
            (port.media === 'fibre' && copper.length > 0) ||
            (port.media === 'copper' && cables.some((cable) => cable.media !== 'copper')),
        );
        const parts = [
          ...(length > COPPER_LIMIT
            ? [
                `${length} m of copper are more than the ${COPPER_LIMIT} m of a channel (90 m laid and 10 m of cords, ISO/IEC 11801-1)`,
              ]
            : []),
          ...(wrong
            ? [
                `${portTitle(plan, wrong)} is ${wrong.media} and the cable is ${wrong.media === 'fibre' ? 'copper' : 'not'}`,
              ]
            : []),
        ];
        const [a, b] = ends as [Port, Port];
        const light = ends.every((port) => port.media === 'fibre');
        if (light && a.speed !== b.speed)
          parts.push(`fibre ends of ${a.speed} and ${b.speed} Mbit/s do not meet`);
        if (a.optic !== '' && b.optic !== '' && a.optic !== b.optic)
          parts.push(`the optics are “${a.optic}” and “${b.optic}”`);
        const modes = new Set(cables.map((cable) => cable.media).filter((medium) => medium.endsWith('mode')));
        if (modes.size > 1) parts.push('multi-mode and single-mode fibre are joined on the way');
        if (parts.length === 0) continue;
        yield {
          severity: 'fix',
          on: { table: 'cable', id: link.cables[0]! },
          also: ends.map(ref),
          what: `The cable ${ends.map((port) => portTitle(plan, port)).join(' = ')} does not fit`,
          because: `${parts.join('; ')}.`,
        };
      }
  },
};

const plainInTaggedPath: SiteCheck = {
  id: 'plain-switch-tagged',
  station: 'gear',
  scope: 'site',
  reads: GEAR,
  *find(plan): Generator<Report> {
    for (const { link, a, b } of boxLinks(plan))
      for (const [port, far] of [
        [a, b],
        [b, a],
      ] as const) {
        const device = plan.device.get(far.device)!;
        if (boxOf(plan, device.id)!.vlanAware || port.role !== 'trunk') continue;
        if (port.taggedMode === 'list' && port.tagged.length === 0) continue;
        yield {
          severity: 'fix',
          on: ref(port),
          also: [{ table: 'cable', id: link.cables[0]! }],
          what: `Tagged segments run through ${device.name}, which knows no VLANs`,
          because: `Everything ${portTitle(plan, port)} sends with a tag reaches every port of ${device.name} unasked.`,
        };
      }
    for (const { box, device, ports } of bridging(plan)) {
      if (box.vlanAware) continue;
      const ends = ports.flatMap((port) => endsAt(plan, port));
      const homes = new Map(
        ends.flatMap((end) => segmentsOf(plan, end.id).map((vlan) => [vlan.id, vlan] as const)),
      );
      if (homes.size < 2) continue;
      yield {
        severity: 'stop',
        on: { table: 'device', id: device.id },
        also: ends.map((end) => ({ table: 'device' as const, id: end.id })),
        what: `${device.name} serves devices of ${homes.size} segments`,
        because: `It knows no VLANs, so ${[...homes.values()].map((vlan) => vlan.name).join(' and ')} cannot be told apart behind it.`,
      };
    }
  },
};

const nameTwiceOnBox: SiteCheck = {
  id: 'port-name-twice',
  station: 'gear',
  scope: 'site',
  reads: GEAR,
  *find(plan): Generator<Report> {
    for (const { ports } of bridging(plan)) {
      const first = new Map<string, Port>();
      for (const port of ports) {
        if (port.name === '') continue;
        const other = first.get(port.name);
        if (!other) first.set(port.name, port);
        else
          yield {
            severity: 'fix',
            on: ref(port),
            also: [ref(other)],
            what: `Two ports are called ${port.name} in the configuration`,
            because: `${portTitle(plan, other)} and ${portTitle(plan, port)} would be configured in one place.`,
            remedies: [
              {
                label: `Clear the name of ${portTitle(plan, port)}`,
                operation: 'edit',
                input: { table: 'port', id: port.id, set: { name: '' }, seen: { name: port.name } },
              },
            ],
          };
      }
    }
  },
};

const loginUnchanged: SiteCheck = {
  id: 'login-unchanged',
  station: 'gear',
  scope: 'site',
  reads: GEAR,
  *find(plan): Generator<Report> {
    for (const { box, device } of bridging(plan)) {
      if (!box.vlanAware || box.loginChanged !== null || box.controller !== null) continue;
      yield {
        severity: device.kind === 'gateway' ? 'fix' : 'note',
        on: { table: 'box', id: box.id },
        what: `${device.name}: the default login is not recorded as changed`,
        because:
          'The factory login of most models stands on the Internet. Record the day it was changed and where the new one is kept, never what it is.',
      };
    }
  },
};

const unusedVlan: SiteCheck = {
  id: 'vlan-without-port',
  station: 'gear',
  scope: 'site',
  reads: GEAR,
  *find(plan): Generator<Report> {
    const boxes = [...bridging(plan)].filter(({ box }) => box.vlanAware);
    if (boxes.length === 0) return;
    const used = new Set(
      boxes.flatMap(({ device, ports }) => [
        ...ports
          .filter((port) => port.role === 'access' || port.role === 'voice')
          .flatMap((port) => vlansIn(port as Carried)),
        ...(device.kind === 'gateway' || device.kind === 'layer3-switch' ? [] : innerVlans(plan, device.id)),
      ]),
    );
    for (const vlan of vlansOf(plan)) {
      if (used.has(vlan.id) || vlan.purpose === 'parking' || vlan.purpose === 'transit') continue;
      if (subnetsOf(plan, vlan.id).length === 0) continue;
      yield {
        severity: 'note',
        on: { table: 'vlan', id: vlan.id },
        what: `No port is in ${vlan.name}`,
        because: `VLAN ${vlan.vid} has a subnet, and neither an access port nor a box takes part in it.`,
      };
    }
  },
};

const voiceWrong: SiteCheck = {
  id: 'voice-wrong',
  station: 'gear',
  scope: 'site',
  reads: GEAR,
  *find(plan): Generator<Report> {
    const right = vlansOf(plan).find((vlan) => vlan.purpose === 'voice');
    for (const { box, ports } of bridging(plan))
      for (const port of box.vlanAware ? ports : []) {
        if (port.role !== 'voice') continue;
        const now = port.voice === null ? undefined : plan.vlan.get(port.voice);
        if (now?.purpose === 'voice') continue;
        yield {
          severity: 'fix',
          on: ref(port),
          what: `${portTitle(plan, port)} sends telephones to the wrong segment`,
          because: `It announces ${now ? `${now.name} (${now.vid}, ${now.purpose})` : 'no VLAN'} for voice.`,
          remedies: right
            ? [
                {
                  label: `Announce ${right.vid} ${right.code}`,
                  operation: 'setVoice',
                  input: { port: port.id, voice: right.id },
                },
              ]
            : [],
        };
      }
  },
};

const parallelLinks: SiteCheck = {
  id: 'links-unbundled',
  station: 'gear',
  scope: 'site',
  reads: GEAR,
  *find(plan): Generator<Report> {
    const pairs = groupBy(
      boxLinks(plan).filter(
        ({ a, b }) => a.device !== b.device && [a, b].every((port) => port.role === 'trunk'),
      ),
      ({ a, b }) => [a.device, b.device].sort().join(' '),
    );
    for (const links of pairs.values()) {
      const loose = links.filter(({ a, b }) => a.aggregate === null || b.aggregate === null);
      if (links.length < 2 || loose.length === 0) continue;
      const left = links[0]!.a.device;
      const sides = [
        links.map(({ a, b }) => (a.device === left ? a : b)),
        links.map(({ a, b }) => (a.device === left ? b : a)),
      ];
      const clean = sides.every(
        (ports) =>
          new Set(ports).size === ports.length &&
          ports.every(
            (port) =>
              port.aggregate === null &&
              port.taggedMode === 'list' &&
              port.untagged === ports[0]!.untagged &&
              port.pvid === port.untagged,
          ),
      );
      yield {
        severity: 'note',
        on: { table: 'cable', id: links[0]!.link.cables[0]! },
        also: sides.flat().map(ref),
        what: `${portsTitle(plan, sides[0]!)} and ${portsTitle(plan, sides[1]!)} are not bundled`,
        because: `Of ${links.length} links side by side, spanning tree blocks all but one; as a bundle all would carry.`,
        remedies: clean
          ? [
              {
                label: 'Bundle them at both ends',
                operation: 'bundleLinks',
                input: { sides: sides.map((ports) => ports.map((port) => port.id)) },
              },
            ]
          : [],
      };
    }
  },
};

const misplacedManagement: SiteCheck = {
  id: 'management-misplaced',
  station: 'gear',
  scope: 'site',
  reads: GEAR,
  *find(plan): Generator<Report> {
    for (const { box, device } of bridging(plan)) {
      if (
        !box.vlanAware ||
        device.kind === 'gateway' ||
        device.kind === 'layer3-switch' ||
        device.kind === 'server'
      )
        continue;
      const vlan = segmentsOf(plan, device.id).find((item) =>
        ['guest', 'iot', 'cameras'].includes(item.purpose),
      );
      if (!vlan) continue;
      yield {
        severity: 'fix',
        on: { table: 'device', id: device.id },
        also: [{ table: 'vlan', id: vlan.id }],
        what: `${device.name} is managed from ${vlan.name}`,
        because: `Its address is in VLAN ${vlan.vid} (${vlan.purpose}): whoever is there can try its login.`,
      };
    }
  },
};

const ranOut: SiteCheck = {
  id: 'support-ended',
  station: 'gear',
  scope: 'site',
  reads: GEAR,
  *find(plan, today): Generator<Report> {
    if (today === null) return;
    for (const { box, device, ports } of bridging(plan)) {
      const parts = [
        ...(box.supportedUntil !== null && box.supportedUntil < today
          ? [`its firmware ${box.firmware} is supported until ${box.supportedUntil}`]
          : []),
        ...(box.licenceUntil !== null && box.licenceUntil < today
          ? [`its licence ran out on ${box.licenceUntil}`]
          : []),
      ];
      if (parts.length === 0) continue;
      const outside = ports.some((port) => port.role === 'uplink');
      yield {
        severity: outside && box.supportedUntil !== null && box.supportedUntil < today ? 'stop' : 'fix',
        on: { table: 'box', id: box.id },
        what: `${device.name} gets no more repairs`,
        because: `${parts.join('; ')}${outside ? ', and it faces the Internet' : ''}.`,
      };
    }
  },
};

const innerVlans = (plan: Plan, device: string): string[] => {
  const inner = portsOf(plan, device).find((port) => port.number === 0);
  return inner ? vlansIn(inner as Carried) : [];
};

export const portChecks = [
  undecidedPorts,
  unusedPorts,
  pvidDiffers,
  trunkToEnd,
  wrongSegment,
  accessToAp,
  setsItself,
  exposedManagement,
  twoCables,
  tooMuch,
  notPowered,
  cableFit,
  plainInTaggedPath,
  nameTwiceOnBox,
  loginUnchanged,
  unusedVlan,
  voiceWrong,
  parallelLinks,
  misplacedManagement,
  ranOut,
];
