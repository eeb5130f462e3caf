import { type IpAddress, familyOf, formatAddress, formatPrefix, inRange } from '../../address';
import { type Call, type Interface, type Subnet, addressesOn, devicesNamed } from '../../plan';
import { nameProblem } from '../../model/hosts';
import { holdersOf } from '../../model/routing';
import { purposeDefaults } from '../../model/segments';
import { type FoundRow, type Seen, asPlanned, boxSeenAt, leaseKey, rowOf, subnetHolding } from './row';

/** Which address somebody has, against which they should have. */

/** A server that answers and that no pool of its segment names. */
export function serverRows(seen: Seen): FoundRow[] {
  const { server } = seen.sighting;
  if (server === null) return [];
  const { plan } = seen;
  const holders = holdersOf(plan, server).map(({ interface: id }) => id);
  const planned = new Set([...plan.pool.values()].flatMap(({ servedBy }) => servedBy));
  if (holders.some((id) => planned.has(id))) return [];
  const who = holders[0] ? plan.device.get(plan.interface.get(holders[0])!.device)!.name : 'nobody planned';
  return [
    rowOf(seen, 'second server', {
      found: `${formatAddress(server)} leases addresses`,
      planned: 'no pool is served from there',
      sentence: `A second DHCP server answers: ${formatAddress(server)}, ${who}.`,
      take: null,
      about: null,
    }),
  ];
}

export function addressRows(seen: Seen, cards: readonly Interface[]): FoundRow[] {
  const { plan } = seen;
  const { mac, address } = seen.sighting;
  if (address === null) return [];
  const text = formatAddress(address);
  const subnet = subnetHolding(plan, address);
  if (!subnet)
    return [
      rowOf(seen, 'other network', {
        found: text,
        planned: 'no subnet holds it',
        sentence: `${seen.who} has ${text}, of a network that nobody planned.`,
        take: null,
        about: null,
      }),
    ];
  const holders = holdersOf(plan, address);
  if (seen.list.kind === 'interfaces')
    return ownAddress(
      seen,
      text,
      holders.map(({ interface: id }) => id),
    );
  const own = holders.find(({ interface: id }) => cards.some((card) => card.id === id));
  if (own || (mac === null && holders.length > 0)) {
    const holder = own ?? holders[0]!;
    return [asPlanned(seen, plan.interface.get(holder.interface)!, text)];
  }
  const [card] = cards;
  if (card) return [knownElsewhere(seen, card, address, subnet)];
  const [holder] = holders;
  if (holder && mac !== null) return [otherCard(seen, plan.interface.get(holder.interface)!, mac, text)];
  return [stranger(seen, address, subnet)];
}

/** An address on a box itself. */
function ownAddress(seen: Seen, text: string, holders: readonly string[]): FoundRow[] {
  const { plan } = seen;
  const box = boxSeenAt(seen);
  if (!box) return [];
  const [holder] = holders.map((id) => plan.interface.get(id)!);
  if (holder?.device === box.id) return [asPlanned(seen, holder, text)];
  const other = holder ? plan.device.get(holder.device)!.name : null;
  return [
    rowOf(seen, other ? 'address of another' : 'other address', {
      who: box.name,
      found: `${text} on ${seen.sighting.port}`,
      planned: other ? `${other} has it` : 'not on this box',
      sentence: `${box.name} has ${text} on ${seen.sighting.port}, which is planned for ${other ?? 'nobody'}.`,
      take: null,
      about: { table: 'device', id: box.id },
    }),
  ];
}

const isLeased = ({ list, sighting, leases }: Seen): boolean =>
  list.kind === 'leases' || leases.held.has(leaseKey(sighting));

/** A device of the plan with another address than planned. */
function knownElsewhere(seen: Seen, card: Interface, address: IpAddress, subnet: Subnet): FoundRow {
  const { plan } = seen;
  const device = plan.device.get(card.device)!;
  const own = addressesOn(plan, card.id);
  const planned = own.map((item) => formatAddress(item.address)).join(', ') || 'no address';
  const text = formatAddress(address);
  const here = own.find((item) => item.subnet === subnet.id);
  const home = own.map((item) => plan.subnet.get(item.subnet)!.vlan);
  // Of IPv6 a card gives itself addresses (RFC 4862); what nobody planned a fixed address for is leased one.
  const byItself = familyOf(address) === 6 && home.includes(subnet.vlan);
  if (byItself || (own.length === 0 && isLeased(seen))) return asPlanned(seen, card, text);
  const holder = holdersOf(plan, address)[0];
  const about = { table: 'device', id: device.id } as const;
  if (holder) {
    const other = plan.device.get(plan.interface.get(holder.interface)!.device)!.name;
    return rowOf(seen, 'address of another', {
      who: device.name,
      found: text,
      planned: `${planned}; ${text} is ${other}’s`,
      sentence: `${device.name} has ${text}, which is planned for ${other}.`,
      take: null,
      about,
    });
  }
  if (own.length > 0 && !here)
    return rowOf(seen, 'other segment', {
      who: device.name,
      found: `${text} in ${plan.vlan.get(subnet.vlan)!.name}`,
      planned,
      sentence: `${device.name} has ${text} in ${plan.vlan.get(subnet.vlan)!.name}; planned is ${planned}.`,
      take: null,
      about,
    });
  return rowOf(seen, 'other address', {
    who: device.name,
    found: text,
    planned,
    sentence: `${device.name} has ${text}; planned is ${planned}.`,
    take: here
      ? {
          title: `${device.name}: ${text} instead of ${planned}`,
          call: { operation: 'edit', input: { table: 'address', id: here.id, set: { address: text } } },
        }
      : null,
    about,
  });
}

/** A planned address that another card answers for than the plan knows. */
function otherCard(seen: Seen, card: Interface, mac: string, text: string): FoundRow {
  const device = seen.plan.device.get(card.device)!;
  const take = {
    title: `${device.name}: MAC address ${mac}`,
    call: { operation: 'edit', input: { table: 'interface', id: card.id, set: { mac } } } as Call,
  };
  const about = { table: 'device', id: device.id } as const;
  return card.mac === null
    ? rowOf(seen, 'not recorded', {
        who: device.name,
        found: `${text}, ${mac}`,
        planned: `${text}, no MAC address`,
        sentence: `${device.name} has the MAC address ${mac}, which is not in the plan.`,
        take,
        about,
      })
    : rowOf(seen, 'address of another', {
        found: `${text}, ${mac}`,
        planned: `${device.name}, ${card.mac}`,
        sentence: `${text} is answered by ${mac}; it is planned for ${device.name}, ${card.mac}: somebody else has it, or the device was exchanged.`,
        take,
        about,
      });
}

/** Somebody the plan does not know. */
function stranger(seen: Seen, address: IpAddress, subnet: Subnet): FoundRow {
  const { plan } = seen;
  const { mac, name } = seen.sighting;
  const text = formatAddress(address);
  const pool = [...plan.pool.group(subnet.id).values()].find((item) => inRange(item, address));
  const leased = isLeased(seen);
  const inPool = pool && !leased && seen.leases.of.has(subnet.id);
  const allowed = name !== '' && !nameProblem(name) && devicesNamed(plan, name).length === 0 ? name : '';
  const vlan = plan.vlan.get(subnet.vlan)!;
  return rowOf(seen, inPool ? 'in the pool' : 'unknown', {
    found: `${text}${leased ? ', leased' : ''}`,
    planned: inPool ? `${formatAddress(pool.start)}–${formatAddress(pool.end)} is leased` : 'nobody',
    sentence: inPool
      ? `${seen.who} has set itself ${text}, an address of the pool: it will be leased to somebody else.`
      : `${seen.who} is at ${text} in ${vlan.name} and not in the plan.`,
    take: {
      title: `Add ${allowed || seen.who} to ${formatPrefix(subnet.prefix)}`,
      call: {
        operation: 'addHost',
        input: {
          subnet: subnet.id,
          name: allowed,
          kind: purposeDefaults[vlan.purpose].hosts,
          mac,
          // What was leased is no fixed address: the next free one is.
          ...(pool ? {} : { address: text }),
        },
      },
    },
    about: { table: 'vlan', id: vlan.id },
  });
}
