import { type IpAddress, usableRange, type AddressRange, rangesOverlap } from '../../address';
import { type Plan, siteOf, type Address, type DeviceKind, type Subnet } from '../../plan';
import { type AddressUse, type Layout, layoutOfSubnet, bandsOf } from '../segments';

const INFRASTRUCTURE: ReadonlySet<DeviceKind> = new Set([
  'gateway',
  'switch',
  'layer3-switch',
  'unmanaged-switch',
  'access-point',
  'provider-box',
]);
export const isInfrastructure = (kind: DeviceKind): boolean => INFRASTRUCTURE.has(kind);

/**
 * The next free address for a host, by the site's bands: infrastructure boxes look in their band first, all others in
 * the fixed band; then anywhere that is free and outside the pools; a reservation last of all inside a pool, where the
 * server allows that. `skip` holds addresses already promised. Null when nothing is free.
 */
export function nextFreeAddress(
  plan: Plan,
  subnet: Subnet,
  kind: DeviceKind,
  assignment: Address['assignment'],
  skip: ReadonlySet<IpAddress> = new Set(),
  layout: Layout = layoutOfSubnet(plan, subnet),
): IpAddress | null {
  const site = siteOf(plan);
  const bands = bandsOf(site, subnet.prefix);
  const usable = usableRange(subnet.prefix);
  const whole: AddressRange = { start: usable.first, end: usable.last };
  const own = isInfrastructure(kind) ? bands.infrastructure : bands.fixed;
  const find = (use: AddressUse, within: AddressRange | null): IpAddress | null => {
    if (within === null) return null;
    for (const run of layout.runs) {
      if (run.use !== use || !rangesOverlap(run, within)) continue;
      let address = run.start > within.start ? run.start : within.start;
      const end = run.end < within.end ? run.end : within.end;
      for (; address <= end; address++) if (!skip.has(address)) return address;
    }
    return null;
  };
  const beyondInfrastructure: AddressRange = bands.fixed
    ? { start: bands.fixed.start, end: whole.end }
    : whole;
  return (
    find('free', own) ??
    find('free', beyondInfrastructure) ??
    find('free', whole) ??
    (assignment === 'reservation' && site.reservationInPool ? find('pool', whole) : null)
  );
}
