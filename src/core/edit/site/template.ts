import {
  type IpAddress,
  type Prefix,
  addOffset,
  contains,
  formatPrefix,
  lastOf,
  prefixFamily,
} from '../../address';
import { nameMessage, nameProblem } from '../../model/hosts';
import { Draft, type Plan, SITE_ID, badInput, siteOf } from '../../plan';
import type { Template } from './input';

/** A site as the template of another: the same plan in another address space, with names that are its own. */

type Move = (address: IpAddress) => IpAddress;

/** Moves what lies in one space into another; everything else stays. */
function moving(from: Prefix, to: Prefix): Move {
  const offset = Number(to.address) - Number(from.address);
  return (address) => (contains(from, address) ? addOffset(address, offset) : address);
}

/** The addresses of a plan that are its own: what it holds of the outside and of factories is none. */
function moveAll(draft: Draft, move: Move): void {
  const prefix = (own: Prefix): Prefix => ({ ...own, address: move(own.address) });
  for (const { id, prefix: own, dns } of [...draft.plan.subnet.values()])
    draft.update('subnet', id, {
      prefix: prefix(own),
      dns: dns.map((server) => ('literal' in server ? { literal: move(server.literal) } : server)),
    });
  for (const table of ['pool', 'exclusion'] as const)
    for (const { id, start, end } of [...draft.plan[table].values()])
      draft.update(table, id, { start: move(start), end: move(end) });
  for (const { id, address } of [...draft.plan.address.values()])
    draft.update('address', id, { address: move(address) });
  for (const { id, ownGateway, ownDns } of [...draft.plan.interface.values()])
    draft.update('interface', id, {
      ownGateway: ownGateway === null ? null : move(ownGateway),
      ownDns: ownDns === null ? null : ownDns.map(move),
    });
  for (const { id, prefix: own, via } of [...draft.plan.route.values()])
    draft.update('route', id, { prefix: prefix(own), via: move(via) });
  // A router behind a router faces a segment of this site.
  for (const { id, segment, address, network, monitor } of [...draft.plan.uplink.values()])
    if (segment !== null)
      draft.update('uplink', id, {
        address: address === null ? null : move(address),
        network: network && prefix(network),
        monitor: monitor === null ? null : move(monitor),
      });
  for (const { id, toAddress } of [...draft.plan.question.values()])
    if (toAddress !== null) draft.update('question', id, { toAddress: move(toAddress) });
  for (const { id, from, to } of [...draft.plan.rule.values()]) {
    const ends = (all: typeof from) =>
      all.map((end) => ('prefix' in end ? { prefix: prefix(end.prefix) } : end));
    draft.update('rule', id, { from: ends(from), to: ends(to) });
  }
}

function moveSpace(draft: Draft, to: Prefix): void {
  const { space } = siteOf(draft.plan);
  const at = space.findIndex((own) => prefixFamily(own) === 4);
  const from = space[at];
  if (!from || prefixFamily(to) !== 4)
    throw badInput(`${formatPrefix(to)} is no IPv4 space; write one like 10.30.0.0/16.`, 'space');
  const last = addOffset(from.address, Number(lastOf(to)) - Number(to.address));
  const over = [...draft.plan.subnet.values()].find(
    ({ prefix }) => contains(from, prefix.address) && lastOf(prefix) > last,
  );
  if (over)
    throw badInput(
      `${formatPrefix(to)} is too small: ${formatPrefix(over.prefix)} has no place in it. Write one with at most ${from.length} bits, like that of the original, ${formatPrefix(from)}.`,
      'space',
    );
  moveAll(draft, moving(from, to));
  draft.update('site', SITE_ID, { space: space.with(at, to) });
}

/** The plan of a new site made from another. Throws a Refusal where it has no place or a name would be none. */
export function fromTemplate(plan: Plan, { name, space, domain, names }: Template): Plan {
  const draft = new Draft(plan, 'template');
  draft.update('site', SITE_ID, { name, ...(domain === undefined ? {} : { domain }) });
  if (space) moveSpace(draft, space);
  if (names)
    for (const device of [...draft.plan.device.values()]) {
      if (!device.name.includes(names.from)) continue;
      const own = device.name.replaceAll(names.from, names.to);
      // Names that are no host names already stay the findings they are.
      const problem = nameProblem(own);
      if (problem && !nameProblem(device.name))
        throw badInput(`${device.name} would be called so: ${nameMessage(problem)}.`, 'names');
      draft.update('device', device.id, { name: own });
    }
  return draft.plan;
}
