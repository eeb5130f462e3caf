import { type Access, type Plan, type RadiusServer, deriveBy, hostOf } from '../../plan';
import { boxesAsking, serversFor } from '../../model/guards';
import { listenersOf } from '../../model/uplink';
import { type Answer, probe } from '../probe';
import { PING, type ProbeQuestion } from '../question';

/** The ways between a box that asks who is there and the servers it asks. A ping that passes says nothing of them. */
export interface ServerWay {
  readonly server: RadiusServer;
  readonly name: string;
  readonly purpose: 'asking' | 'accounting' | 'change';
  readonly port: number;
  readonly question: ProbeQuestion;
  readonly answer: Answer;
  /** Why nothing comes of it; null where it passes, or where something decides that nobody knows. */
  readonly why: string | null;
}

const wayOf = (
  plan: Plan,
  server: RadiusServer,
  purpose: ServerWay['purpose'],
  { from, to, port }: Pick<ProbeQuestion, 'from' | 'to'> & { readonly port: number },
  today: string | null,
): ServerWay => {
  const question: ProbeQuestion = { from, to, wanted: { protocol: 'udp', port } };
  const answer = probe(plan, question, today);
  const { name } = hostOf(plan, plan.address.get(server.address)!).device;
  return {
    server,
    name,
    purpose,
    port,
    question,
    answer,
    why: answer.works === false ? answer.summary : null,
  };
};

/** The servers a box asks, in order, each with the way of the question to it and of the answer back (RFC 2865). */
export const serverWays = (
  plan: Plan,
  box: string,
  access: Pick<Access, 'group'>,
  today: string | null = null,
): ServerWay[] =>
  serversFor(plan, access).map((server) => {
    const to = { address: plan.address.get(server.address)!.address };
    return wayOf(plan, server, 'asking', { from: { device: box }, to, port: server.port }, today);
  });

/** What else passes between them: accounting (RFC 2866), and from the server a change of authorisation (RFC 5176). */
export const otherWays = (
  plan: Plan,
  box: string,
  access: Pick<Access, 'group' | 'accounting'>,
  today: string | null = null,
): ServerWay[] =>
  serversFor(plan, access).flatMap((server) => {
    const address = plan.address.get(server.address)!;
    const there = { from: { device: box }, to: { address: address.address }, port: server.accounting };
    const back = { from: { device: hostOf(plan, address).device.id }, to: { device: box } };
    return [
      ...(access.accounting ? [wayOf(plan, server, 'accounting', there, today)] : []),
      ...(server.change === null
        ? []
        : [wayOf(plan, server, 'change', { ...back, port: server.change }, today)]),
    ];
  });

/** A way of a box that asks, and the way in it asks by. */
export interface BoxWay extends ServerWay {
  readonly box: string;
  readonly access: string;
}
const waysOn = deriveBy(
  (plan, today: string): readonly BoxWay[] =>
    [...boxesAsking(plan)].flatMap(([access, boxes]) =>
      [...boxes].flatMap((box) =>
        [...serverWays(plan, box, access, today || null), ...otherWays(plan, box, access, today || null)].map(
          (way) => ({ ...way, box, access: access.id }),
        ),
      ),
    ),
  Object.is,
);
/** All ways of all boxes that ask; probed once for whoever wants to know. */
export const waysToServers = (plan: Plan, today: string | null): readonly BoxWay[] =>
  waysOn(plan, today ?? '');

/** Does a ping pass on such a way? Then nobody looks for the fault there. */
export const pingPasses = (plan: Plan, { question }: ServerWay, today: string | null): boolean =>
  probe(plan, { ...question, wanted: PING }, today).works === true;

/** The port a server listens on where boxes ask at the other of the two in use; null where they meet, or nobody knows. */
export function wrongPort(
  plan: Plan,
  { address, port }: Pick<RadiusServer, 'address' | 'port'>,
): number | null {
  const { device } = hostOf(plan, plan.address.get(address)!);
  const listed = listenersOf(plan, device.id)
    .filter((one) => one.protocol !== 'tcp')
    .map((one) => one.port);
  const other = [1812, 1645].find((known) => known !== port && listed.includes(known));
  return !listed.includes(port) && other !== undefined ? other : null;
}
