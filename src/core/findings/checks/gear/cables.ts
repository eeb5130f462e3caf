import { portsTitle, reservedFor, cablesAt, linksOf } from '../../../model/wiring';
import { groupBy, type Plan, withRecord, type Port, portTitle, boxOf } from '../../../plan';
import { boxLinks } from '../../../model/switching';
import { gearCheck, ref } from './shared';
import { cutVlans } from './ways';

/** Cables, and the power that runs over them. */

/** Could a cable go without cutting a segment that is whole now? */
function spare(plan: Plan, cable: string): boolean {
  const before = cutVlans(plan);
  return [...cutVlans(withRecord(plan, 'cable', cable, null))].every((vlan) => before.has(vlan));
}

const twoCables = gearCheck('two-cables', function* (plan) {
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
});

const COPPER_LIMIT = 100;
const cableFit = gearCheck('cable-unfit', function* (plan) {
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
});

const parallelLinks = gearCheck('links-unbundled', function* (plan) {
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
});

const notPowered = gearCheck('not-powered', function* (plan) {
  const links = linksOf(plan);
  for (const port of plan.port.values()) {
    if (port.poeClass === null || boxOf(plan, port.device)?.poeBudget != null) continue;
    const sources = (links.get(port.id) ?? []).map((link) => plan.port.get(link.to)!);
    if (sources.length === 0 || sources.some((source) => (source.poeClass ?? 0) >= port.poeClass!)) continue;
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
});

export const cableChecks = [twoCables, cableFit, parallelLinks, notPowered];
