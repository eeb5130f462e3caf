import { parsePrefix } from '../../src/core/address';
import { rowHouseQuestions } from './questions';
import { rowHouseGuards } from './guards';
import { rowHouseWireless } from './wireless';
import { DemoSite } from './builder';
import { knownModels } from './models';
import { rowHouseGear } from './gear';
import { rowHouseInternet, rowHouseSix } from './internet';
import { rowHousePolicy } from './policy';

const prefix = (text: string) => parsePrefix(text)!.prefix;

/** A row house with a home office, a heat pump and a holiday flat. */
export function rowHouse(): DemoSite {
  const site = new DemoSite('rh', 'Row house, Weir Street 12', 'home', {
    space: [prefix('192.168.0.0/16'), prefix('fd4c:71a:90::/48')],
    foreign: [{ prefix: prefix('192.168.1.0/24'), why: 'the provider’s box' }],
    domain: 'weir12.example.net',
    timeZone: 'Europe/Dublin',
    namingPattern: '{kind}-{nn}',
    notes: 'The holiday flat changes guests weekly; the heat pump is serviced by its installer from outside.',
  });
  const mg = site.segment({
    purpose: 'management',
    vid: 10,
    name: 'House network gear',
    code: 'MG',
    devices: 5,
    growth: 20,
  });
  site.hosts(mg, [
    'sw-cellar switch | meter cupboard',
    'sw-attic switch',
    'ap-ground access-point',
    'ap-attic access-point',
    'ap-flat access-point | flat hallway',
  ]);
  const fa = site.segment({ purpose: 'staff', vid: 20, name: 'Family', code: 'FA', devices: 14, growth: 50 });
  site.hosts(fa, [
    'printer-hall printer',
    'media-box appliance | living room',
    'disk-station server | cellar shelf',
    'scanner printer',
  ]);
  const of = site.segment({
    purpose: 'staff',
    vid: 30,
    name: 'Home office',
    code: 'OF',
    devices: 4,
    growth: 50,
    colour: '#173f5f',
  });
  site.hosts(of, ['desk-dock computer', 'phone-office phone', 'plotter printer']);
  const io = site.segment({
    purpose: 'iot',
    vid: 40,
    name: 'Heat pump and meters',
    code: 'HP',
    devices: 9,
    growth: 30,
  });
  site.hosts(io, [
    'heat-pump controller | cellar',
    'buffer-tank sensor',
    'inverter controller | attic',
    'meter-grid sensor',
    'meter-flat sensor',
    'wallbox appliance',
    'ventilation controller',
  ]);
  const cm = site.segment({
    purpose: 'cameras',
    vid: 50,
    name: 'Door and yard',
    code: 'CM',
    devices: 4,
    growth: 50,
  });
  site.hosts(cm, ['door-bell camera', 'yard-cam camera', 'recorder recorder | cellar shelf']);
  const gu = site.segment({
    purpose: 'guest',
    vid: 60,
    name: 'Holiday flat',
    code: 'GU',
    devices: 6,
    growth: 0,
  });
  site.hosts(gu, ['tv-flat appliance', 'lock-flat appliance | key box']);
  site.do('addSubnet', { vlan: fa, prefix: 'fd4c:71a:90:14::/64' });

  // Mistakes as they are made: a static address the pool can lease, a reservation nobody finished, and the rest.
  site.host(fa, { name: 'garage-door', kind: 'appliance', address: '192.168.20.120', assignment: 'static' });
  site.host(gu, { name: 'thermostat-flat', kind: 'sensor', mac: null, note: 'MAC still to be read off' });
  site.edit('vlan', gu, { transient: { present: 8, arrivalsPerHour: 6, openHours: 24 } });
  const pool = [...site.plan.pool.group(site.subnet(gu).id).keys()][0]!;
  site.edit('pool', pool, { start: '192.168.60.100', end: '192.168.60.139', lease: 86400 });
  site.edit('subnet', site.subnet(io).id, { dns: [] });
  rowHouseGear(site);
  rowHouseInternet(site);
  rowHousePolicy(site);
  rowHouseSix(site);
  rowHouseQuestions(site);
  rowHouseWireless(site);
  rowHouseGuards(site);
  knownModels(site);
  return site;
}
