import { trialKey } from '../../exercises';
import { type Wanted, passing, serviceOf, zoneOfVlan } from '../../model/policy';
import { boxesInOrder } from '../../model/switching';
import { workingUplinks } from '../../model/uplink';
import {
  type Device,
  type Plan,
  type Vlan,
  addressesOn,
  boxOf,
  byName,
  groupBy,
  interfacesOf,
  portTitle,
  subnetsOf,
  vlansOf,
} from '../../plan';
import {
  type Fault,
  type ProbeQuestion,
  type Receiver,
  airTitle,
  askedBy,
  faultKey,
  plugIn,
  probe,
  questionsOf,
  senderTitle,
  whatIf,
} from '../../rehearse';
import { type SocketGroup, airsTried, assumedText, socketGroups } from './cover';
import { ringCables } from './rings';
import { type SiteTest, type TestPlan, type TestRound, landingTest, talkTest } from './site-test';

/** The tests of a site when it is set up: as few as try everything, each with what must come of it and why. */

const PING: Wanted = { protocol: 'icmp', port: 8 };
const HTTPS: Wanted = { protocol: 'tcp', port: 443 };

/** So many devices of a segment are tried for one that answers. */
const WITNESSES = 6;
/** Somebody in a segment to be reached from a socket: one that answers where that is wished. */
function witnessIn(plan: Plan, { id }: Vlan, asks: (to: Receiver) => boolean): Receiver | null {
  const known = subnetsOf(plan, id)
    .flatMap((subnet) => [...plan.address.group(subnet.id).values()])
    .filter(({ gateway }) => !gateway)
    .map(({ interface: item }) => plan.device.get(plan.interface.get(item)!.device)!)
    .sort((a, b) => byName(a.name, b.name))
    .map(({ id: device }): Receiver => ({ device }));
  return known.slice(0, WITNESSES).find(asks) ?? known[0] ?? null;
}

/** What the cell between two segments speaks of, as one try: its first service, a page where nothing is let through, else a ping. */
function wantedBetween(
  plan: Plan,
  from: Vlan,
  to: Vlan,
): { readonly wanted: Wanted; readonly why: string; readonly wished: boolean | null } {
  const [a, b] = [zoneOfVlan(plan, from.id), zoneOfVlan(plan, to.id)];
  if (!a || !b) return { wanted: PING, why: 'no zone is decided', wished: null };
  const { decision, services, why } = passing(plan, a, b);
  const cell = `${a.name} to ${b.name}: ${why}`;
  if (decision === 'deny') return { wanted: HTTPS, why: cell, wished: null };
  const match = services
    .flatMap((id) => serviceOf(plan, id)?.matches ?? [])
    .find(({ protocol }) => protocol !== 'ip');
  if (decision === 'services' && match && match.protocol !== 'ip')
    return { wanted: { protocol: match.protocol, port: match.from }, why: cell, wished: true };
  return { wanted: PING, why: cell, wished: decision === 'allow' ? true : null };
}

/** What is tried from a socket in a segment, once for the segment. */
function talksFrom(plan: Plan, port: string, vlan: Vlan, today: string | null): SiteTest[] {
  const from = { port };
  const others = vlansOf(plan).filter((other) => other !== vlan && subnetsOf(plan, other.id).length > 0);
  return [
    talkTest(
      plan,
      { from, to: { internet: true }, wanted: HTTPS },
      vlan.internet ? `${vlan.name} may use the Internet` : `${vlan.name} may not use the Internet`,
      vlan.internet,
      today,
    ),
    talkTest(
      plan,
      { from, to: { gateway: true }, wanted: HTTPS },
      'who opens the page of the gateway can change it',
      null,
      today,
    ),
    ...others.flatMap((other) => {
      const { wanted, why, wished } = wantedBetween(plan, vlan, other);
      const asks = (to: Receiver) => wished !== true || probe(plan, { from, to, wanted }, today).delivered;
      const to = witnessIn(plan, other, asks);
      return to ? [talkTest(plan, { from, to, wanted }, why, wished, today)] : [];
    }),
  ];
}

function socketRound(
  plan: Plan,
  { port, free }: SocketGroup,
  first: boolean,
  today: string | null,
): TestRound {
  const vlan = plan.vlan.get(port.untagged!)!;
  return {
    at: portTitle(plan, port),
    how: free ? 'a laptop goes in' : 'unplug what is there, a laptop goes in',
    port: port.id,
    place: boxOf(plan, port.device)?.location ?? '',
    tests: [
      {
        ...landingTest(plan, { kind: 'lease', port: port.id }, vlan, today),
        does: 'Plug in a laptop that asks for an address',
        why: `${port.role === 'voice' ? 'a port for telephones' : 'a port'} in ${vlan.name}`,
      },
      ...(first ? talksFrom(plan, port.id, vlan, today) : []),
    ],
  };
}

function airRounds(plan: Plan, today: string | null): TestRound[] {
  return airsTried(plan).map((at): TestRound => {
    const ssid = plan.ssid.get(at.ssid)!;
    const vlan = ssid.vlan === null ? undefined : plan.vlan.get(ssid.vlan);
    const test = {
      ...landingTest(plan, { kind: 'join', at }, vlan, today),
      does: `Join ${ssid.name} beside ${plan.device.get(at.at)!.name}`,
      why: `the network ${ssid.name}, and the port of ${plan.device.get(at.at)!.name}`,
    };
    const place = boxOf(plan, at.at)?.location ?? '';
    return { at: airTitle(plan, at), how: 'a laptop or phone joins', port: null, place, tests: [test] };
  });
}

/** What gets in from outside. */
function outsideRound(plan: Plan, today: string | null): TestRound[] {
  const tests = [...plan.forward.values()]
    .filter(({ enabled }) => enabled)
    .map(({ id, target, inside, from, protocol }) => {
      const { device } = plan.interface.get(target)!;
      const wanted: Wanted = { protocol: protocol === 'udp' ? 'udp' : 'tcp', port: inside };
      const question = { from: { internet: true } as const, to: { device }, wanted };
      const test = talkTest(plan, question, `the forward of port ${from}`, true, today);
      return {
        ...test,
        // Several outside ports may lead to one inside.
        key: `forward ${id}`,
        does: `Open ${wanted.protocol} ${from} of the outside address; it leads to ${plan.device.get(device)!.name}`,
      };
    });
  if (tests.length === 0) return [];
  const how = 'a phone with its wireless off, or somebody elsewhere';
  return [{ at: 'the Internet', how, port: null, place: '', tests }];
}

interface Asked {
  readonly at: string;
  readonly test: SiteTest;
}
/** A question as it is tried: who asks from anywhere in a segment asks from its socket. */
function askedTest(
  plan: Plan,
  asked: ProbeQuestion,
  socketOf: ReadonlyMap<string, string>,
  why: string,
  wished: boolean,
  today: string | null,
): Asked {
  const port = 'vlan' in asked.from ? socketOf.get(asked.from.vlan) : undefined;
  const made = port === undefined ? asked : { ...asked, from: { port } };
  return { at: senderTitle(plan, made.from), test: talkTest(plan, made, why, wished, today) };
}

/** Every box with an address of its own, from the segment in which it is set up. */
function boxQuestions(plan: Plan): readonly { readonly question: ProbeQuestion; readonly why: string }[] {
  return boxesInOrder(plan).flatMap(({ device }) => {
    const { kind } = plan.device.get(device)!;
    const [own] = interfacesOf(plan, device).flatMap(({ id }) => addressesOn(plan, id));
    if (!own || kind === 'gateway') return [];
    const vlan = plan.vlan.get(plan.subnet.get(own.subnet)!.vlan)!;
    const question = { from: { vlan: vlan.id }, to: { device }, wanted: PING };
    return [{ question, why: `it is set up from ${vlan.name}` }];
  });
}

/** The first port of the media of a call (RFC 3551 section 8). */
const MEDIA: Wanted = { protocol: 'udp', port: 5004 };
/** A call between two telephones that are plugged in, as far apart as their names are. */
function calls(plan: Plan, today: string | null): Asked[] {
  const plugged = new Set(
    [...plan.cable.values()].flatMap(({ from, to }) => [from, to].map((id) => plan.port.get(id)?.device)),
  );
  const isReady = ({ id, kind }: Device) =>
    kind === 'phone' &&
    plugged.has(id) &&
    interfacesOf(plan, id).some((card) => addressesOn(plan, card.id).length > 0);
  const phones = [...plan.device.values()].filter(isReady).sort((a, b) => byName(a.name, b.name));
  const [from, to] = [phones[0], phones.at(-1)];
  if (!from || !to || from === to) return [];
  const question = { from: { device: from.id }, to: { device: to.id }, wanted: MEDIA };
  const test = talkTest(
    plan,
    question,
    'a call is heard both ways only where its media gets through',
    true,
    today,
  );
  return [
    {
      at: senderTitle(plan, question.from),
      test: {
        ...test,
        does: `Call ${to.name} from ${from.name}`,
        expects: 'It rings, and both hear each other.',
      },
    },
  ];
}

/** Those at one place in the building together, in the order in which one gets there; then what is nowhere in particular. */
function byPlace(rounds: readonly TestRound[]): TestRound[] {
  const groups = groupBy(rounds, ({ place }) => place);
  const elsewhere = groups.get('') ?? [];
  return [...[...groups].filter(([place]) => place !== '').flatMap(([, own]) => own), ...elsewhere];
}

/** Adds tests, each where it is made; one that is made already says what is expected and why. */
function withTests(rounds: readonly TestRound[], added: readonly Asked[]): TestRound[] {
  const made = new Map(rounds.map((round) => [round.at, round]));
  for (const { at, test } of added) {
    const round = made.get(at) ?? { at, how: 'from there', port: null, place: '', tests: [] };
    const place = round.tests.findIndex(({ trial }) => trial && trialKey(trial) === test.key);
    const { seen, expects, why, amiss } = test;
    const tried = round.tests[place];
    const tests = tried
      ? round.tests.with(place, { ...tried, seen, expects, why, amiss })
      : [...round.tests, test];
    made.set(at, { ...round, tests });
  }
  return [...made.values()];
}

const some = (names: readonly string[]): string =>
  names.length > 3 ? `${names.slice(0, 3).join(', ')} and ${names.length - 3} more` : names.join(', ');

function failureTest(plan: Plan, fault: Fault, does: string, why: string, today: string | null): SiteTest {
  const { cutOff, lost, rerouted, air } = whatIf(plan, [fault], today);
  const names = cutOff.map(({ name }) => name);
  const stays = [
    names.length === 0 ? 'Everybody stays in touch' : `Cut off: ${some(names)}`,
    ...(rerouted.length > 0 ? [`${rerouted.length} by another way`] : []),
    ...(lost.length > 0 ? [`lost: ${some(lost)}`] : []),
    ...(air.length > 0 ? ['networks on the air are lost'] : []),
  ];
  return {
    key: `fault ${faultKey(fault)}`,
    trial: null,
    fault,
    does,
    seen: null,
    expects: `${stays.join('; ')}. Note how many seconds it takes, and plug it in again.`,
    why,
    amiss: '',
  };
}

/** What is pulled: a link of each ring, and the main line where there is another. */
function failureRound(plan: Plan, today: string | null): TestRound[] {
  const rings = ringCables(plan).map(({ cable, ends }) =>
    failureTest(
      plan,
      { kind: 'cable', cable },
      `Pull the cable ${ends.map((id) => portTitle(plan, plan.port.get(id)!)).join(' to ')}`,
      'there is another way round',
      today,
    ),
  );
  const [main, ...others] = workingUplinks(plan);
  const lines =
    main && others.length > 0
      ? [
          failureTest(
            plan,
            { kind: 'uplink', uplink: main.id },
            `Pull the line of ${main.name}`,
            `${others[0]!.name} is to take over`,
            today,
          ),
        ]
      : [];
  const tests = [...rings, ...lines];
  return tests.length === 0
    ? []
    : [{ at: 'while everything runs', how: 'tell the people first', port: null, place: '', tests }];
}

/** All tests of a site: place by place in the building, then from outside, what else was asked, a call, and what is pulled. */
export function siteTests(plan: Plan, today: string | null): TestPlan {
  const groups = socketGroups(plan);
  const socketOf = new Map<string, string>();
  const sockets = groups.map((group) => {
    const { id, untagged } = group.port;
    // A segment is tried from where it works; another socket of it only whether one gets there.
    const first = !socketOf.has(untagged!) && plugIn(plan, { port: id }, today).works;
    if (first) socketOf.set(untagged!, id);
    return socketRound(plan, group, first, today);
  });
  const rounds = [...sockets, ...airRounds(plan, today), ...outsideRound(plan, today)];
  const boxes = boxQuestions(plan).map(({ question, why }) =>
    askedTest(plan, question, socketOf, why, true, today),
  );
  const kept = questionsOf(plan).map((question) => {
    const why = question.why || 'a question that is kept';
    return askedTest(plan, askedBy(question), socketOf, why, question.expected === 'delivered', today);
  });
  return {
    rounds: [
      ...byPlace(withTests(rounds, [...boxes, ...kept, ...calls(plan, today)])),
      ...failureRound(plan, today),
    ],
    assumed: groups.filter(({ alike }) => alike.length > 0).map((group) => assumedText(plan, group)),
  };
}
