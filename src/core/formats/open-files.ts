import { prefixFamily } from '../address';
import { askingPorts } from '../model/guards';
import { filterOf } from '../model/policy';
import { routersIn } from '../model/routing';
import { radiosOf } from '../model/wireless';
import { type Device, type Plan, boxOf, byName, interfacesOf, recordTitle, subnetsOf } from '../plan';
import { csvText } from './csv';
import { type Drawing, channelsDrawing, faceDrawing, matrixDrawing, svgOf } from './drawings';
import { hostapdPort, hostapdRadio } from './hostapd';
import { nftRuleset } from './nftables';
import { writePlanFile } from './plan-file';
import {
  dnsmasqConf,
  hostsFile,
  interfacesFile,
  keaConf,
  hostLabels,
  leasingDevices,
  radvdConf,
  zoneFiles,
} from './programs';
import { radiusClients, radiusUsers } from './radius';
import { tablesOf } from './tables';
import { telephoneOptions } from './telephones';

/** All files a plan can be taken away as, by the place they have in the archive of all. */

/** What the texts depend on besides the plan. */
export interface Written {
  readonly today: string | null;
  /** Of the plan; zones count by it. */
  readonly revision: number;
}

export interface OpenFile {
  /** `gw-1/dnsmasq.conf`; unique among the files of a plan. */
  readonly path: string;
  /** Who reads it and what it says, as it is named beside its button. */
  readonly title: string;
  /** The box it is for; null for the whole site. */
  readonly device: string | null;
  readonly text: (written: Written) => string;
}

type Part = Omit<OpenFile, 'path' | 'device'> & { readonly name: string };

const part = (name: string, title: string, text: Part['text']): Part => ({ name, title, text });

const isAdvertised = (plan: Plan, device: string): boolean =>
  interfacesOf(plan, device).some(
    ({ vlan }) =>
      vlan !== null &&
      subnetsOf(plan, vlan).some(({ prefix, advertised }) => advertised && prefixFamily(prefix) === 6),
  );

const NOTHING = '# Nothing of the plan is said here\n';

/** Files a box reads as they are, should it run Linux. */
function filesOfDevice(plan: Plan, device: Device): Part[] {
  const { id } = device;
  const routes = routersIn(plan).has(id);
  const leases = leasingDevices(plan).has(id);
  return [
    ...(routes
      ? [part('interfaces', 'interfaces for ifupdown', () => interfacesFile(plan, device) ?? NOTHING)]
      : []),
    ...(routes && filterOf(plan, device) === 'stateful'
      ? [part('ruleset.nft', 'ruleset for nft', ({ today }) => nftRuleset(plan, device, today))]
      : []),
    ...(leases
      ? [
          part('dnsmasq.conf', 'leases for dnsmasq', () => dnsmasqConf(plan, id) ?? NOTHING),
          part('kea-dhcp4.conf', 'leases for Kea', () => keaConf(plan, id) ?? '{ "Dhcp4": {} }\n'),
        ]
      : []),
    ...(routes && isAdvertised(plan, id)
      ? [part('radvd.conf', 'router advertisements for radvd', () => radvdConf(plan, id) ?? NOTHING)]
      : []),
    ...radiosOf(plan, id).map((radio) =>
      part(`hostapd-${radio.band}.conf`, `${recordTitle(plan, 'radio', radio)} for hostapd`, () =>
        hostapdRadio(plan, radio),
      ),
    ),
    ...askingPorts(plan)
      .filter(({ port }) => port.device === id)
      .map(({ port }) =>
        part(`hostapd-port-${port.number}.conf`, `${recordTitle(plan, 'port', port)} for hostapd`, () =>
          hostapdPort(plan, port)!,
        ),
      ),
  ];
}

const drawn = (name: string, title: string, drawing: Drawing | null): Part[] =>
  drawing ? [part(name, title, () => svgOf(drawing))] : [];

function filesOfSite(plan: Plan): Part[] {
  const asked = plan.radius.size > 0 || plan.identity.size > 0;
  return [
    part('plan.json', 'the whole plan', () => writePlanFile(plan)),
    ...tablesOf(plan).map(({ id, title, head, rows }) =>
      part(`${id}.csv`, `${title} as CSV`, ({ today }) => csvText([head, ...rows(today)])),
    ),
    part('names/hosts', 'names as a hosts file', () => hostsFile(plan)),
    ...zoneFiles(plan).map(({ origin, text }) =>
      part(`names/${origin}.zone`, `zone ${origin}`, ({ revision }) => text(revision + 1)),
    ),
    ...(asked
      ? [
          part('radius/clients.conf', 'boxes that ask, for FreeRADIUS', () => radiusClients(plan)),
          part('radius/users', 'devices that may be let in, for FreeRADIUS', ({ today }) =>
            radiusUsers(plan, today),
          ),
        ]
      : []),
    ...drawn('matrix.svg', 'who may talk as SVG', matrixDrawing(plan)),
    ...drawn('channels.svg', 'channels as SVG', channelsDrawing(plan)),
    ...(plan.telephony.size > 0
      ? [part('telephones.conf', 'what telephones are told, for dnsmasq', () => telephoneOptions(plan))]
      : []),
  ];
}

const RESERVED = ['names', 'radius', 'faces'];

/** The faces of all boxes that have ports. */
function facesOf(plan: Plan, devices: readonly Device[]): Part[] {
  const boxes = devices.filter(({ id }) => boxOf(plan, id));
  const names = hostLabels(boxes, RESERVED);
  return boxes.flatMap((device) =>
    drawn(`faces/${names.get(device.id)}.svg`, `face of ${device.name} as SVG`, faceDrawing(plan, device)),
  );
}

/** What is drawn or packed where there is room for it, on top of the texts; for the whole site. */
export const madeFiles = (plan: Plan): { readonly path: string; readonly title: string }[] => [
  { path: 'schedules.xlsx', title: 'all schedules as a workbook' },
  ...(plan.box.size > 0
    ? [
        { path: 'map.svg', title: 'map as SVG' },
        { path: 'network.zip', title: 'the plan as a running network, for a Linux machine' },
      ]
    : []),
];

/** A plan file may bring two radios of one band, or two ports of one number: each has a file of its own. */
function toldApart(parts: readonly Part[]): readonly Part[] {
  const used = new Map<string, number>();
  return parts.map((one) => {
    const nth = (used.get(one.name) ?? 0) + 1;
    used.set(one.name, nth);
    return nth === 1 ? one : { ...one, name: one.name.replace(/(?=\.conf$)/, `-${nth}`) };
  });
}

/** Every file of a plan: those of the site, then box by box. */
export function openFiles(plan: Plan): OpenFile[] {
  const devices = [...plan.device.values()].sort((a, b) => byName(a.name, b.name) || (a.id < b.id ? -1 : 1));
  const ofBoxes = devices.map((device) => ({ device, parts: toldApart(filesOfDevice(plan, device)) }));
  const folders = hostLabels(
    ofBoxes.filter(({ parts }) => parts.length > 0).map(({ device }) => device),
    RESERVED,
  );
  return [
    ...[...filesOfSite(plan), ...facesOf(plan, devices)].map(({ name, ...part }): OpenFile => ({
      path: name,
      device: null,
      ...part,
    })),
    ...ofBoxes.flatMap(({ device, parts }) =>
      parts.map(({ name, ...part }): OpenFile => ({
        path: `${folders.get(device.id)}/${name}`,
        device: device.id,
        ...part,
      })),
    ),
  ];
}
