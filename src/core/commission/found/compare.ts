import { formatAddress } from '../../address';
import { type Plan, byName, interfacesWithMac } from '../../plan';
import { addressRows, serverRows } from './addresses';
import { placeRows } from './places';
import { type FoundAt, type FoundRow, type Seen, foundVerdicts, leaseKey, subnetHolding } from './row';

/** What the site shows, put beside what is planned. */

/** Who has a lease, as far as leases were read. */
function leasesIn(plan: Plan, lists: readonly FoundAt[]): Seen['leases'] {
  const leases = lists.filter(({ kind }) => kind === 'leases').flatMap(({ sightings }) => sightings);
  const subnets = leases.flatMap(({ address }) =>
    address === null ? [] : (subnetHolding(plan, address) ?? []),
  );
  return { held: new Set(leases.map(leaseKey)), of: new Set(subnets.map(({ id }) => id)) };
}

/** Compares lists from the site with the plan: every row once, the worst verdicts first. */
export function foundAgainst(plan: Plan, lists: readonly FoundAt[]): FoundRow[] {
  const leases = leasesIn(plan, lists);
  const rows = lists.flatMap((list) =>
    list.sightings.flatMap((sighting) => {
      const { mac, address, name } = sighting;
      const who =
        [name, mac].filter(Boolean).join(', ') || (address === null ? 'somebody' : formatAddress(address));
      const seen: Seen = { plan, list, sighting, who, leases };
      const cards = mac === null ? [] : interfacesWithMac(plan, mac);
      // A box’s own list of interfaces says nothing of what is plugged in.
      const places = list.kind === 'interfaces' ? [] : placeRows(seen, cards);
      return [...serverRows(seen), ...addressRows(seen, cards), ...places];
    }),
  );
  const order = new Map(foundVerdicts.map((verdict, at) => [verdict, at]));
  return [...new Map(rows.map((row) => [row.key, row])).values()].sort(
    (a, b) => order.get(a.verdict)! - order.get(b.verdict)! || byName(a.who, b.who),
  );
}
