import { linksAt, portsOf, portsTitle, type WiredPort } from '../../../model/wiring';
import { boxLinks, fabric, hasLoop } from '../../../model/switching';
import { settingsOf } from '../../../model/tree';
import {
  type Lag,
  type Plan,
  type Port,
  type Remedy,
  boxOf,
  groupBy,
  portTitle,
  withRecord,
} from '../../../plan';
import { onPort } from '../refs';
import { gearCheck } from './shared';
import { takenOut } from './ways';

/** Links side by side, as a bundle or not, and cables that lead back. */

interface Member {
  readonly port: Port;
  readonly far: Port;
}

/** The ports of a bundle that lead to boxes, each with the port at the other end. */
function membersOf(plan: Plan, { id, device }: Lag): Member[] {
  const { seats } = fabric(plan);
  return portsOf(plan, device)
    .filter(({ lag }) => lag === id)
    .flatMap((port) =>
      linksAt(plan, port)
        .filter(({ to }) => seats.has(to))
        .map(({ to }) => ({ port: plan.port.get(port.id)!, far: plan.port.get(to)! })),
    );
}

const apart = ({ id }: Lag): Remedy => ({
  label: 'No bundle at this end',
  operation: 'unbundle',
  input: { lag: id },
});

const twoBoxes = gearCheck('bundle-two-boxes', function* (plan) {
  for (const lag of plan.lag.values()) {
    const byBox = groupBy(membersOf(plan, lag), ({ far }) => far.device);
    if (byBox.size < 2) continue;
    const ways = [...byBox.values()].sort((a, b) => b.length - a.length);
    const names = ways.map(([one]) => plan.device.get(one!.far.device)!.name);
    const others = ways.slice(1).flat();
    yield {
      severity: 'stop',
      on: { table: 'lag', id: lag.id },
      also: others.map(({ port }) => onPort(port)),
      what: `${lag.name} of ${plan.device.get(lag.device)!.name} leads to ${names.join(' and ')}`,
      because: lag.lacp
        ? `LACP bundles links to one box only (IEEE 802.1AX): those to ${names[0]} or those to ${names.slice(1).join(', ')} are used, never both.`
        : `Each conversation goes over one of the links, to ${names.join(' or ')} by chance: what is behind the other one does not get it.`,
      // A bundle at the other end would be left alone.
      remedies: ways.flat().some(({ far }) => far.lag !== null)
        ? []
        : [
            {
              label: `Take ${portsTitle(
                plan,
                others.map(({ port }) => port),
              )} out of it`,
              operation: 'leaveBundle',
              input: { ports: others.map(({ port }) => port.id) },
            },
          ],
    };
  }
});

const carriesLike = (a: Port, b: Port): boolean =>
  a.untagged === b.untagged &&
  a.pvid === b.pvid &&
  a.taggedMode === b.taggedMode &&
  a.tagged.length === b.tagged.length &&
  a.tagged.every((id) => b.tagged.includes(id));

const oneEnd = gearCheck('bundle-one-end', function* (plan) {
  for (const lag of plan.lag.values()) {
    const members = membersOf(plan, lag);
    const [first] = members;
    if (!first || members.some(({ far }) => far.device !== first.far.device)) continue;
    if (members.every(({ far }) => far.lag !== null && far.lag === first.far.lag)) continue;
    const loose = members.filter(({ far }) => far.lag === null).map(({ far }) => far);
    const own = plan.device.get(lag.device)!.name;
    const other = plan.device.get(first.far.device)!.name;
    const whole = members.length > 1 && loose.length === members.length;
    const able =
      boxOf(plan, first.far.device)!.vlanAware && loose.every((port) => carriesLike(port, first.port));
    yield {
      severity: lag.lacp ? 'fix' : 'stop',
      on: { table: 'lag', id: lag.id },
      also: members.flatMap(({ port, far }) => [port, far]).map(onPort),
      what: `${portsTitle(
        plan,
        members.map(({ port }) => port),
      )} are bundled at ${own} only`,
      because: lag.lacp
        ? `${other} answers no LACP there, so each link is one of its own: spanning tree blocks all but one, and without it frames go round.`
        : `${own} takes its links for one and ${other} does not: broadcasts come back twice, and ${other} sees every address jump from port to port.`,
      remedies: [
        ...(whole && able
          ? [
              {
                label: `Bundle ${portsTitle(plan, loose)} too`,
                operation: 'bundlePorts',
                input: { ports: loose.map(({ id }) => id), lacp: lag.lacp },
              } satisfies Remedy,
            ]
          : []),
        apart(lag),
      ],
    };
  }
});

const modes = gearCheck('bundle-modes', function* (plan) {
  for (const lag of plan.lag.values()) {
    const [first] = membersOf(plan, lag);
    const far = first && plan.lag.get(first.far.lag ?? '');
    // Told once, at the end that waits for what never comes.
    if (!far || !lag.lacp || far.lacp) continue;
    const [own, other] = [lag, far].map(({ device }) => plan.device.get(device)!.name);
    const mended = withRecord(plan, 'lag', far.id, { ...far, lacp: true });
    yield {
      severity: 'stop',
      on: { table: 'lag', id: lag.id },
      also: [{ table: 'lag', id: far.id }],
      what: `${own} bundles by LACP, ${other} without`,
      because: `${own} hears no LACP and keeps its links apart or shut; ${other} sends over all of them all the same, and part of it is lost.`,
      // Where other links lead round, what stands aside is all that keeps the first broadcast from it.
      remedies: hasLoop(mended)
        ? []
        : [
            {
              label: 'LACP at both ends',
              operation: 'edit',
              input: { table: 'lag', id: far.id, set: { lacp: true }, seen: { lacp: false } },
            },
          ],
    };
  }
});

/** Open ports of a box that lead to the same box without spanning trees, or to the box itself, and are no bundle. */
const goesBack = ({ a, b }: { readonly a: WiredPort; readonly b: WiredPort }): boolean =>
  [a, b].every(
    ({ enabled, defective, role }) => enabled && !defective && role !== 'parked' && role !== 'uplink',
  );

const toItself = gearCheck('cable-to-itself', function* (plan) {
  for (const { link, a, b } of boxLinks(plan)) {
    if (a.device !== b.device || !goesBack({ a, b })) continue;
    yield {
      severity: 'fix',
      on: { table: 'cable', id: link.cables[0]! },
      also: [a, b].map(onPort),
      what: `A cable leads from ${portTitle(plan, a)} back to ${portTitle(plan, b)}`,
      because:
        'It is of no use. A spanning tree blocks one end; where none runs, or is switched off one day, the first broadcast goes round for ever.',
      remedies: takenOut(link),
    };
  }
});

const twiceToPlain = gearCheck('plain-switch-twice', function* (plan) {
  const { bridges, seats } = fabric(plan);
  const isPlain = (port: WiredPort) => !bridges[seats.get(port.id)!.bridge]!.box.vlanAware;
  const pairs = groupBy(
    boxLinks(plan).filter(
      ({ a, b }) => a.device !== b.device && goesBack({ a, b }) && (isPlain(a) || isPlain(b)),
    ),
    ({ a, b }) => [a.device, b.device].sort().join(' '),
  );
  for (const [first, ...others] of pairs.values()) {
    if (others.length === 0) continue;
    const plain = isPlain(first!.a) ? first!.a.device : first!.b.device;
    const other = first!.a.device === plain ? first!.b.device : first!.a.device;
    const { name } = plan.device.get(plain)!;
    const boxName = plan.device.get(other)!.name;
    const opens = settingsOf(plan, boxOf(plan, other)!).mode !== 'none';
    const passes = boxOf(plan, plain)!.passes.includes('bpdu');
    const last = others.at(-1)!.link.cables;
    yield {
      severity: opens && passes ? 'fix' : 'stop',
      on: { table: 'cable', id: first!.link.cables[0]! },
      also: [first!, ...others].flatMap(({ a, b }) => [a, b]).map(onPort),
      what: `${others.length + 1} cables join ${name} and ${boxName}`,
      because: !opens
        ? `${boxName} runs no spanning tree, and ${name} knows none: the first broadcast goes round for ever.`
        : passes
          ? `${boxName} hears itself over ${name} and blocks all but one: the others carry nothing.`
          : `${name} swallows the messages of spanning trees, so ${boxName} does not see the loop: the first broadcast goes round for ever.`,
      remedies:
        others.length === 1 && last.length === 1
          ? [
              {
                label: `Take out the one at ${portTitle(plan, others[0]!.a)}`,
                operation: 'disconnect',
                input: { cable: last[0]! },
              },
            ]
          : [],
    };
  }
});

export const bundleChecks = [twoBoxes, oneEnd, modes, toItself, twiceToPlain];
