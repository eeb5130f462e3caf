import { type Radio, type Ssid, SITE_ID } from '../../src/core/plan';
import { typedVlan } from '../../src/core/model/wiring';
import { radiosOf, ssidsOf } from '../../src/core/model/wireless';
import type { DemoSite } from './builder';

/** What the demo sites have on the air, with the mistakes people make there. */

function network(
  site: DemoSite,
  name: string,
  vid: number,
  fields: Partial<Ssid> & { at?: readonly string[] } = {},
) {
  const { at, ...set } = fields;
  site.do('addSsid', { name, vlan: typedVlan(site.plan, String(vid)).id, security: 'wpa2-wpa3-personal' });
  const { id } = ssidsOf(site.plan).at(-1)!;
  site.edit('ssid', id, {
    keySet: '2026-02-11',
    keyKept: 'password safe of the owner',
    ...set,
    ...(at ? { on: at.map((device) => site.device(device)) } : {}),
  });
}

interface At {
  readonly floor: number;
  /** Metres. */
  readonly x: number;
  readonly y: number;
  readonly outdoors?: boolean;
}
function hang(site: DemoSite, device: string, { floor, x, y, outdoors = false }: At): void {
  site.do('setSpot', { device: site.device(device), floor, x: x * 100, y: y * 100, outdoors });
}
function radio(site: DemoSite, device: string, band: Radio['band'], set: Partial<Radio>): void {
  const known = radiosOf(site.plan, site.device(device)).find((one) => one.band === band)!;
  site.edit('radio', known.id, set);
}
/** Channels by access point, at 2.4 and at 5 GHz. */
function channels(site: DemoSite, list: Readonly<Record<string, readonly [number, number]>>): void {
  site.do('addRadios', { devices: Object.keys(list).map((name) => site.device(name)), bands: ['2.4', '5'] });
  for (const [name, [two, five]] of Object.entries(list)) {
    radio(site, name, '2.4', { channel: two });
    radio(site, name, '5', { channel: five });
  }
}
const wall = (
  site: DemoSite,
  floor: number,
  [fromX, fromY, toX, toY]: readonly number[],
  loss: number,
): void =>
  site.do('addWall', {
    floor,
    fromX: fromX! * 100,
    fromY: fromY! * 100,
    toX: toX! * 100,
    toY: toY! * 100,
    loss,
  });

export function rowHouseWireless(site: DemoSite): void {
  site.edit('site', SITE_ID, { country: 'IE' });
  network(site, 'Rowan', 20);
  network(site, 'Holiday flat', 60, { security: 'wpa2-personal', minimumRate: '6' });
  // Two boxes on one channel through one floor, and one that takes half the band.
  channels(site, { 'ap-ground': [1, 36], 'ap-attic': [6, 52], 'ap-flat': [1, 36] });
  radio(site, 'ap-attic', '2.4', { width: '40' });
  hang(site, 'ap-ground', { floor: 0, x: 4, y: 6 });
  hang(site, 'ap-attic', { floor: 2, x: 5, y: 7 });
  hang(site, 'ap-flat', { floor: 0, x: 13, y: 5 });
  wall(site, 0, [9, 0, 9, 10], 10);
  site.do('noteScan', { text: 'name;channel;level\nNo 31;11;-70\nGallery;6;-78\nNo 31;44;-81' });
}

export function clinicWireless(site: DemoSite): void {
  site.edit('site', SITE_ID, { country: 'GB' });
  network(site, 'Harrow Lane', 20, { bands: ['2.4', '5'] });
  // Guests hear each other, and the slowest rate is left as it came.
  network(site, 'Harrow Lane guests', 80, {
    security: 'owe',
    isolated: false,
    minimumRate: '1',
    keySet: null,
  });
  // The devices cannot wait for a radar; their segment was never carried to the kennels.
  network(site, 'Medical', 60, { at: ['ap-02', 'ap-04'], cannotWait: true, bands: ['5'] });
  channels(site, {
    'ap-01': [1, 36],
    'ap-02': [6, 100],
    'ap-03': [11, 36],
    'ap-04': [6, 44],
    'ap-05': [13, 149],
  });
  hang(site, 'ap-01', { floor: 0, x: 6, y: 5 });
  hang(site, 'ap-02', { floor: 0, x: 17, y: 5 });
  hang(site, 'ap-04', { floor: 0, x: 24, y: 12 });
  hang(site, 'ap-03', { floor: 0, x: 48, y: 8 });
  hang(site, 'ap-05', { floor: 0, x: 33, y: 20, outdoors: true });
  wall(site, 0, [11, 0, 11, 10], 8);
  wall(site, 0, [29, 0, 29, 16], 12);
  site.do('noteLevels', { text: 'ap-02 ap-04 2.4 -58\nap-02 ap-04 5 -66' });
}

export function creameryWireless(site: DemoSite): void {
  site.edit('site', SITE_ID, { country: 'NL' });
  network(site, 'Saltmarsh', 120);
  network(site, 'Drivers', 150, { security: 'open', portal: true, keySet: null });
  // The pasteuriser’s panels, at the laboratory only; nobody carried the cell there.
  network(site, 'PC panels', 210, { at: ['ap-04'], security: 'wpa3-personal', bands: ['5'], hidden: true });
  channels(site, {
    'ap-01': [1, 36],
    'ap-02': [6, 108],
    'ap-03': [11, 52],
    'ap-04': [1, 44],
    'ap-05': [6, 36],
    'ap-06': [11, 132],
  });
  radio(site, 'ap-06', '5', { power: 30 });
  hang(site, 'ap-01', { floor: 0, x: 8, y: 6 });
  hang(site, 'ap-04', { floor: 0, x: 17, y: 6 });
  hang(site, 'ap-03', { floor: 0, x: 8, y: 18 });
  hang(site, 'ap-05', { floor: 0, x: 26, y: 17 });
  hang(site, 'ap-06', { floor: 0, x: 41, y: 10 });
  hang(site, 'ap-02', { floor: 0, x: 64, y: 22, outdoors: true });
  wall(site, 0, [12.5, 0, 12.5, 12], 6);
  wall(site, 0, [34, 0, 34, 24], 15);
  site.do('noteLevels', { text: 'ap-01 ap-04 2.4 -58\nap-01 ap-04 5 -64\nap-03 ap-05 2.4 -71' });
  site.do('noteScan', {
    at: site.device('ap-02'),
    text: 'name;channel;width;level\nHaulage yard;3;40;-71\nHaulage yard;36;80;-79',
  });
}
