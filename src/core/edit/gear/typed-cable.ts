import { type Plan, badInput } from '../../plan';
import { deviceMeant } from '../../model/hosts';
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

/** So many cables in one line. */
const MOST = 200;

/** The ends a line names: `sw-a 1-4,7` five ports, `phone-01..12` twelve devices, anything else one end. */
function endsIn(text: string): string[] {
  const ports = /^(.+?)\s+(\d{1,3}(?:\s*[-–,]\s*\d{1,3})+)(\s+(?:front|rear))?$/i.exec(text);
  if (ports) {
    const [, box, list, side = ''] = ports;
    return list!.split(',').flatMap((part) => {
      const [from, to = from] = part.split(/[-–]/).map(Number) as [number, number?];
      return countUp(from, to, text).map((number) => `${box} ${number}${side}`);
    });
  }
  const devices = /^(.*?)(\d+)\s*\.\.\s*(\d+)$/.exec(text);
  if (!devices) return [text];
  const [, stem, first, last] = devices;
  return countUp(Number(first), Number(last), text).map(
    (number) => `${stem}${String(number).padStart(first!.length, '0')}`,
  );
}

function countUp(from: number, to: number, text: string): number[] {
  if (to < from) throw badInput(`“${text}” runs backwards; write ${to} first.`, 'line');
  if (to - from >= MOST) throw badInput(`“${text}” are more than ${MOST} ends; write fewer at once.`, 'line');
  return Array.from({ length: to - from + 1 }, (_, i) => from + i);
}

/**
 * Reads cables laid at once, one to one in the order of both sides: `sw-a 1-12 = phone-01..12`, `sw-a 1-4,7 = sw-b 9-13`.
 * Refuses with the part that is wrong.
 */
export function typedCables(plan: Plan, text: string): { from: EndInput; to: EndInput }[] {
  const sides = text.split('=').map((side) => side.trim());
  if (sides.length !== 2) return [typedCable(plan, text)];
  const [from, to] = sides.map(endsIn) as [string[], string[]];
  if (from.length !== to.length)
    throw badInput(
      `“${sides[0]}” ${from.length === 1 ? 'is one end' : `are ${from.length} ends`} and “${sides[1]}” ${to.length === 1 ? 'is one' : `are ${to.length}`}; name as many on both sides.`,
      'line',
    );
  return from.map((end, i) => typedCable(plan, `${end} = ${to[i]}`));
}

/** Reads one end of a cable: `sw-a 25`, `panel 7 rear`, `camera`. */
export function endIn(plan: Plan, text: string): EndInput {
  // What was pasted may have several lines; it is named as a whole then.
  const match = /^(.+?)(?:\s+(\d{1,3}))?(?:\s+(front|rear))?$/is.exec(text);
  const [, name = text, number, side] = match ?? [];
  const device = deviceMeant(plan, name, 'line');
  if (!device)
    throw badInput(`There is no device “${name.trim()}”; write its name as it stands in the plan.`, 'line');
  return {
    device: device.id,
    number: number === undefined ? null : Number(number),
    side: side?.toLowerCase() === 'rear' ? 'rear' : 'front',
  };
}
