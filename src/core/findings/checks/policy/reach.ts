import { familyOf, formatAddress, widthOf } from '../../../address';
import {
  type Plan,
  type Purpose,
  type Zone,
  dnsOf,
  plainVlansOf,
  subnetsOf,
  type Remedy,
} from '../../../plan';
import {
  cellVerdict,
  includesService,
  ruleFor,
  vlanOfAddress,
  serviceNames,
  isOutside,
  passing,
  vlansOfZone,
  zoneOfVlan,
  zonesOf,
} from '../../../model/policy';
import { newcomerAddress } from '../../../rehearse';
import { routersIn } from '../../../model/routing';
import type { SiteCheck } from '../../finding';
import { policyCheck } from './shared';

/** What a segment cannot do without, and what nobody should reach. */

const DNS = { protocol: 'udp' as const, port: 53 };

const dns: SiteCheck = policyCheck('dns-not-allowed', function* (plan, today) {
  const zones = zonesOf(plan);
  if (zones.length === 0) return;
  for (const vlan of plainVlansOf(plan)) {
    const from = zoneOfVlan(plan, vlan.id);
    if (!from) continue;
    for (const subnet of subnetsOf(plan, vlan.id)) {
      const sender = newcomerAddress(plan, subnet);
      for (const at of dnsOf(plan, subnet)) {
        if (sender === null) continue;
        const own = [...routersIn(plan).values()].some(({ legs }) =>
          legs.some(({ address }) => address === at),
        );
        const where = vlanOfAddress(plan, at);
        if (where === vlan.id && !own) continue;
        const to = own
          ? zones.find(({ gateway }) => gateway)
          : where === null
            ? zones.find(isOutside)
            : zoneOfVlan(plan, where);
        if (!to) continue;
        const spoke = ruleFor(plan, '', sender, at, DNS, today);
        if (spoke ? spoke.rule.action === 'allow' : cellVerdict(plan, from, to, DNS, vlan.id).passes)
          continue;
        // Answers that are too long come by TCP (RFC 7766).
        const match = (['udp', 'tcp'] as const).map((protocol) => ({ protocol, from: 53, to: 53 }));
        const { name } = plan.vlan.get(vlan.id)!;
        const server = formatAddress(at);
        // The gateway answers for itself; of any other zone only the server is opened.
        const remedy: Remedy = own
          ? {
              label: `Allow DNS from ${from.name} to ${to.name}`,
              operation: 'letZoneThrough',
              input: { from: from.id, to: to.id, match },
            }
          : {
              label: `Allow just DNS from ${name} to ${server}`,
              operation: 'letThrough',
              input: {
                from: [{ vlan: vlan.id }],
                to: [{ prefix: `${server}/${widthOf(familyOf(at))}` }],
                match,
              },
            };
        yield {
          severity: 'fix',
          on: { table: 'subnet', id: subnet.id },
          also: [{ table: 'vlan', id: vlan.id }],
          what: `${name} cannot ask its DNS server`,
          because: `${server} is in ${to.name}, and nothing lets DNS through from ${from.name}: names are not resolved, which looks like no Internet.`,
          remedies: spoke ? [] : [remedy],
        };
        break;
      }
    }
  }
});

/** Who has a business with machines: those who run them, those who look after the boxes, and the exchange between. */
const MAY: ReadonlySet<Purpose> = new Set(['control-cell', 'supervisory', 'management', 'exchange']);

const holdsCell = (plan: Plan, zone: Zone) =>
  vlansOfZone(plan, zone).some(({ purpose }) => purpose === 'control-cell');

const cellReachable: SiteCheck = policyCheck('control-cell-open', function* (plan) {
  for (const cell of plan.cell.values()) {
    const [from, to] = [plan.zone.get(cell.from)!, plan.zone.get(cell.to)!];
    if (cell.decision === 'deny' || from === to || !holdsCell(plan, to)) continue;
    const strangers = vlansOfZone(plan, from).filter(({ purpose }) => !MAY.has(purpose));
    if (strangers.length === 0 && !isOutside(from)) continue;
    const who = isOutside(from) ? 'the Internet' : from.name;
    yield {
      severity: cell.decision === 'allow' ? 'stop' : 'fix',
      on: { table: 'cell', id: cell.id },
      also: [
        { table: 'zone', id: from.id },
        { table: 'zone', id: to.id },
      ],
      what: `${to.name} is reached from ${who}`,
      because: `Machines answer whoever asks. From ${who} they are better asked by way of an exchange or supervision.`,
      remedies: [
        {
          label: 'Take it back',
          operation: 'decidePairs',
          input: { pairs: [{ from: from.id, to: to.id }], decision: 'usual' },
        },
      ],
    };
  }
});

const againstWish: SiteCheck = policyCheck('internet-against-wish', function* (plan) {
  for (const cell of plan.cell.values()) {
    const [from, to] = [plan.zone.get(cell.from)!, plan.zone.get(cell.to)!];
    if (!isOutside(to) || isOutside(from) || passing(plan, from, to).decision !== 'allow') continue;
    const against = vlansOfZone(plan, from).filter(({ internet }) => !internet);
    if (against.length === 0) continue;
    const names = against.map(({ id }) => plan.vlan.get(id)!.name);
    yield {
      severity: 'fix',
      on: { table: 'cell', id: cell.id },
      also: against.map(({ id }) => ({ table: 'vlan' as const, id })),
      what: `${names[0]} has the whole Internet against its wish`,
      because: `Everything passes from ${from.name} to ${to.name}; of ${names.join(', ')} it is recorded that it does not need it.`,
      remedies: [
        {
          label: 'As the segments wish',
          operation: 'decidePairs',
          input: { pairs: [{ from: from.id, to: to.id }], decision: 'usual' },
        },
      ],
    };
  }
});

const ADMINISTRATION = [22, 23, 80, 443, 3389, 8080, 8443];

const fromOutside: SiteCheck = policyCheck('gateway-from-outside', function* (plan) {
  for (const cell of plan.cell.values()) {
    const [from, to] = [plan.zone.get(cell.from)!, plan.zone.get(cell.to)!];
    if (cell.decision !== 'services' || !isOutside(from) || !to.gateway) continue;
    const open = ADMINISTRATION.filter((port) =>
      includesService(plan, cell.services, { protocol: 'tcp', port }),
    );
    if (open.length === 0) continue;
    yield {
      severity: 'stop',
      on: { table: 'cell', id: cell.id },
      also: [{ table: 'zone', id: from.id }],
      what: 'The gateway’s login stands on the Internet',
      because: `From ${from.name} tcp ${open.join(', ')} of the gateway itself ${open.length === 1 ? 'is' : 'are'} open: whoever finds it can try its login. Reach it by VPN.`,
      remedies: [
        {
          label: 'Close it to the outside',
          operation: 'decidePairs',
          input: { pairs: [{ from: from.id, to: to.id }], decision: 'usual' },
        },
      ],
    };
  }
});

const guestsInside: SiteCheck = policyCheck('guests-inside', function* (plan) {
  for (const cell of plan.cell.values()) {
    const [from, to] = [plan.zone.get(cell.from)!, plan.zone.get(cell.to)!];
    if (cell.decision !== 'services' || from === to || isOutside(to) || to.gateway) continue;
    if (!vlansOfZone(plan, from).some(({ purpose }) => purpose === 'guest')) continue;
    yield {
      severity: 'note',
      on: { table: 'cell', id: cell.id },
      also: [
        { table: 'zone', id: from.id },
        { table: 'zone', id: to.id },
      ],
      what: `Guests reach private addresses of ${to.name}`,
      because: `From ${from.name} ${serviceNames(plan, cell.services)} ${cell.services.length === 1 ? 'passes' : 'pass'}: strangers are inside as far as that goes.`,
      remedies: [
        {
          label: 'Take it back',
          operation: 'decidePairs',
          input: { pairs: [{ from: from.id, to: to.id }], decision: 'usual' },
        },
      ],
    };
  }
});

export const reachChecks: readonly SiteCheck[] = [fromOutside, guestsInside, dns, cellReachable, againstWish];
