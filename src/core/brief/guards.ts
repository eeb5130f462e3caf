import { factoryPortGuards, noVlanGuards } from '../model/guards';
import { factoryStpPort } from '../model/tree';
import { ownVlans } from './carried';
import { type NetworkInput, type Written, managementOf } from './network';
import { placeOf } from './gather';
import { CORE, type Decision, GATEWAY } from './design';

const isAbove = (box: string): boolean => box === GATEWAY || box === CORE;

/** Who is let in at a port: answers of DHCP only from above, and in places open to strangers one device to a port. */
export function writeGuards(input: NetworkInput, written: Written): readonly Decision[] {
  const { draft, brief, hardware } = input;
  if (brief.choice.separation === 'flat') return [];
  const management = managementOf(input.segments).vlan.id;
  const portAt = (box: string, number: number) => written.ports.get(box)!.get(number)!;
  const leases = new Set(
    [...draft.plan.pool.values()].map(({ subnet }) => draft.need('subnet', subnet).vlan),
  );
  // Where IPv6 is routed, the router has to be heard.
  const hasRouters = [...draft.plan.subnet.values()].some(
    ({ prefix, advertised }) => advertised && typeof prefix.address === 'bigint',
  );
  let exposed = 0;
  for (const design of hardware.switches) {
    if (!design.model.snooping) continue;
    const device = written.devices.get(design.key)!;
    const guarded = [...ownVlans(input, design)].filter((vlan) => vlan !== management && leases.has(vlan));
    for (const vlan of guarded)
      draft.under('guards', `guard ${vlan} ${design.key}`, () =>
        draft.insert('vlanGuard', {
          ...noVlanGuards,
          device: device.id,
          vlan,
          snooping: true,
          raGuard: true,
        }),
      );
    // Into the first switch they come from whoever routes, whichever way a ring turns.
    const first = hardware.links.filter(({ from, to }) => isAbove(from.box) && to.box === design.key);
    const above =
      first.length > 0
        ? first.map(({ to }) => to.port)
        : hardware.links.flatMap(({ from, to, ring }) => [
            ...(to.box === design.key ? [to.port] : []),
            ...(ring && from.box === design.key ? [from.port] : []),
          ]);
    for (const number of guarded.length > 0 ? above : [])
      draft.under('guards', `trust ${number} ${design.key}`, () =>
        draft.insert('portGuard', {
          ...factoryPortGuards,
          port: portAt(design.key, number).id,
          trustsDhcp: true,
          trustsRouters: hasRouters,
        }),
      );
    for (const [number, { for: who }] of design.plugged) {
      if (!who || !('need' in who) || !placeOf(brief, who.need).strangers) continue;
      exposed++;
      const port = portAt(design.key, number).id;
      draft.under('guards', `limit ${who.need.id} ${who.number}`, () =>
        draft.insert('portGuard', { ...factoryPortGuards, port, macLimit: 1 }),
      );
      if (design.model.spanningTree !== 'none')
        draft.under('guards', `edge ${who.need.id} ${who.number}`, () =>
          draft.insert('stpPort', { ...factoryStpPort, port, instance: 0, edge: true, guard: 'bpdu' }),
        );
    }
  }
  return [
    {
      what: 'DHCP is heard from above only, router advertisements nowhere',
      why: 'a second DHCP server or an IPv6 router plugged in anywhere is not heard',
    },
    ...(exposed > 0
      ? [
          {
            what: `${exposed} ports open to strangers take one device each`,
            why: 'a switch or another box plugged in there is shut out',
          },
        ]
      : []),
  ];
}
