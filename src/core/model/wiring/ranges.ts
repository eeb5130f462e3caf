import { type Plan, type Port, portTitle, Refusal } from '../../plan';

const counted = (n: number, what: string) => `${n} ${what}${n === 1 ? '' : 's'}`;

/**
 * Reads port numbers as people write them: `1-4,9,12`. Refuses with the part that is wrong, and with the numbers that
 * no port has. `ports` are those of one box; the result is in the order of the numbers.
 */
export function portsIn(text: string, ports: readonly Port[]): Port[] {
  const outer = ports.filter((port) => port.number > 0);
  const byNumber = new Map(outer.map((port) => [port.number, port]));
  const last = Math.max(0, ...byNumber.keys());
  const wanted = new Set<number>();
  for (const part of text.split(',')) {
    const match = /^\s*(\d{1,3})\s*(?:[-–]\s*(\d{1,3})\s*)?$/.exec(part);
    if (!match)
      throw new Refusal(
        'bad-input',
        `“${part.trim()}” in “${text}” is not a port or a range; write numbers like 1-4,9,12.`,
        [],
        ['ports'],
      );
    const from = Number(match[1]);
    const to = match[2] === undefined ? from : Number(match[2]);
    if (to < from)
      throw new Refusal('bad-input', `“${part.trim()}” runs backwards; write ${to}-${from}.`, [], ['ports']);
    for (let number = from; number <= to; number++) {
      if (!byNumber.has(number))
        throw new Refusal(
          'bad-input',
          `There is no port ${number}; this box has ${last === 0 ? 'none' : `ports 1–${last}`}.`,
          [],
          ['ports'],
        );
      wanted.add(number);
    }
  }
  return [...wanted].sort((a, b) => a - b).map((number) => byNumber.get(number)!);
}

/** Numbers as a person writes them: 1-4, 9, 12. */
export function rangeText(ports: readonly Pick<Port, 'number'>[]): string {
  const numbers = ports.map((port) => port.number).sort((a, b) => a - b);
  const runs: [number, number][] = [];
  for (const number of numbers) {
    const run = runs.at(-1);
    if (run && number === run[1] + 1) run[1] = number;
    else runs.push([number, number]);
  }
  return runs.map(([from, to]) => (from === to ? `${from}` : `${from}-${to}`)).join(', ');
}

/** What a choice of ports means, in words: "6 ports, none of the fibre ones". */
export function describePorts(chosen: readonly Port[], all: readonly Port[]): string {
  const parts = [counted(chosen.length, 'port')];
  const fibre = all.filter((port) => port.media === 'fibre').length;
  const chosenFibre = chosen.filter((port) => port.media === 'fibre').length;
  if (fibre > 0)
    parts.push(
      chosenFibre === 0
        ? 'none of the fibre ones'
        : chosenFibre === chosen.length
          ? 'all fibre'
          : `${chosenFibre} of them fibre`,
    );
  const powered = chosen.filter((port) => port.poeClass !== null).length;
  if (powered > 0) parts.push(powered === chosen.length ? 'with PoE' : `${powered} with PoE`);
  const defective = chosen.filter((port) => port.defective).length;
  if (defective > 0) parts.push(`${defective} defective`);
  return parts.join(', ');
}

/**
 * Fills a pattern with a port number: `ge{n}` gives ge7, `{24-n}` counts backwards, `{n-1}` from zero, `{n+100}` from
 * an offset. Null when the pattern has a brace that is none of these.
 */
export function fillPattern(pattern: string, number: number): string | null {
  let wrong = false;
  const filled = pattern.replace(/\{([^}]*)\}/g, (_, inner: string) => {
    const match = /^\s*(?:n(?:\s*([+-])\s*(\d+))?|(\d+)\s*-\s*n)\s*$/.exec(inner);
    if (!match) {
      wrong = true;
      return '';
    }
    const value =
      match[3] !== undefined
        ? Number(match[3]) - number
        : number + (match[1] === '-' ? -1 : 1) * Number(match[2] ?? 0);
    if (value < 0) wrong = true;
    return String(value);
  });
  return wrong || /[{}]/.test(filled) ? null : filled;
}

/** Names ports of one or several devices: SW-A 5-7, SW-B 2. */
export function portsTitle(plan: Plan, ports: readonly Pick<Port, 'device' | 'number'>[]): string {
  if (ports.length === 1) return portTitle(plan, ports[0]!);
  const devices = [...new Set(ports.map((port) => port.device))];
  return devices
    .map(
      (device) =>
        `${plan.device.get(device)!.name} ${rangeText(ports.filter((port) => port.device === device))}`,
    )
    .join(', ');
}
