import { type Plan, badInput, devicesNamed } from '../../plan';
import type { EndInput } from './cables';

/**
 * Reads a cable as people write it: `SW-A 25 = SW-B 9`. A panel's port may be followed by `front` or `rear`; a device
 * with one socket needs no number. Refuses with the part that is wrong.
 */
export function typedCable(plan: Plan, text: string): { from: EndInput; to: EndInput } {
  const ends = text.split('=');
  if (ends.length !== 2 || ends.some((end) => end.trim() === ''))
    throw badInput(`“${text.trim()}” has no two ends; write a cable like SW-A 25 = SW-B 9.`, 'line');
  const [from, to] = ends.map((end) => endIn(plan, end.trim()));
  return { from: from!, to: to! };
}

/** Reads one end of a cable: `sw-a 25`, `panel 7 rear`, `camera`. */
export function endIn(plan: Plan, text: string): EndInput {
  const match = /^(.+?)(?:\s+(\d{1,3}))?(?:\s+(front|rear))?$/i.exec(text)!;
  const [, name, number, side] = match;
  const [device, other] = devicesNamed(plan, name!.trim());
  if (!device)
    throw badInput(`There is no device “${name!.trim()}”; write its name as it stands in the plan.`, 'line');
  if (other) throw badInput(`Two devices are called “${name!.trim()}”; rename one of them first.`, 'line');
  return {
    device: device.id,
    number: number === undefined ? null : Number(number),
    side: side?.toLowerCase() === 'rear' ? 'rear' : 'front',
  };
}
