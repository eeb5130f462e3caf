import { parsePrefix } from '../../src/core/address';
import { hostOf } from '../../src/core/plan';
import { creameryQuestions, creameryTrees } from './questions';
import { creameryGuards } from './guards';
import { knownModels } from './models';
import { creameryWireless } from './wireless';
import { DemoSite, numbered } from './builder';
import { creameryGear } from './gear';
import { creameryInternet, creameryLeases } from './internet';
import { creameryPolicy } from './policy';

const prefix = (text: string) => parsePrefix(text)!.prefix;

/** A creamery with a pasteuriser cell, a bottling line and a cold store. */
export function creamery(): DemoSite {
  const site = new DemoSite('cr', 'Saltmarsh Creamery', 'industrial', {
    space: [prefix('10.44.96.0/19'), prefix('10.44.128.0/17')],
    foreign: [{ prefix: prefix('10.44.200.0/24'), why: 'dairy cooperative, by tunnel' }],
    domain: 'creamery.example.net',
    timeZone: 'Europe/Amsterdam',
    infrastructureBand: 8,
    fixedBand: 60,
    notes:
      'The pasteuriser and the bottling line stop only on Sunday nights; agree every change with the shift lead.',
  });
  const mg = site.segment({ purpose: 'management', vid: 110, devices: 14, growth: 40 });
  site.hosts(mg, [
    'sw-a switch | comms cupboard',
    'sw-b switch | bottling hall',
    'sw-c switch | cold store',
    'sw-d switch | pasteuriser',
    'sw-e switch | silo yard',
    'sw-f switch | office',
    ...numbered(6, 'ap', 'access-point'),
    'ups-a appliance',
    'ups-b appliance',
  ]);
  const of = site.segment({
    purpose: 'staff',
    vid: 120,
    name: 'Office',
    code: 'OF',
    devices: 38,
    growth: 50,
  });
  site.hosts(of, [
    ...numbered(3, 'printer', 'printer'),
    'label-office printer',
    'time-clock-01 appliance',
    'time-clock-02 appliance',
  ]);
  const vo = site.segment({ purpose: 'voice', vid: 130, devices: 14, growth: 30 });
  site.hosts(vo, numbered(12, 'phone', 'phone', 'extension'));
  const cm = site.segment({ purpose: 'cameras', vid: 140, devices: 16, growth: 60 });
  site.hosts(cm, [
    ...numbered(4, 'gate-cam', 'camera'),
    ...numbered(6, 'hall-cam', 'camera', 'bay'),
    ...numbered(4, 'store-cam', 'camera', 'aisle'),
    'recorder recorder | comms cupboard',
  ]);
  const gu = site.segment({ purpose: 'guest', vid: 150, name: 'Drivers Wi-Fi', devices: 2, growth: 0 });
  site.hosts(gu, ['weighbridge-display appliance']);
  const pc = site.segment({
    purpose: 'control-cell',
    vid: 210,
    name: 'Pasteuriser cell',
    code: 'PC',
    devices: 22,
    growth: 25,
  });
  site.hosts(pc, [
    'pasteuriser controller | licence on card',
    'homogeniser controller',
    'separator controller',
    'panel-pasteuriser operator-panel',
    'panel-separator operator-panel',
    ...numbered(6, 'pump-drive', 'drive'),
    ...numbered(7, 'flow', 'sensor', 'line'),
    'valve-island controller',
    'cip-skid controller | cleaning in place',
  ]);
  const bl = site.segment({
    purpose: 'control-cell',
    vid: 220,
    name: 'Bottling line',
    code: 'BL',
    devices: 34,
    growth: 50,
    colour: '#2d7d3a',
  });
  site.hosts(bl, [
    'filler controller',
    'capper controller',
    'labeller controller',
    'packer controller',
    'palletiser controller',
    ...numbered(5, 'panel-line', 'operator-panel'),
    ...numbered(12, 'conveyor', 'drive'),
    ...numbered(8, 'vision', 'camera', 'station'),
  ]);
  const cs = site.segment({
    purpose: 'control-cell',
    vid: 230,
    name: 'Cold store',
    code: 'CS',
    devices: 24,
    growth: 40,
    colour: '#7a4a24',
  });
  site.hosts(cs, [
    'compressor-01 controller',
    'compressor-02 controller',
    'condenser controller',
    'panel-cold operator-panel',
    ...numbered(14, 'cold-temp', 'sensor', 'zone'),
    ...numbered(4, 'door-contact', 'sensor', 'door'),
  ]);
  const ex = site.segment({
    purpose: 'exchange',
    vid: 240,
    name: 'Exchange',
    code: 'HX',
    devices: 4,
    growth: 50,
  });
  site.hosts(ex, ['historian server', 'update-mirror server', 'jump-host server']);
  const su = site.segment({
    purpose: 'supervisory',
    vid: 100,
    name: 'Control room',
    code: 'CR',
    devices: 9,
    growth: 30,
  });
  site.hosts(su, [
    'scada-a server',
    'scada-b server',
    'alarm server',
    'engineering-01 computer',
    'engineering-02 computer',
    'wall-01 computer',
    'wall-02 computer',
  ]);
  const si = site.segment({
    purpose: 'building',
    vid: 160,
    name: 'Silo yard',
    code: 'SY',
    devices: 14,
    growth: 30,
  });
  site.hosts(si, [
    ...numbered(6, 'silo-level', 'sensor', 'silo'),
    ...numbered(4, 'silo-agitator', 'drive', 'silo'),
    'weighbridge controller',
    'barrier controller',
  ]);
  site.segment({ purpose: 'parking', vid: 190, name: 'Parked ports' });

  // Mistakes as they are made.
  site.pool(cm, '10.44.140.34', '10.44.140.50');
  site.host(cm, { name: 'dock-cam', kind: 'camera', address: '10.44.140.40', assignment: 'static' });
  site.edit('vlan', gu, { transient: { present: 30, arrivalsPerHour: 24, openHours: 16 } });
  const panel = site.host(bl, {
    name: 'panel-line-06',
    kind: 'operator-panel',
    note: 'spare from the old line',
  });
  const item = hostOf(site.plan, site.plan.address.get(panel)!).interface;
  site.edit('interface', item.id, { ownGateway: '10.44.22.1' });
  const bad = site.host(bl, { name: 'reject', kind: 'sensor' });
  site.edit('device', hostOf(site.plan, site.plan.address.get(bad)!).device.id, { name: 'Reject Eye 1' });
  const twice = site.host(pc, { name: 'flow-08', kind: 'sensor' });
  const first = [...site.plan.address.group(site.subnet(pc).id).values()].find(
    (address) => !address.gateway,
  )!;
  site.edit('interface', hostOf(site.plan, site.plan.address.get(twice)!).interface.id, {
    mac: hostOf(site.plan, first).interface.mac,
  });
  site.edit('vlan', ex, { devices: 40 });
  site.do('setPrefix', { subnet: site.subnet(si).id, prefix: '10.44.230.0/27', relocate: true });
  site.do('setGateway', { subnet: site.subnet(su).id, address: null });
  creameryGear(site);
  creameryInternet(site);
  creameryPolicy(site);
  creameryTrees(site);
  creameryLeases(site);
  creameryQuestions(site);
  creameryWireless(site);
  creameryGuards(site);
  knownModels(site);
  return site;
}
