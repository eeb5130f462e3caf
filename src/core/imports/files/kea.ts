import * as z from 'zod';
import { Refusal, decoded } from '../../plan';
import { type FoundFile, type LeftOut, addressTable, filled, rangeTable } from './read-file';

/** A configuration of Kea, as its DHCPv4 server reads it: subnets, pools and reservations. */

const option = z.looseObject({
  name: z.string().optional(),
  code: z.number().optional(),
  data: z.string().optional(),
});
const reservation = z.looseObject({
  'hw-address': z.string().optional(),
  'ip-address': z.string().optional(),
  hostname: z.string().optional(),
});
const subnet = z.looseObject({
  subnet: z.string(),
  'user-context': z.looseObject({ comment: z.string().optional(), name: z.string().optional() }).optional(),
  'valid-lifetime': z.number().optional(),
  pools: z.array(z.looseObject({ pool: z.string() })).default([]),
  'option-data': z.array(option).default([]),
  reservations: z.array(reservation).default([]),
});
const config = z.looseObject({
  Dhcp4: z.looseObject({
    'valid-lifetime': z.number().optional(),
    subnet4: z.array(subnet).default([]),
    'shared-networks': z.array(z.looseObject({ subnet4: z.array(subnet).default([]) })).default([]),
    reservations: z.array(reservation).default([]),
  }),
});

/** Only whole lines are taken for comments; Kea itself writes none. */
const withoutComments = (text: string): string => text.replace(/^\s*(#|\/\/).*$/gm, '');

const READ: ReadonlySet<string> = new Set(['subnet4', 'shared-networks', 'reservations', 'valid-lifetime']);

export function readKea(text: string): FoundFile {
  let json: unknown;
  try {
    json = JSON.parse(withoutComments(text));
  } catch (error) {
    throw new Refusal('bad-input', `The file is no JSON: ${(error as Error).message}.`);
  }
  const read = decoded(config, json);
  if ('wrong' in read) {
    const { path, message } = read.wrong;
    throw new Refusal(
      'bad-input',
      `The file is no configuration of Kea: ${path.join('.') || 'it'}: ${message}.`,
    );
  }
  const { Dhcp4: four } = read.value;
  const all = [...four.subnet4, ...four['shared-networks'].flatMap(({ subnet4 }) => subnet4)];
  const routerOf = (one: z.output<typeof subnet>) =>
    one['option-data'].find(({ name, code }) => name === 'routers' || code === 3)?.data ?? '';
  const leftOut: LeftOut[] = [];
  const rowOf = (one: z.output<typeof reservation>): string[][] => {
    const { 'hw-address': mac, 'ip-address': address, hostname = '' } = one;
    if (mac && address) return [[hostname.split('.')[0]!, address, mac, 'reservation', '']];
    leftOut.push({ line: null, text: `reservation ${JSON.stringify(one).slice(0, 110)}` });
    return [];
  };
  const hosts = [...four.reservations, ...all.flatMap(({ reservations }) => reservations)].flatMap(rowOf);
  const ranges = all.flatMap((one) =>
    one.pools.map(({ pool }) => [pool, String(one['valid-lifetime'] ?? four['valid-lifetime'] ?? '')]),
  );
  for (const name of Object.keys(four)) if (!READ.has(name)) leftOut.push({ line: null, text: name });
  return {
    what: 'a configuration of Kea',
    tables: filled([
      {
        kind: 'segments',
        title: 'networks',
        cells: [
          ['network', 'gateway', 'name'],
          ...all.map((one) => [
            one.subnet,
            routerOf(one).split(',')[0]!,
            one['user-context']?.name ?? one['user-context']?.comment ?? '',
          ]),
        ],
      },
      rangeTable(ranges),
      addressTable(hosts),
    ]),
    leftOut,
  };
}
