import { explainZone, zoneOfVlan } from '../../model/policy';
import { uplinksOf } from '../../model/uplink';
import { ssidsOf } from '../../model/wireless';
import { type Plan, type Purpose, type Vlan, siteOf, vlansOf } from '../../plan';
import { grown } from '../../model/segments';
import { type Block, column, heading, list, table, text } from '../blocks';
import { type ChapterKind, counted, jacketOf } from '../chapter';

/** The network in words for whoever owns it. */

const meant: Readonly<Record<Purpose, string>> = {
  management: 'the boxes of the network themselves; nobody else belongs here',
  staff: 'the people who work here, with their computers',
  guest: 'visitors, who get to the Internet and to nothing of yours',
  iot: 'things that only have to talk to their service',
  cameras: 'cameras and what records them',
  voice: 'telephones',
  servers: 'servers and storage that others ask',
  'control-cell': 'machines and their controllers',
  supervisory: 'the control room',
  building: 'heating, doors, lights and alarms',
  exchange: 'what one side hands to another, so that they never meet',
  transit: 'the way between two routers; nobody is plugged in here',
  parking: 'sockets that are not in use; it leads nowhere',
};

const sizeOf = ({ devices, growth, transient }: Vlan): string =>
  [
    devices > 0 ? `${counted(devices, 'device')} now, room for ${grown(devices, growth)}` : '',
    transient ? `up to ${transient.present} people who come and go` : '',
  ]
    .filter(Boolean)
    .join('; ');

function internetWords(plan: Plan): string[] {
  const uplinks = uplinksOf(plan).filter(({ enabled, segment }) => enabled && segment === null);
  const [first, ...others] = uplinks;
  if (!first) return ['No way to the Internet is planned.'];
  const names = (tier: number) =>
    uplinks
      .filter((uplink) => uplink.tier === tier)
      .map(({ name }) => name)
      .join(' and ');
  const tiers = [...new Set(uplinks.map(({ tier }) => tier))].sort((a, b) => a - b);
  const shared = uplinks.filter(({ tier }) => tier === tiers[0]).length > 1;
  return [
    `The way to the Internet is ${names(tiers[0]!)}${shared ? ', shared between them' : ''}.`,
    ...tiers.slice(1).map((tier) => `When that fails, ${names(tier)} takes over by itself.`),
    ...(others.length === 0 ? ['There is no second one: when it fails, so does the Internet here.'] : []),
  ];
}

function write({ plan, revision }: Parameters<ChapterKind['write']>[0]): Block[] {
  const segments = vlansOf(plan);
  const { name, notes } = siteOf(plan);
  const networks = ssidsOf(plan).filter(({ vlan }) => vlan !== null);
  return [
    text(
      `This book describes the network of ${name} at change ${revision} of its plan. The network is divided into ${counted(segments.length, 'part')}, called segments, so that trouble in one stays there and everybody reaches only what they need.`,
    ),
    ...(notes === '' ? [] : [text(notes)]),
    ...table(
      'Segments in plain words',
      [column('VLAN', 0.7, true), column('Segment', 1.2), column('For', 3), column('How many', 1.6)],
      segments.map((vlan) => [jacketOf(vlan), vlan.name, meant[vlan.purpose], sizeOf(vlan)]),
    ),
    ...(networks.length === 0
      ? []
      : [
          heading('Without a cable'),
          ...list(
            networks.map(
              ({ name: ssid, vlan, schedule }) =>
                `“${ssid}” leads to ${plan.vlan.get(vlan!)!.name}${schedule === '' ? '' : `, on the air ${schedule}`}.`,
            ),
          ),
        ]),
    heading('The Internet'),
    ...list(internetWords(plan)),
    ...whoMay(plan),
  ];
}

/** One sentence for each zone that somebody is in. */
function whoMay(plan: Plan): Block[] {
  const zones = new Set(vlansOf(plan).flatMap(({ id }) => zoneOfVlan(plan, id) ?? []));
  return zones.size === 0
    ? []
    : [heading('Who reaches whom'), ...list([...zones].map((zone) => explainZone(plan, zone)))];
}

export const plain: ChapterKind = { id: 'plain', title: 'In plain words', write };
