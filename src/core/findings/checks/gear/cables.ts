import {
  type CableEnd,
  type Link,
  fabricOf,
  portsTitle,
  reservedFor,
  cablesAt,
  linksAt,
  linksOf,
} from '../../../model/wiring';
import {
  type Plan,
  type Port,
  boxOf,
  derive,
  deriveBy,
  groupBy,
  plainVlansOf,
  portTitle,
  withRecord,
} from '../../../plan';
import { boxLinks } from '../../../model/switching';
import type { Report } from '../../finding';
import { inAnotherSocket } from '../plugs';
import { onPort } from '../refs';
import { boxCheck, gearCheck } from './shared';
import { isCut } from './ways';

/** Cables, and the power that runs over them. */

/** The ports of boxes that pass frames on. */
const seatsOf = derive((plan) => fabricOf(plan).seats);

/** Could a cable go without cutting a segment that is whole now? */
function spare(plan: Plan, cable: string): boolean {
  const without = withRecord(plan, 'cable', cable, null);
  return plainVlansOf(plan).every(({ id }) => isCut(plan, id) || !isCut(without, id));
}

/** Ends into which more than one cable is plugged. */
const crowdedEnds = derive((plan): readonly CableEnd[] =>
  plan.cable.shared('end').map((key) => {
    const [port, side] = key.split(' ') as [string, CableEnd['side']];
    return { port, side };
  }),
);

const twoCables = gearCheck('two-cables', function* (plan) {
  for (const end of crowdedEnds(plan)) {
    const port = plan.port.get(end.port)!;
    const [first, ...others] = cablesAt(plan, end);
    if (!first || others.length === 0) continue;
    const far = (cable: { from: string; to: string }) =>
      portTitle(plan, plan.port.get(cable.from === port.id ? cable.to : cable.from)!);
    yield {
      severity: 'stop',
      on: onPort(port),
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
});

const COPPER_LIMIT = 100;
/** What is wrong with the cables of a link, if anything is. */
function* unfit(plan: Plan, link: Link): Generator<Report> {
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
  if (light && a.speed !== b.speed) parts.push(`fibre ends of ${a.speed} and ${b.speed} Mbit/s do not meet`);
  if (a.optic !== '' && b.optic !== '' && a.optic !== b.optic)
    parts.push(`the optics are “${a.optic}” and “${b.optic}”`);
  const modes = new Set(cables.map((cable) => cable.media).filter((medium) => medium.endsWith('mode')));
  if (modes.size > 1) parts.push('multi-mode and single-mode fibre are joined on the way');
  if (parts.length === 0) return;
  yield {
    severity: 'fix',
    on: { table: 'cable', id: link.cables[0]! },
    also: ends.map(onPort),
    what: `The cable ${ends.map((port) => portTitle(plan, port)).join(' = ')} does not fit`,
    because: `${parts.join('; ')}.`,
  };
}

/** Links by the box they are looked at from: between two boxes once, from the end that comes first. */
const linksFrom = deriveBy((plan, device: string): readonly Link[] => {
  const seats = seatsOf(plan);
  const seen = new Set<string>();
  return [...plan.port.group(device).keys()].sort().flatMap((id) =>
    linksAt(plan, { id, device }).filter((link) => {
      const own = !seats.has(link.to) || link.from < link.to;
      const key = `${link.from} ${link.to}`;
      if (!own || seen.has(key)) return false;
      seen.add(key);
      return true;
    }),
  );
});
const cableFit = boxCheck('cable-unfit', function* (plan, { device }) {
  for (const link of linksFrom(plan, device.id)) yield* unfit(plan, link);
});

/** Links of which neither end is a box that passes frames on. */
const linksBeside = derive((plan): readonly Link[] => {
  const found = new Map<string, Link>();
  const seats = seatsOf(plan);
  for (const list of linksOf(plan).values())
    for (const link of list) {
      if (link.from > link.to || seats.has(link.from) || seats.has(link.to)) continue;
      const key = `${link.from} ${link.to}`;
      if (!found.has(key)) found.set(key, link);
    }
  return [...found.values()];
});
const cableFitBeside = gearCheck('cable-unfit', function* (plan) {
  for (const link of linksBeside(plan)) yield* unfit(plan, link);
});

const parallelLinks = gearCheck('links-unbundled', function* (plan) {
  const pairs = groupBy(
    boxLinks(plan).filter(
      ({ a, b }) => a.device !== b.device && [a, b].every((port) => port.role === 'trunk'),
    ),
    ({ a, b }) => [a.device, b.device].sort().join(' '),
  );
  for (const links of pairs.values()) {
    const loose = links.filter(({ a, b }) => a.lag === null || b.lag === null);
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
            port.lag === null &&
            linksAt(plan, port).length === 1 &&
            port.taggedMode === 'list' &&
            port.untagged === ports[0]!.untagged &&
            port.pvid === port.untagged,
        ),
    );
    yield {
      severity: 'note',
      on: { table: 'cable', id: links[0]!.link.cables[0]! },
      also: sides.flat().map(onPort),
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
});

/** Ports with a class, of devices that power nobody. */
const asking = derive((plan): readonly string[] =>
  plan.port
    .by('power', 'asked')
    .filter(({ device }) => boxOf(plan, device)?.poeBudget == null)
    .map(({ id }) => id),
);

const notPowered = gearCheck('not-powered', function* (plan) {
  for (const id of asking(plan)) {
    const port = plan.port.get(id)!;
    const sources = linksAt(plan, port).map((link) => plan.port.get(link.to)!);
    if (sources.length === 0 || sources.some((source) => (source.poeClass ?? 0) >= port.poeClass!)) continue;
    const [source] = sources;
    const gives = source!.poeClass === null ? 'no power' : `class ${source!.poeClass}`;
    const device = plan.device.get(port.device)!;
    yield {
      severity: 'fix',
      on: onPort(port),
      also: [onPort(source!)],
      what: `${device.name} gets too little power`,
      because: `It asks for class ${port.poeClass} (${reservedFor(port.poeClass!)} W); ${portTitle(plan, source!)} gives ${gives}.`,
      remedies: inAnotherSocket(plan, source!, port, { poeClass: port.poeClass! }),
    };
  }
});

export const cableChecks = [twoCables, cableFitBeside, parallelLinks, notPowered];
export const cableBoxChecks = [cableFit];
