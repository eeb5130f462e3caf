import { rangeText, isOpen, vlansIn, endsAt, homesOf } from '../../../model/wiring';
import { type Plan, type Port, type Remedy, type Vlan, plainVlansOf, portTitle } from '../../../plan';
import { onPort } from '../refs';
import { assign, boxCheck, isCabled, leadsToBox, vlanBoxCheck } from './shared';

/** How single ports are set. */

/**
 * Ports decided by what is plugged into each: access for a device at home in one segment, parked for none. Empty where that leaves
 * one undecided.
 */
function byWhatIsThere(plan: Plan, open: readonly Port[], free: readonly Port[]): Remedy[] {
  const homes = open.map((port) => ({ port, vlan: free.includes(port) ? null : onlyHome(plan, port) }));
  const used = homes.filter(({ vlan }) => vlan !== null);
  if (used.length === 0 || homes.some(({ vlan }) => vlan === undefined)) return [];
  const said = used.map(({ port, vlan }) => `${port.number} in ${vlan!.vid} ${vlan!.code}`);
  const spare = free.length > 0 ? `, ${rangeText(free)} parked` : '';
  const calls = [
    ...used.map(({ port, vlan }) => ({
      operation: 'joinSegment',
      input: { port: port.id, vlan: vlan!.id },
    })),
    ...(free.length > 0
      ? [{ operation: 'assignPorts', input: { ports: free.map(({ id }) => id), role: 'parked' } }]
      : []),
  ];
  return [
    {
      label: `By what is plugged in: ${said.join(', ')}${spare}`,
      operation: 'several',
      input: { label: `Ports by what is plugged in: ${said.join(', ')}${spare}`.slice(0, 200), calls },
    },
  ];
}
/** The segment of the one device in a port; undefined where that is not one. */
function onlyHome(plan: Plan, port: Port): Vlan | undefined {
  const [end, other] = endsAt(plan, port);
  const [home, second] = end && !other ? homesOf(plan, end.id) : [];
  return second ? undefined : home;
}

const undecidedPorts = boxCheck('port-undecided', function* (plan, { box, device, ports }) {
  if (!box.vlanAware) return;
  const open = ports.filter((port) => port.role === 'undecided' && isOpen(port));
  if (open.length === 0) return;
  const free = open.filter((port) => !isCabled(plan, port));
  const factory = {
    'default-vlan': 'in VLAN 1',
    'every-vlan': 'a member of every VLAN',
    'by-neighbour': 'whatever its neighbour asks for',
  }[box.factory];
  yield {
    severity: box.factory === 'default-vlan' ? 'fix' : 'stop',
    on: { table: 'box', id: box.id },
    also: open.map(onPort),
    what: `${open.length === 1 ? 'A port' : `${open.length} ports`} of ${device.name} nobody decided`,
    because: `${open.length === 1 ? 'Port' : 'Ports'} ${rangeText(open)} ${open.length === 1 ? 'is' : 'are each'} as it left the factory, ${factory}.`,
    remedies: [
      ...(free.length === open.length ? [assign(`Park ${rangeText(free)}`, free, 'parked')] : []),
      ...byWhatIsThere(plan, open, free),
    ],
  };
});

const unusedPorts = boxCheck('port-unused', function* (plan, { box, device, ports }) {
  const free = ports.filter((port) => port.role !== 'undecided' && isOpen(port) && !isCabled(plan, port));
  if (!box.vlanAware || free.length === 0) return;
  yield {
    severity: 'note',
    on: { table: 'box', id: box.id },
    also: free.map(onPort),
    what: `${device.name} has open ports without a cable`,
    because: `Whoever plugs into ${rangeText(free)} is in the network.`,
    remedies: [assign(`Park ${rangeText(free)}`, free, 'parked')],
  };
});

const pvidDiffers = vlanBoxCheck('pvid-differs', function* (plan, { ports }) {
  for (const port of ports) {
    if (port.pvid === port.untagged || port.role === 'undecided' || port.role === 'parked') continue;
    const vlan = (id: string | null) => (id === null ? 'no VLAN' : `VLAN ${plan.vlan.get(id)!.vid}`);
    // Who is plugged in has its address in one of the two, and is heard or answered, not both.
    const needed = endsAt(plan, port).flatMap((end) => homesOf(plan, end.id).map(({ id }) => id));
    const isNeeded = needed.some((id) => id === port.pvid || id === port.untagged);
    const wires = endsAt(plan, port).length === 1 ? [port.untagged, port.pvid] : [port.untagged];
    const both = wires.sort((a, b) => Number(needed.includes(b!)) - Number(needed.includes(a!)));
    yield {
      severity: isNeeded ? 'stop' : 'fix',
      on: onPort(port),
      what: `PVID and untagged VLAN differ on ${portTitle(plan, port)}`,
      because: `Untagged frames go in as ${vlan(port.pvid)} (PVID) and come out of ${vlan(port.untagged)}: answers never arrive.`,
      remedies: both.map((id) => ({
        label: `Make both ${vlan(id)}`,
        operation: 'setNative',
        input: { port: port.id, vlan: id },
      })),
    };
  }
});

const setsItself = boxCheck('port-sets-itself', function* (plan, { ports }) {
  for (const port of ports) {
    if (port.setsItself === 'no' || (!port.exposed && !leadsToBox(plan, port))) continue;
    yield {
      severity: 'fix',
      on: onPort(port),
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
});

const exposedManagement = vlanBoxCheck('management-exposed', function* (plan, { ports }) {
  for (const port of ports) {
    if (!port.exposed || port.role === 'parked') continue;
    const vlan = vlansIn(port)
      .map((id) => plan.vlan.get(id)!)
      .find((item) => item.purpose === 'management');
    if (!vlan) continue;
    yield {
      severity: 'stop',
      on: onPort(port),
      what: `${vlan.name} lies open at ${portTitle(plan, port)}`,
      because: 'Strangers can plug in there and talk to the switches themselves.',
      remedies: isCabled(plan, port) ? [] : [assign('Park it', [port], 'parked')],
    };
  }
});

const voiceWrong = vlanBoxCheck('voice-wrong', function* (plan, { ports }) {
  const right = plainVlansOf(plan).find((vlan) => vlan.purpose === 'voice');
  for (const port of ports) {
    if (port.role !== 'voice') continue;
    const now = port.voice === null ? undefined : plan.vlan.get(port.voice);
    if (now?.purpose === 'voice') continue;
    yield {
      severity: 'fix',
      on: onPort(port),
      what: `${portTitle(plan, port)} sends telephones to the wrong segment`,
      because: `It announces ${now ? `${now.name} (${now.vid}, ${now.purpose})` : 'no VLAN'} for voice.`,
      remedies: right
        ? [
            {
              label: `Announce ${right.vid} ${plan.vlan.get(right.id)!.code}`,
              operation: 'setVoice',
              input: { port: port.id, voice: right.id },
            },
          ]
        : [],
    };
  }
});

const nameTwiceOnBox = boxCheck('port-name-twice', function* (plan, { ports }) {
  const first = new Map<string, Port>();
  for (const port of ports) {
    if (port.name === '') continue;
    const other = first.get(port.name);
    if (!other) first.set(port.name, port);
    else
      yield {
        severity: 'fix',
        on: onPort(port),
        also: [onPort(other)],
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
});

export const portChecks = [
  undecidedPorts,
  unusedPorts,
  pvidDiffers,
  setsItself,
  exposedManagement,
  voiceWrong,
  nameTwiceOnBox,
];
