import * as z from 'zod';
import { removeRecord, type Draft, operation, type Port, badInput, portTitle } from '../../plan';
import { portsOf, portsTitle, type Carried, carriedOf, trunk } from '../../model/wiring';

const members = z.array(z.string()).min(2, 'A bundle needs two ports.');

/** Makes ports of one box into one logical port that carries one thing (IEEE 802.1AX when LACP). */
function makeBundle(
  draft: Draft,
  ids: readonly string[],
  lacp: boolean,
  carried: (ports: Port[]) => Carried,
): string {
  const ports = ids.map((id) => draft.need('port', id));
  const [first] = ports;
  const other = ports.find((port) => port.device !== first!.device);
  if (other)
    throw badInput(
      `${portsTitle(draft.plan, [first!, other])} are on two boxes; a bundle is on one.`,
      'ports',
    );
  const bundled = ports.find((port) => port.lag !== null);
  if (bundled) throw badInput(`${portTitle(draft.plan, bundled)} is in a bundle already.`, 'ports');
  const name = `bundle-${draft.plan.lag.group(first!.device).size + 1}`;
  const bundle = draft.insert('lag', { device: first!.device, name, lacp });
  for (const port of ports)
    draft.update('port', port.id, { ...carried(ports), profile: null, lag: bundle.id });
  return portsTitle(draft.plan, ports);
}

/** Bundles ports; all carry what the first one does. */
export const bundlePorts = operation(
  'bundlePorts',
  z.strictObject({ ports: members, lacp: z.boolean().default(true) }),
  (draft, { ports, lacp }) => `${makeBundle(draft, ports, lacp, ([first]) => carriedOf(first!))}: one bundle`,
);

/** Bundles the links between two boxes at both ends; each bundle carries what any of its links carried. */
export const bundleLinks = operation(
  'bundleLinks',
  z.strictObject({ sides: z.array(members).length(2) }),
  (draft, { sides }) => {
    const all = (ports: Port[]) =>
      trunk(
        ports.flatMap((port) => port.tagged),
        ports[0]!.untagged,
      );
    return `${sides.map((side) => makeBundle(draft, side, true, all)).join(' = ')}: one bundle`;
  },
);

/** Takes ports out of their bundle; where fewer than two would be left, there is none any more. */
export const leaveBundle = operation(
  'leaveBundle',
  z.strictObject({ ports: z.array(z.string()).min(1) }),
  (draft, input) => {
    const ports = input.ports.map((id) => draft.need('port', id));
    const lags = new Set(ports.flatMap(({ lag }) => lag ?? []));
    for (const { id } of ports) draft.update('port', id, { lag: null });
    for (const id of lags) {
      const { device } = draft.need('lag', id);
      const left = portsOf(draft.plan, device).filter(({ lag }) => lag === id);
      if (left.length < 2) removeRecord(draft, { table: 'lag', id });
    }
    return `${portsTitle(draft.plan, ports)}: no longer bundled`;
  },
);

export const unbundle = operation('unbundle', z.strictObject({ lag: z.string() }), (draft, input) => {
  const bundle = draft.need('lag', input.lag);
  const ports = portsOf(draft.plan, bundle.device).filter((port) => port.lag === bundle.id);
  removeRecord(draft, { table: 'lag', id: bundle.id });
  return `${portsTitle(draft.plan, ports)}: no longer bundled`;
});
