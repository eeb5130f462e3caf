import { type Access, type Plan, type Port, type Vlan, addressesOn, interfacesOf } from '../../plan';
import { type KnownBy, accessAt, knownBy, macOf, serversFor } from '../../model/guards';
import { serviceNames } from '../../model/policy';
import { linksAt } from '../../model/wiring';
import { bringsVlan } from './behind';
import { serverWays } from './server-ways';

/**
 * 802.1X (IEEE 802.1X-2020) as somebody at a port lives through it: who says what to whom, when, and in which segment it ends. The
 * box asks the servers (RFC 2865, RFC 3579) by the way the probe finds for its packets.
 */

/** How the servers are: as the plan has them, silent, or knowing other passwords than the device. */
export interface Circumstances {
  readonly servers: 'as planned' | 'silent';
  readonly credentials: 'good' | 'bad';
}

/** Who says something to whom, after how many seconds. */
export interface Line {
  readonly at: number;
  readonly from: 'device' | 'box' | 'server';
  readonly what: string;
  readonly detail: string;
}

export type Outcome = 'let in' | 'no answer' | 'refused' | 'no server' | 'one too many';
export interface Authentication {
  readonly lines: readonly Line[];
  readonly outcome: Outcome;
  /** The segment it ends in; null where nothing of it passes. */
  readonly vlan: Vlan | null;
  /** The segment whose list the port holds it to; null where all passes that the segment lets pass. */
  readonly list: string | null;
  /** Why nothing passes; null where it does. */
  readonly why: string | null;
  /** Seconds until then. */
  readonly after: number;
  /** Has its DHCP client given up by then? */
  readonly late: boolean;
}

/** A DHCP client asks after 4, 8, 16 and 32 seconds and gives up (RFC 2131 section 4.1). */
export const DHCP_PATIENCE = 60;

/** The segment of a device by its first address, which its server names; null for a stranger. */
export const homeVlanOf = (plan: Plan, device: string | null): string | null => {
  if (device === null) return null;
  for (const item of interfacesOf(plan, device))
    for (const { subnet } of addressesOn(plan, item.id)) return plan.subnet.get(subnet)!.vlan;
  return null;
};

/** Is a MAC address of a device recorded, so that a server can know it by that? */
export const hasMac = (plan: Plan, device: string): boolean =>
  interfacesOf(plan, device).some((card) => macOf(plan, card) !== null);

class Talk {
  readonly lines: Line[] = [];
  clock = 0;
  say(from: Line['from'], what: string, detail: string): void {
    this.lines.push({ at: this.clock, from, what, detail });
  }
}

/** Asks the servers one after the other; what they answer, or null where none does. */
function asks(
  plan: Plan,
  talk: Talk,
  port: Port,
  access: Access,
  { circumstances, today, accepts, as }: Question,
): 'accept' | 'reject' | null {
  for (const { server, name, why } of serverWays(plan, port.device, access, today)) {
    const silent = circumstances.servers === 'silent' ? 'it is off' : why;
    talk.say('box', 'Access-Request', `${as}, to ${name} on UDP ${server.port}`);
    if (silent !== null) {
      talk.clock += server.timeout * server.tries;
      talk.say('box', 'gives up on it', `${server.tries} × ${server.timeout} s without an answer: ${silent}`);
      continue;
    }
    talk.say('server', accepts ? 'Access-Accept' : 'Access-Reject', name);
    return accepts ? 'accept' : 'reject';
  }
  if (serversFor(plan, access).length === 0) talk.say('box', 'has nobody to ask', 'no server is recorded');
  return null;
}
interface Question {
  readonly circumstances: Circumstances;
  readonly today: string | null;
  readonly accepts: boolean;
  readonly as: string;
}

/** The steps a port takes, in order: its methods are named by them. */
const stepsOf = ({ methods }: Access) => methods.split('-') as ('dot1x' | 'mac')[];

/** A device plugged into a port that asks; null for a stranger’s laptop, which answers 802.1X and is known to no server. */
export function authenticate(
  plan: Plan,
  id: string,
  device: string | null,
  circumstances: Circumstances,
  today: string | null = null,
): Authentication | null {
  const port = plan.port.get(id)!;
  const access = accessAt(plan, id);
  if (!access) return null;
  const by: KnownBy = device === null ? 'dot1x' : knownBy(plan, device);
  const talk = new Talk();
  talk.say(
    'box',
    'link up',
    access.mode === 'watch'
      ? 'everything passes meanwhile'
      : access.mode === 'limited'
        ? `${access.services.length ? `only ${serviceNames(plan, access.services)}` : 'nothing'} passes meanwhile`
        : 'nothing passes meanwhile',
  );
  const outcome =
    alreadyIn(plan, talk, port, access, device) ??
    outcomeOf(plan, talk, port, access, {
      by,
      known: device !== null,
      hasMac: device !== null && hasMac(plan, device),
      circumstances,
      today,
    });
  const end = ended(plan, port, access, device, outcome);
  return {
    ...end,
    // A server has a list for a device by its segment; for one without, none.
    list: end.vlan && outcome === 'let in' && access.takesList ? homeVlanOf(plan, device) : null,
    lines: talk.lines,
    outcome,
    after: talk.clock,
    late: talk.clock > DHCP_PATIENCE,
  };
}

/** Behind a telephone a port has let somebody in before: whether it asks again is for its host mode to say. */
function alreadyIn(
  plan: Plan,
  talk: Talk,
  port: Port,
  { hosts }: Access,
  device: string | null,
): Outcome | null {
  const phone = linksAt(plan, port)
    .map(({ to }) => plan.device.get(plan.port.get(to)!.device)!)
    .find(({ id, kind }) => kind === 'phone' && id !== device);
  if (!phone || hosts === 'each' || hosts === 'phone-and-one') return null;
  if (hosts === 'all') {
    talk.say('box', 'asks nobody more', `${phone.name} was let in, and with it whoever comes after`);
    return 'let in';
  }
  talk.say('box', 'keeps it out', `it lets one device in, and ${phone.name} is there`);
  return 'one too many';
}

interface Comer {
  readonly by: KnownBy;
  readonly known: boolean;
  /** Is a MAC address recorded that the server can know it by? */
  readonly hasMac: boolean;
  readonly circumstances: Circumstances;
  readonly today: string | null;
}

function outcomeOf(plan: Plan, talk: Talk, port: Port, access: Access, comer: Comer): Outcome {
  const { by, known, hasMac, circumstances, today } = comer;
  let refused = false;
  for (const step of stepsOf(access)) {
    if (step === 'dot1x') {
      talk.say('box', 'EAP-Request/Identity', 'who is there?');
      if (by === 'mac' || by === 'neither') {
        talk.clock += access.period * access.tries;
        talk.say('box', 'no answer', `asked ${access.tries} times, every ${access.period} s`);
        continue;
      }
      talk.say(
        'device',
        'EAP-Response/Identity',
        by === 'unknown' ? 'taken to answer: nobody recorded whether it does' : 'its name',
      );
    } else if (by === 'neither') {
      talk.say('device', 'says nothing', 'it waits to be spoken to, so its MAC address is not seen');
      continue;
    } else talk.say('device', 'its first frame', 'the box sees its MAC address');
    const accepts = step === 'mac' ? hasMac : known && circumstances.credentials === 'good';
    const as = step === 'mac' ? 'its MAC address for a name' : 'what the device says, passed on (EAP)';
    const answer = asks(plan, talk, port, access, { circumstances, today, accepts, as });
    if (answer === 'accept') return 'let in';
    if (answer === null) return 'no server';
    refused = true;
    // With the MAC first, a device that answers 802.1X is asked that as well.
    if (step === 'dot1x') return 'refused';
  }
  return refused ? 'refused' : 'no answer';
}

/** The segment an outcome leads to, if the box carries it. */
function ended(
  plan: Plan,
  port: Port,
  access: Access,
  device: string | null,
  outcome: Outcome,
): Pick<Authentication, 'vlan' | 'why'> {
  const phone = device !== null && plan.device.get(device)!.kind === 'phone';
  const own = phone && port.voice !== null ? port.voice : port.untagged;
  if (outcome === 'one too many' && access.mode !== 'watch')
    return { vlan: null, why: 'the port lets one device in, and there is one' };
  const given = {
    'let in': access.takesVlan ? (homeVlanOf(plan, device) ?? own) : own,
    'no answer': access.guest,
    refused: access.failed,
    'no server': access.critical,
    'one too many': null,
  }[outcome];
  const id = given ?? (access.mode === 'watch' ? own : null);
  if (id === null) return { vlan: null, why: `no segment is set for it, so it is kept out` };
  const vlan = plan.vlan.get(id)!;
  const there = bringsVlan(plan, port.device, id);
  return there
    ? { vlan, why: null }
    : {
        vlan: null,
        why: `${plan.device.get(port.device)!.name} does not carry VLAN ${vlan.vid} ${vlan.name}, so it is kept out`,
      };
}
