import {
  type IpAddress,
  comparePrefixes,
  covers,
  formatAddress,
  formatPrefix,
  overlaps,
  prefixFamily,
  samePrefix,
  usableHosts,
  specialBlockOf,
} from '../../address';
import { type Plan, type Subnet, dnsOf, toWire, type Remedy } from '../../plan';
import { vlanOfAddress } from '../../model/policy';
import { holdersOf } from '../../model/routing';
import { listenersOf } from '../../model/uplink';
import { foreignNetworks, isFlat, isFree, thirdOctetPlaces, usableSpace, needOf } from '../../model/segments';
import { fittedLength } from '../../edit';
import type { SiteCheck, SubnetCheck } from '../finding';
import type { SubnetHost } from '../subnet-view';

const vlanName = (plan: Plan, subnet: Subnet) => plan.vlan.get(subnet.vlan)!.name;
const ref = (subnet: Subnet) => ({ table: 'subnet' as const, id: subnet.id });
const move = (plan: Plan, subnet: Subnet): Remedy => ({
  label: `Move ${vlanName(plan, subnet)} to a free block`,
  operation: 'moveToFreeBlock',
  input: { subnet: subnet.id },
});

/**
 * One finding for each subnet that overlaps an earlier one in the order of prefixes. Prefixes nest or are disjoint, so
 * one pass with a stack of enclosing prefixes finds them without comparing all pairs.
 */
const overlap: SiteCheck = {
  id: 'subnet-overlap',
  station: 'segments',
  scope: 'site',
  *find(plan) {
    // Behind a 1:1 translation the same inside addresses may stand in several cells (RFC 2663 section 4.1.1).
    const translated = new Set([...plan.translation.values()].map(({ subnet }) => subnet));
    const sorted = [...plan.subnet.values()]
      .filter(({ id }) => !translated.has(id))
      .sort((a, b) => comparePrefixes(a.prefix, b.prefix) || (a.id < b.id ? -1 : 1));
    const enclosing: Subnet[] = [];
    for (const subnet of sorted) {
      while (enclosing.length && !covers(enclosing.at(-1)!.prefix, subnet.prefix)) enclosing.pop();
      const other = enclosing.at(-1);
      if (other)
        yield {
          severity: 'stop',
          on: ref(subnet),
          also: [ref(other)],
          what: `${vlanName(plan, subnet)} overlaps ${vlanName(plan, other)}`,
          because: `${formatPrefix(subnet.prefix)} lies ${samePrefix(subnet.prefix, other.prefix) ? 'exactly on' : 'inside'} ${formatPrefix(other.prefix)}: a router cannot tell which of the two a packet is for.`,
          // With a second one around it, moving the other would not help.
          remedies: [move(plan, subnet), ...(enclosing.length === 1 ? [move(plan, other)] : [])],
        };
      enclosing.push(subnet);
    }
  },
};

const outsideSpace: SubnetCheck = {
  id: 'subnet-outside-space',
  station: 'segments',
  scope: 'subnet',
  *find(plan, { site, subnet }) {
    if (site.space.some((block) => covers(block, subnet.prefix))) return;
    const space = toWire('site', site).space as string[];
    const room = usableSpace(site).some((block) => prefixFamily(block) === prefixFamily(subnet.prefix));
    yield {
      severity: 'fix',
      on: ref(subnet),
      what: `${vlanName(plan, subnet)} lies outside the site’s space`,
      because: `${formatPrefix(subnet.prefix)} is in none of ${space.join(', ')}.`,
      remedies: [
        ...(room ? [move(plan, subnet)] : []),
        {
          label: `Add ${formatPrefix(subnet.prefix)} to the space`,
          operation: 'edit',
          input: {
            table: 'site',
            id: 'site',
            set: { space: [...space, formatPrefix(subnet.prefix)] },
            seen: { space },
          },
        },
      ],
    };
  },
};

const foreign: SubnetCheck = {
  id: 'subnet-foreign',
  station: 'segments',
  scope: 'subnet',
  *find(plan, { subnet }) {
    const network = foreignNetworks(plan).find((other) => overlaps(other.prefix, subnet.prefix));
    if (!network) return;
    yield {
      severity: 'stop',
      on: ref(subnet),
      what: `${vlanName(plan, subnet)} collides with a foreign network`,
      because: `${formatPrefix(subnet.prefix)} overlaps ${formatPrefix(network.prefix)}${network.why ? ` (${network.why})` : ''}.`,
      remedies: [move(plan, subnet)],
    };
  },
};

const special: SubnetCheck = {
  id: 'subnet-special',
  station: 'segments',
  scope: 'subnet',
  *find(plan, { site, subnet }) {
    const block = specialBlockOf(subnet.prefix);
    if (block && (block.inside === 'yes' || (block.inside === 'documentation' && site.documentation))) {
      if (covers(block.prefix, subnet.prefix)) return;
    }
    const room = usableSpace(site).some((other) => prefixFamily(other) === prefixFamily(subnet.prefix));
    const prefix = formatPrefix(subnet.prefix);
    yield {
      severity: block === null || block.inside === 'warn' ? 'fix' : 'stop',
      on: ref(subnet),
      what: block
        ? `${vlanName(plan, subnet)} uses ${block.name} addresses`
        : `${vlanName(plan, subnet)} uses public addresses`,
      because: block
        ? `${prefix} belongs to ${formatPrefix(block.prefix)}, ${block.name} (${block.source}), which is not for a segment.`
        : `${prefix} is ordinary public space: whoever owns it on the Internet cannot be reached from here.`,
      remedies: room ? [move(plan, subnet)] : [],
    };
  },
};

const thirdOctet: SubnetCheck = {
  id: 'third-octet',
  station: 'segments',
  scope: 'subnet',
  *find(plan, { site, subnet }) {
    if (site.numbering !== 'third-octet' || isFlat(plan)) return;
    if (typeof subnet.prefix.address !== 'number' || subnet.pinned) return;
    const vlan = plan.vlan.get(subnet.vlan)!;
    const places = thirdOctetPlaces(site, vlan.vid, subnet.prefix.length);
    if (
      places.length === 0 ||
      places.some((place) => (place.address as number) >>> 8 === (subnet.prefix.address as number) >>> 8)
    )
      return;
    const place = places.find((candidate) => isFree(plan, candidate));
    if (!place) return;
    yield {
      severity: 'note',
      on: ref(subnet),
      what: `${vlan.name} breaks the numbering rule`,
      because: `VLAN ${vlan.vid} should have ${vlan.vid} in its third octet; ${formatPrefix(subnet.prefix)} has not, and ${formatPrefix(place)} is free.`,
      remedies: [
        {
          label: `Move it to ${formatPrefix(place)}`,
          operation: 'setPrefix',
          input: { subnet: subnet.id, prefix: formatPrefix(place), relocate: true },
        },
      ],
    };
  },
};

const tooSmall: SubnetCheck = {
  id: 'subnet-too-small',
  station: 'segments',
  scope: 'subnet',
  *find(plan, { subnet, vlan }) {
    if (typeof subnet.prefix.address !== 'number' || vlan.purpose === 'transit' || vlan.purpose === 'parking')
      return;
    const need = needOf(plan, vlan, subnet);
    const usable = usableHosts(subnet.prefix);
    if (usable >= need.total) return;
    yield {
      severity: vlan.devices + 1 > usable ? 'stop' : 'fix',
      on: ref(subnet),
      what: `${vlan.name} is too small`,
      because: `${formatPrefix(subnet.prefix)} fits ${usable} hosts; ${need.text} are needed.`,
      remedies: [
        {
          label: `Grow it to a /${fittedLength(plan, vlan, subnet)}`,
          operation: 'growToNeed',
          input: { subnet: subnet.id },
        },
      ],
    };
  },
};

const askGateway = (subnet: Subnet, { device, interface: item }: SubnetHost): Remedy => ({
  label: `Use the gateway ${device.name}`,
  operation: 'edit',
  input: {
    table: 'subnet',
    id: subnet.id,
    set: { dns: [{ interface: item.id }] },
    seen: { dns: toWire('subnet', subnet).dns },
  },
});

const dnsMissing: SubnetCheck = {
  id: 'dns-missing',
  station: 'segments',
  scope: 'subnet',
  *find(plan, { subnet, vlan, pools, gateways }) {
    if (dnsOf(plan, subnet).length > 0 || (!vlan.internet && pools.length === 0)) return;
    const server = gateways[0];
    yield {
      severity: 'fix',
      on: ref(subnet),
      what: `${vlan.name} has no DNS server`,
      because: `${formatPrefix(subnet.prefix)} ${vlan.internet ? 'may reach the Internet' : 'leases addresses'}, but its hosts cannot resolve names.`,
      remedies: server ? [askGateway(subnet, server)] : [],
    };
  },
};

/** Who is told of a DNS server that nobody is waits for every name. */
const dnsNobody: SubnetCheck = {
  id: 'dns-nobody',
  station: 'segments',
  scope: 'subnet',
  *find(plan, { subnet, vlan, gateways }) {
    const why = (at: IpAddress): string | null => {
      if (vlanOfAddress(plan, at) === null) return null;
      const holders = holdersOf(plan, at).map(({ interface: id }) => plan.interface.get(id)!.device);
      if (holders.length === 0) return `nobody has ${formatAddress(at)}`;
      const deaf = holders.find((device) => {
        const listed = listenersOf(plan, device);
        return listed.length > 0 && !listed.some(({ port }) => port === 53);
      });
      return deaf === undefined
        ? null
        : `${plan.device.get(deaf)!.name} at ${formatAddress(at)} lists no DNS among what it listens on`;
    };
    const wrong = dnsOf(plan, subnet).flatMap((at) => why(at) ?? []);
    if (wrong.length === 0) return;
    const server = gateways.find(({ address }) => why(address.address) === null);
    yield {
      severity: 'fix',
      on: ref(subnet),
      what: `${vlan.name} is sent to a DNS server that is none`,
      because: `Of its DNS servers ${wrong.join(' and ')}: names are not resolved, or only after a wait.`,
      remedies: server ? [askGateway(subnet, server)] : [],
    };
  },
};

export const subnetChecks = [overlap];
/** Those of one subnet by itself. */
export const sizeChecks = [outsideSpace, foreign, special, thirdOctet, tooSmall, dnsMissing, dnsNobody];
