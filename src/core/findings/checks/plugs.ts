import { type Plan, type Port, type Remedy, boxOf, portTitle } from '../../plan';
import { cablesAt, classAsked, freePorts, isPassive, powerOf, reservedFor } from '../../model/wiring';

/** Another socket for a plug. */

const isSetApart = (plan: Plan, { id }: Port): boolean =>
  plan.portGuard.by('port', id).length + plan.stpPort.by('port', id).length > 0;

/**
 * Moves the plug of a device to a free port of the same box that gives more, the plan of the port with it. Nothing where a
 * port has guards, tree settings or a bundle of its own, for these stay behind, nor where the free port is planned for something.
 */
export function inAnotherSocket(
  plan: Plan,
  source: Port,
  plugged: Port,
  wanted: { readonly poeClass?: number; readonly speed?: number },
): Remedy[] {
  const cable = cablesAt(plan, { port: source.id, side: 'front' })[0];
  if (!cable || (cable.from !== plugged.id && cable.to !== plugged.id)) return [];
  if (isPassive(plan.device.get(source.device)!.kind) || source.lag !== null || isSetApart(plan, source))
    return [];
  const { left } = powerOf(plan, source.device);
  const given = classAsked(plan, source);
  const room = left === null ? null : left + (given === null ? 0 : reservedFor(given));
  // A box with power to give asks for none.
  const asked = boxOf(plan, plugged.device)?.poeBudget == null ? (wanted.poeClass ?? plugged.poeClass) : null;
  const fits = (port: Port) =>
    port.media === source.media &&
    port.enabled === source.enabled &&
    (port.role === 'undecided' || port.role === 'parked') &&
    port.label === '' &&
    port.lag === null &&
    (source.exposed || !port.exposed) &&
    port.speed >= (wanted.speed ?? source.speed) &&
    (asked === null || ((port.poeClass ?? 0) >= asked && (room === null || reservedFor(asked) <= room))) &&
    !isSetApart(plan, port);
  const found = freePorts(plan, source.device).find(fits);
  if (!found) return [];
  return [
    {
      label: `Plug it into ${portTitle(plan, found)}`,
      operation: 'movePlug',
      input: {
        cable: cable.id,
        end: cable.from === source.id ? 'from' : 'to',
        port: found.id,
        withPlan: true,
      },
    },
  ];
}
