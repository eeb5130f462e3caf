import { type Remedy, groupBy, siteOf, type Plan, type Vlan, SITE_ID, vlansOf } from '../../plan';
import { isReservedVid } from '../../edit';
import { isDomain } from '../../model/hosts';
import { isFlat } from '../../model/segments';
import type { Report, SiteCheck } from '../finding';
import { formatPrefix } from '../../address';

/** VLANs of one LAN that share a key with an earlier one, each with that one. */
function* repeated(plan: Plan, keyOf: (vlan: Vlan) => string): Generator<{ vlan: Vlan; first: Vlan }> {
  const groups = groupBy(vlansOf(plan), (vlan) => `${vlan.lan} ${keyOf(vlan)}`);
  for (const [first, ...later] of groups.values()) for (const vlan of later) yield { vlan, first: first! };
}

const vidTwice: SiteCheck = {
  id: 'vid-twice',
  station: 'segments',
  scope: 'site',
  *find(plan) {
    for (const { vlan, first } of repeated(plan, (candidate) => String(candidate.vid)))
      yield {
        severity: 'stop',
        on: { table: 'vlan', id: vlan.id },
        also: [{ table: 'vlan', id: first.id }],
        what: `VLAN id ${vlan.vid} is used twice`,
        because: `${first.name} and ${vlan.name} both have VLAN id ${vlan.vid} in the same LAN, so they are one segment on every switch.`,
        remedies: [
          { label: `Give ${vlan.name} the next free id`, operation: 'freshVid', input: { vlan: vlan.id } },
        ],
      };
  },
};

const vidReserved: SiteCheck = {
  id: 'vid-reserved',
  station: 'segments',
  scope: 'site',
  *find(plan): Generator<Report> {
    const accepted = siteOf(plan).management === 'default-vlan';
    for (const vlan of vlansOf(plan)) {
      if (!isReservedVid(vlan.vid) || (vlan.vid === 1 && accepted && vlan.purpose === 'management')) continue;
      // Where all are in one segment, no port lands in a wrong one.
      if (vlan.vid === 1 && isFlat(plan)) continue;
      yield {
        severity: vlan.vid === 1 ? 'fix' : 'note',
        on: { table: 'vlan', id: vlan.id },
        what:
          vlan.vid === 1 ? `${vlan.name} works in VLAN 1` : `VLAN id ${vlan.vid} is reserved on some gear`,
        because:
          vlan.vid === 1
            ? 'VLAN 1 is the factory default of every port: any port nobody configured lands in this segment.'
            : `Some switches keep the ids 1002–1005 for themselves and refuse ${vlan.vid}.`,
        remedies: [{ label: 'Give it the next free id', operation: 'freshVid', input: { vlan: vlan.id } }],
      };
    }
  },
};

const codeTwice: SiteCheck = {
  id: 'code-twice',
  station: 'segments',
  scope: 'site',
  *find(plan) {
    for (const { vlan, first } of repeated(plan, (candidate) => candidate.code))
      yield {
        severity: 'note',
        on: { table: 'vlan', id: vlan.id },
        also: [{ table: 'vlan', id: first.id }],
        what: `The code ${vlan.code} stands for two segments`,
        because: `${first.name} and ${vlan.name} would carry the same label on ports and cables.`,
        remedies: [
          { label: `Give ${vlan.name} another code`, operation: 'freshCode', input: { vlan: vlan.id } },
        ],
      };
  },
};

const nameTwice: SiteCheck = {
  id: 'segment-name-twice',
  station: 'segments',
  scope: 'site',
  *find(plan) {
    const taken = new Set(vlansOf(plan).map(({ name }) => name.toLowerCase()));
    for (const { vlan, first } of repeated(plan, (candidate) => candidate.name.toLowerCase())) {
      const name = `${vlan.name.slice(0, 35)} ${vlan.vid}`;
      yield {
        severity: 'note',
        on: { table: 'vlan', id: vlan.id },
        also: [{ table: 'vlan', id: first.id }],
        what: `Two segments are called ${vlan.name}`,
        because: `VLAN ${first.vid} and VLAN ${vlan.vid} cannot be told apart by name, on the phone or in the rules.`,
        remedies: taken.has(name.toLowerCase())
          ? []
          : [
              {
                label: `Call VLAN ${vlan.vid} “${name}”`,
                operation: 'edit',
                input: { table: 'vlan', id: vlan.id, set: { name }, seen: { name: vlan.name } },
              },
            ],
      };
    }
  },
};

const noManagement: SiteCheck = {
  id: 'no-management',
  station: 'segments',
  scope: 'site',
  *find(plan) {
    const vlans = vlansOf(plan);
    if (siteOf(plan).management === 'default-vlan' || vlans.length === 0) return;
    if (vlans.some((vlan) => vlan.purpose === 'management')) return;
    yield {
      severity: 'fix',
      on: { table: 'site', id: SITE_ID },
      what: 'No management segment',
      because: `None of the ${vlans.length} segments has the purpose management, so switches and access points answer where users are.`,
      remedies: [{ label: 'Add a management segment', operation: 'addManagement', input: {} }],
    };
  },
};

const guestsInStaff: SiteCheck = {
  id: 'guests-in-staff',
  station: 'segments',
  scope: 'site',
  *find(plan) {
    for (const vlan of vlansOf(plan)) {
      if (vlan.transient === null || vlan.purpose === 'guest' || vlan.purpose === 'iot') continue;
      yield {
        severity: 'fix',
        on: { table: 'vlan', id: vlan.id },
        what: `Visitors in ${vlan.name}`,
        because: `${vlan.transient.present} people who come and go share the segment with ${vlan.devices} devices of purpose ${vlan.purpose}.`,
        remedies: [
          { label: 'Move them to the guest segment', operation: 'moveVisitors', input: { vlan: vlan.id } },
        ],
      };
    }
  },
};

const badDomain: SiteCheck = {
  id: 'domain-not-allowed',
  station: 'segments',
  scope: 'site',
  *find(plan) {
    const why =
      'A domain is labels of letters, digits and inner hyphens, joined by dots (RFC 1035 section 2.3.4).';
    const site = siteOf(plan);
    if (!isDomain(site.domain))
      yield {
        severity: 'fix',
        on: { table: 'site', id: SITE_ID },
        what: `The domain “${site.domain}” is not allowed`,
        because: why,
        remedies: [clear('site', SITE_ID, site.domain)],
      };
    for (const subnet of plan.subnet.values())
      if (!isDomain(subnet.domain))
        yield {
          severity: 'fix',
          on: { table: 'subnet', id: subnet.id },
          what: `The domain “${subnet.domain}” of ${formatPrefix(subnet.prefix)} is not allowed`,
          because: why,
          remedies: [clear('subnet', subnet.id, subnet.domain)],
        };
  },
};

const clear = (table: 'site' | 'subnet', id: string, seen: string) =>
  ({
    label: table === 'site' ? 'Leave the domain empty' : 'Use the site’s domain',
    operation: 'edit',
    input: { table, id, set: { domain: '' }, seen: { domain: seen } },
  }) satisfies Remedy;

export const vlanChecks = [
  vidTwice,
  vidReserved,
  codeTwice,
  nameTwice,
  noManagement,
  guestsInStaff,
  badDomain,
];
