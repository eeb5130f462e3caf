import {
  type AddressRange,
  type IpAddress,
  addOffset,
  contains,
  formatPrefix,
  inRange,
  usableRange,
} from '../address';
import { type Address, type Interface, Refusal, type Subnet } from '../plan';
import { bandsOf } from '../model/segments';
import type { Brief } from './gather';
import type { KeyedDraft } from './keyed';

/** Hands out the addresses of a subnet: boxes from the infrastructure band on, others from the fixed band on. */
export class Addresses {
  private readonly taken = new Set<IpAddress>();
  private readonly kept: AddressRange[] = [];
  private readonly next: Record<'infrastructure' | 'fixed', IpAddress>;

  constructor(
    private readonly draft: KeyedDraft,
    brief: Brief,
    private readonly subnet: Subnet,
  ) {
    const { plan } = draft;
    for (const { address } of plan.address.group(subnet.id).values()) this.taken.add(address);
    this.kept.push(...plan.pool.group(subnet.id).values(), ...plan.exclusion.group(subnet.id).values());
    const bands = bandsOf(brief.site, subnet.prefix);
    const { first } = usableRange(subnet.prefix);
    this.next = {
      infrastructure: bands.infrastructure?.start ?? first,
      fixed: bands.fixed?.start ?? first,
    };
  }

  private isFree(address: IpAddress): boolean {
    return !this.taken.has(address) && !this.kept.some((range) => inRange(range, address));
  }

  private firstFree(from: IpAddress, last: IpAddress): IpAddress | null {
    let at = from;
    while (at <= last && !this.isFree(at)) at = addOffset(at, 1);
    return at <= last ? at : null;
  }

  /** The one it had where that is still free, else the next one of the band, else the next one anywhere. */
  give(band: 'infrastructure' | 'fixed', had: IpAddress | undefined): IpAddress {
    const { prefix } = this.subnet;
    const { first, last } = usableRange(prefix);
    if (had !== undefined && contains(prefix, had) && had >= first && had <= last && this.isFree(had)) {
      this.taken.add(had);
      return had;
    }
    for (const start of [this.next[band], first]) {
      const found = this.firstFree(start, last);
      if (found === null) continue;
      if (start === this.next[band]) this.next[band] = found;
      this.taken.add(found);
      return found;
    }
    throw new Refusal('no-room', `${formatPrefix(prefix)} has no free address left; grow it.`, [
      { table: 'subnet', id: this.subnet.id },
    ]);
  }

  /** Writes an address of an interface under a key of its own. */
  write(
    key: string,
    item: Interface,
    band: 'infrastructure' | 'fixed',
    assignment: Address['assignment'],
  ): Address {
    const had = this.draft.was('address', key);
    const same = had?.subnet === this.subnet.id ? had.address : undefined;
    // Its own record, which somebody has touched, is in nobody’s way.
    const own = this.draft.plan.address.get(this.draft.idOf(key));
    if (own) this.taken.delete(own.address);
    return this.draft.under('addresses', key, () =>
      this.draft.insert('address', {
        subnet: this.subnet.id,
        address: this.give(band, same),
        interface: item.id,
        assignment,
        gateway: false,
        note: '',
      }),
    );
  }
}
