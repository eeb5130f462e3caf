import { type Draft, type Cable, portTitle, recordTitle } from '../../plan';
import { boxLinks } from '../../model/switching';
import { type WiredPort, freePorts } from '../../model/wiring';
import type { FaultKind } from '../kind';
import { nearPort, pluggedAt, pluggedIn } from '../places';

/** Faults of cables and plugs. */

const since = 'since somebody tidied up the cables';

/** Puts the plug that is in one port into another. */
export function movePlugTo(draft: Draft, cable: Cable, from: string, to: string): void {
  const end = cable.from === from ? 'from' : 'to';
  draft.update('cable', cable.id, { [end]: to, [`${end}Side`]: 'front' });
}

const carriesOther = (a: WiredPort, b: WiredPort) =>
  a.role !== b.role || a.untagged !== b.untagged || !b.enabled;

const plugMoved: FaultKind = {
  id: 'plug-moved',
  level: 1,
  station: 'gear',
  since,
  spots: (plan) =>
    pluggedIn(plan).flatMap(({ port, device, cable }) =>
      freePorts(plan, port.device)
        .filter((free) => carriesOther(port, free))
        .slice(0, 2)
        .map((free) => ({
          told: `The plug of ${device.name} was put into ${portTitle(plan, free)} instead of ${portTitle(plan, port)}.`,
          near: [device.id],
          edit: (draft: Draft) => movePlugTo(draft, cable, port.id, free.id),
        })),
    ),
};

const plugsSwapped: FaultKind = {
  id: 'plugs-swapped',
  level: 2,
  station: 'gear',
  since,
  spots: (plan) =>
    pluggedIn(plan).flatMap((one) => {
      const other = pluggedAt(plan, one.port.device).find(
        ({ port }) => port.id > one.port.id && carriesOther(port, one.port),
      );
      return other
        ? [
            {
              told: `The plugs of ${one.device.name} and ${other.device.name} were swapped: ${portTitle(plan, one.port)} and ${portTitle(plan, other.port)}.`,
              near: [one.device.id, other.device.id],
              edit: (draft: Draft) => {
                movePlugTo(draft, one.cable, one.port.id, other.port.id);
                movePlugTo(draft, other.cable, other.port.id, one.port.id);
              },
            },
          ]
        : [];
    }),
};

const linkOut: FaultKind = {
  id: 'link-out',
  level: 1,
  station: 'gear',
  since,
  spots: (plan) =>
    boxLinks(plan).map(({ link, b }) => {
      const cable = plan.cable.get(link.cables[0]!)!;
      return {
        told: `${recordTitle(plan, 'cable', cable)} was taken out and not put back.`,
        near: nearPort(plan, b),
        edit: (draft) => draft.remove('cable', cable.id),
      };
    }),
};

const linkMoved: FaultKind = {
  id: 'link-moved',
  level: 2,
  station: 'gear',
  since,
  spots: (plan) =>
    boxLinks(plan).flatMap(({ link, a, b }) =>
      [a, b].flatMap((port) => {
        const cable = link.cables
          .map((id) => plan.cable.get(id)!)
          .find(({ from, to }) => from === port.id || to === port.id);
        const free = freePorts(plan, port.device).find((other) => carriesOther(port, other));
        return cable && free
          ? [
              {
                told: `The link in ${portTitle(plan, port)} was put into ${portTitle(plan, free)}, which carries something else.`,
                near: nearPort(plan, b),
                edit: (draft: Draft) => movePlugTo(draft, cable, port.id, free.id),
              },
            ]
          : [];
      }),
    ),
};

export const cableKinds: readonly FaultKind[] = [plugMoved, plugsSwapped, linkOut, linkMoved];
