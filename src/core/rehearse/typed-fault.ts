import { boxOf, type Plan, badInput, portTitle } from '../plan';
import { deviceMeant, deviceTyped } from '../model/hosts';
import { portsOf } from '../model/wiring';
import { uplinksOf } from '../model/uplink';
import type { Fault } from './faults';

/** Faults as people type them. */

/** A fault as typed; a refusal names what is not there. */
export function typedFault(plan: Plan, kind: Fault['kind'], text: string, to: string): Fault {
  const port = (typed: string, field: string) => {
    const [, name, number] = /^(.+?)\s+(\d{1,3})$/.exec(typed.trim()) ?? [];
    const device = deviceMeant(plan, name ?? typed, field, ({ id }) => portsOf(plan, id).length > 0);
    const found = device && portsOf(plan, device.id).find((item) => item.number === Number(number ?? 1));
    if (!found)
      throw badInput(`“${typed.trim()}” is no port here; write one like sw-a 7, or a device’s name.`, field);
    return found;
  };
  const cableAt = (id: string, typed: string) => {
    const cable = [...plan.cable.values()].find((item) => item.from === id || item.to === id);
    if (!cable) throw badInput(`No cable is in ${typed.trim()}; name a port with one.`, 'what');
    return cable.id;
  };
  switch (kind) {
    case 'box': {
      const device = deviceMeant(plan, text, 'what', ({ id }) => boxOf(plan, id) !== undefined);
      if (device && boxOf(plan, device.id)) return { kind, device: device.id };
      throw badInput(
        `“${text.trim()}” is no box here; write the name of a switch, a gateway or a panel.`,
        'what',
      );
    }
    case 'taken': {
      const device = deviceMeant(plan, text, 'what');
      if (device) return { kind, device: device.id };
      throw badInput(`“${text.trim()}” is no device here; write the name of a box or a device.`, 'what');
    }
    case 'uplink': {
      const uplink = uplinksOf(plan).find(({ name }) => name.toLowerCase() === text.trim().toLowerCase());
      if (uplink) return { kind, uplink: uplink.id };
      throw badInput(
        `“${text.trim()}” is no uplink here; there are ${
          uplinksOf(plan)
            .map(({ name }) => name)
            .join(', ') || 'none'
        }.`,
        'what',
      );
    }
    case 'cable': {
      if (text.includes('=')) {
        const ends = text.split('=').map((end) => port(end, 'what').id);
        const cable = [...plan.cable.values()].find(
          ({ from, to }) => ends.includes(from) && ends.includes(to),
        );
        if (cable) return { kind, cable: cable.id };
        throw badInput(`There is no cable ${text.trim()}; name one of its ends, like sw-a 7.`, 'what');
      }
      return { kind, cable: cableAt(port(text, 'what').id, text) };
    }
    case 'plug': {
      const from = port(text, 'what');
      return { kind, cable: cableAt(from.id, text), from: from.id, to: port(to, 'to').id };
    }
  }
}

/** What a person could mean, for the list beside the field. */
export function faultNames(plan: Plan, kind: Fault['kind']): string[] {
  if (kind === 'uplink') return uplinksOf(plan).map(({ name }) => name);
  if (kind === 'taken') return [...plan.device.values()].map((device) => deviceTyped(plan, device)).sort();
  if (kind === 'box')
    return [...plan.box.values()].map(({ device }) => deviceTyped(plan, plan.device.get(device)!)).sort();
  return [...plan.cable.values()].flatMap(({ from, to }) =>
    [from, to].map((id) => portTitle(plan, plan.port.get(id)!)),
  );
}
