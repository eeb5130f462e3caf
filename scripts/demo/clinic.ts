import { parsePrefix } from '../../src/core/address';
import { hostOf } from '../../src/core/plan';
import { clinicQuestions } from './questions';
import { clinicGuards } from './guards';
import { knownModels } from './models';
import { clinicWireless } from './wireless';
import { DemoSite, numbered } from './builder';
import { clinicGear } from './gear';
import { clinicInternet } from './internet';
import { clinicPolicy } from './policy';

const prefix = (text: string) => parsePrefix(text)!.prefix;

/** A veterinary clinic with kennels. */
export function clinic(): DemoSite {
  const site = new DemoSite('vc', 'Harrow Lane Animal Clinic', 'office', {
    space: [prefix('10.20.0.0/16')],
    foreign: [{ prefix: prefix('10.20.200.0/24'), why: 'laboratory tunnel' }],
    domain: 'clinic.example.net',
    timeZone: 'Europe/London',
  });
  const mg = site.segment({ purpose: 'management', vid: 10, devices: 9, growth: 30 });
  site.hosts(mg, [
    'sw-rack switch | comms cupboard',
    'sw-kennels switch',
    'sw-surgery switch',
    ...numbered(5, 'ap', 'access-point'),
    'ups-rack appliance',
  ]);
  const st = site.segment({
    purpose: 'staff',
    vid: 20,
    name: 'Reception and practice',
    devices: 32,
    growth: 25,
  });
  site.hosts(st, [
    ...numbered(4, 'printer', 'printer'),
    'label-printer printer | pharmacy',
    'card-terminal appliance | reception',
    'time-clock appliance',
  ]);
  const sv = site.segment({ purpose: 'servers', vid: 30, devices: 5, growth: 40 });
  site.hosts(sv, ['records server', 'images server | X-ray archive', 'directory server', 'backup server']);
  const vo = site.segment({ purpose: 'voice', vid: 40, devices: 14, growth: 20 });
  site.hosts(vo, numbered(9, 'phone', 'phone', 'room'));
  const cm = site.segment({ purpose: 'cameras', vid: 50, devices: 12, growth: 50 });
  site.hosts(cm, [
    ...numbered(10, 'kennel-cam', 'camera', 'run'),
    'door-cam camera',
    'recorder recorder | comms cupboard',
  ]);
  const md = site.segment({
    purpose: 'iot',
    vid: 60,
    name: 'Medical devices',
    code: 'MD',
    devices: 11,
    growth: 40,
    internet: false,
    colour: '#8c2f6b',
  });
  site.hosts(md, [
    'x-ray appliance',
    'ultrasound appliance',
    'dental-x-ray appliance',
    'blood-analyser appliance',
    'monitor-01 appliance',
    'monitor-02 appliance',
    'anaesthesia appliance',
    'scales-01 sensor',
    'scales-02 sensor',
  ]);
  const bs = site.segment({
    purpose: 'building',
    vid: 70,
    name: 'Kennel climate',
    code: 'KC',
    devices: 10,
    growth: 30,
  });
  site.hosts(bs, [
    ...numbered(6, 'run-temp', 'sensor', 'run'),
    'air-handling controller',
    'floor-heating controller',
    'drug-fridge sensor | alarm line',
  ]);
  const gu = site.segment({ purpose: 'guest', vid: 80, name: 'Waiting room', devices: 2, growth: 0 });
  site.hosts(gu, ['signage appliance']);
  const pk = site.segment({ purpose: 'parking', vid: 999, name: 'Parked ports' });
  void pk;

  // Mistakes as they are made.
  site.edit('vlan', gu, { transient: { present: 25, arrivalsPerHour: 18, openHours: 10 } });
  site.host(st, { name: 'reception-cam', kind: 'camera', note: 'moved from the car park' });
  site.host(st, { name: 'pharmacy-pc', kind: 'computer', address: '10.20.20.150', assignment: 'static' });
  const wrong = site.host(md, { name: 'ct-console', kind: 'appliance', note: 'set up by its maker' });
  const item = hostOf(site.plan, site.plan.address.get(wrong)!).interface;
  site.edit('interface', item.id, { ownLength: 16, ownGateway: '10.20.61.1' });
  const twice = site.host(bs, { name: 'run-temp-07', kind: 'sensor' });
  site.do('moveHost', { address: twice, to: '10.20.70.10' });
  const copy = site.host(cm, { name: 'yard-cam', kind: 'camera' });
  site.edit('device', hostOf(site.plan, site.plan.address.get(copy)!).device.id, { name: 'door-cam' });
  site.host(vo, { name: 'fax-gateway', kind: 'other', mac: null, assignment: 'reservation' });
  clinicGear(site);
  clinicInternet(site);
  clinicPolicy(site);
  clinicQuestions(site);
  clinicWireless(site);
  clinicGuards(site);
  knownModels(site);
  return site;
}
