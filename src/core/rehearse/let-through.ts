import { type Plan, type Remedy, type Zone } from '../plan';
import { wantedText } from '../model/policy';
import { routersIn } from '../model/routing';
import type { Stop } from './conversation';
import type { Host } from './host';
import { type ProbeQuestion, type Receiver, type Sender, nameOfReceiver } from './question';

/** What would let a packet through that a rule or a pair of zones refuses. */

/** A device or a segment, as a rule names them. */
type Named = { readonly device: string } | { readonly vlan: string };

/** Who asked, as a rule names them: a device or a segment. A laptop in a port is not told from others of its segment. */
const askedBy = (from: Sender): Named | null =>
  'device' in from ? { device: from.device } : 'vlan' in from ? { vlan: from.vlan } : null;

/** Who is asked, as a rule names them; a router itself is opened to no whole segment. */
function askedOf(plan: Plan, from: Sender, to: Receiver): Named | null {
  if ('vlan' in to) return { vlan: to.vlan };
  if (!('device' in to)) return null;
  return 'vlan' in from && routersIn(plan).has(to.device) ? null : { device: to.device };
}

/** Is a segment all that is in a zone? Then what is opened for the zone is opened for nobody else. */
const isAllOf = ({ vlans, uplinks, tunnels, gateway }: Zone, vlan: string): boolean =>
  vlans.length === 1 && vlans[0] === vlan && uplinks.length + tunnels.length === 0 && !gateway;

/** What would let a refused packet through, and nothing but what was asked. */
export function letThrough(plan: Plan, question: ProbeQuestion, stop: Stop, host: Host | null): Remedy[] {
  const { verdict } = stop;
  if (!verdict) return [...stop.remedies];
  const { from, to, wanted } = question;
  const [asking, asked] = [askedBy(from), askedOf(plan, from, to)];
  // Nobody is let in from the Internet by a click.
  if (!asking || !asked || !host) return [];
  const name = 'vlan' in asking ? plan.vlan.get(asking.vlan)!.name : host.title;
  const remedies: Remedy[] = [
    {
      label: `Allow just this: ${wantedText(wanted)} from ${name} to ${nameOfReceiver(plan, to)}`,
      operation: 'letThrough',
      input: {
        from: [asking],
        to: [asked],
        match: { protocol: wanted.protocol, from: wanted.port, to: wanted.port },
      },
    },
  ];
  const { zones } = verdict;
  const whole =
    zones &&
    'vlan' in asking &&
    'vlan' in asked &&
    isAllOf(zones.from, asking.vlan) &&
    isAllOf(zones.to, asked.vlan);
  if (whole && verdict.on?.table !== 'rule')
    remedies.push({
      label: `Allow ${wantedText(wanted)} in the matrix, from ${zones.from.name} to ${zones.to.name}`,
      operation: 'letZoneThrough',
      input: {
        from: zones.from.id,
        to: zones.to.id,
        match: { protocol: wanted.protocol, from: wanted.port, to: wanted.port },
      },
    });
  return remedies;
}
