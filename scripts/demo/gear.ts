import type { DemoSite } from './builder';

const names = (count: number, name: string, from = 1): string[] =>
  Array.from({ length: count }, (_, i) => `${name}-${String(i + from).padStart(2, '0')}`);

/** A provider's box, a gateway, two small switches and an access point with its own segments. */
export function rowHouseGear(site: DemoSite): void {
  site.box('isp-box', 'provider-4', 'meter cupboard', { loginChanged: null, loginKept: '' });
  site.box('gw-1', 'gateway-4', 'meter cupboard');
  site.box('sw-cellar', 'switch-8p', 'cellar');
  site.box('sw-attic', 'plain-5', 'attic');
  site.box('ap-ground', 'ap-1', 'hallway');
  site.cable('isp-box 2 = gw-1 1');
  site.cable('gw-1 2 = sw-cellar 1');
  site.cable('sw-cellar 2 = ap-ground 1');
  site.cable('sw-cellar 8 = sw-attic 1');
  site.trunk('gw-1 2', '10, 20, 30, 40, 50, 60');
  site.trunk('sw-cellar 1', '10, 20, 30, 40, 50');
  site.trunk('sw-cellar 2', '20, 60', 10);
  site.trunk('ap-ground 1', '20, 60', 10);
  site.trunk('ap-ground inside', '20, 60', 10);
  site.access('sw-cellar 3-4', 40);
  site.access('sw-cellar 5', 30);
  site.access('sw-cellar 6', 20);
  site.access('sw-cellar 8', 20);
  site.plug('sw-cellar', 3, ['heat-pump', 'meter-grid', 'desk-dock', 'disk-station']);
  site.cable('sw-attic 2 = media-box');
  site.cable('sw-attic 3 = inverter');
  site.box('ap-attic', 'ap-1', 'attic');
  site.box('ap-flat', 'ap-1', 'flat hallway');
  site.cable('sw-attic 4 = ap-attic 1');
  site.cable('sw-cellar 7 = ap-flat 1');
  site.trunk('sw-cellar 7', '20, 60', 10);
  for (const ap of ['ap-attic', 'ap-flat']) {
    site.trunk(`${ap} 1`, '20, 60', 10);
    site.trunk(`${ap} inside`, '20, 60', 10);
  }
  site.parkRest('gw-1');
}

/** A cupboard with two switches, a patch panel and three access points. */
export function clinicGear(site: DemoSite): void {
  site.box('gw-1', 'gateway-6', 'comms cupboard');
  site.box('sw-rack', 'switch-48p', 'comms cupboard');
  site.box('sw-kennels', 'switch-24p', 'kennels', { supportedUntil: '2025-06-30' });
  site.box('panel-a', 'panel-24', 'comms cupboard');
  for (const [i, place] of ['reception', 'surgery', 'kennels'].entries())
    site.box(`ap-0${i + 1}`, 'ap-1', place);
  site.cable('gw-1 2 = sw-rack 1');
  site.cable('sw-rack 49 = sw-kennels 25', { media: 'multi-mode', length: 85 });
  site.trunk('gw-1 2', '10, 20, 30, 40, 50, 60, 70, 80');
  site.trunk('sw-rack 1', '10, 20, 30, 40, 50, 60, 70, 80');
  // 1 Gbit/s optics in ports that could do ten.
  for (const port of site.ports('sw-rack 49-50')) site.edit('port', port, { speed: 1000 });
  // One VLAN was forgotten at the far end.
  site.trunk('sw-rack 49', '10, 20, 50, 70, 80');
  site.trunk('sw-kennels 25', '10, 20, 50, 80');
  site.trunk('sw-rack 2-3', '20, 80', 10);
  site.trunk('sw-kennels 1', '20, 80', 10);
  site.plug('sw-rack', 2, ['ap-01 1', 'ap-02 1']);
  site.cable('sw-kennels 1 = ap-03 1');
  for (const ap of ['ap-01', 'ap-02', 'ap-03']) {
    site.trunk(`${ap} 1`, '20, 80', 10);
    site.trunk(`${ap} inside`, '20, 80', 10);
    site.powered(4, ap);
  }
  site.access('sw-rack 5-9', 30);
  site.plug('sw-rack', 5, ['records', 'images', 'directory', 'backup']);
  site.voice('sw-rack 11-20', 20);
  site.plug('sw-rack', 11, names(8, 'phone'));
  site.powered(2, ...names(8, 'phone'));
  site.access('sw-rack 21-26', 60);
  site.plug('sw-rack', 21, ['x-ray', 'ultrasound', 'dental-x-ray', 'blood-analyser']);
  for (let n = 1; n <= 4; n++) {
    site.cable(`sw-rack ${30 + n} = panel-a ${n}`);
    site.cable(`panel-a ${n} rear = printer-0${n}`, { length: 30 + n });
  }
  site.access('sw-rack 31-34', 20);
  site.access('sw-kennels 2-13', 50);
  site.plug('sw-kennels', 2, [...names(10, 'kennel-cam'), 'recorder']);
  site.powered(3, ...names(10, 'kennel-cam'));
  site.access('sw-kennels 14-20', 70);
  site.plug('sw-kennels', 14, [...names(6, 'run-temp'), 'air-handling']);
  site.box('sw-surgery', 'switch-8p', 'surgery');
  site.cable('sw-rack 50 = sw-surgery 9', { media: 'multi-mode', length: 40 });
  site.trunk('sw-rack 50', '10, 20, 60, 80');
  site.trunk('sw-surgery 9', '10, 20, 60, 80');
  site.trunk('sw-surgery 1-2', '20, 80', 10);
  for (const [i, ap] of ['ap-04', 'ap-05'].entries()) {
    site.box(ap, 'ap-1', ['surgery corridor', 'yard'][i]!);
    site.cable(`sw-surgery ${i + 1} = ${ap} 1`);
    site.trunk(`${ap} 1`, '20, 80', 10);
    site.trunk(`${ap} inside`, '20, 80', 10);
    site.powered(4, ap);
  }
  site.access('sw-surgery 3-6', 60);
  site.plug('sw-surgery', 3, ['monitor-01', 'monitor-02', 'anaesthesia']);
  site.parkRest('sw-surgery');
  site.trunk('sw-rack inside', 'none', 10);
  site.parkRest('gw-1', 'sw-kennels');
}

/** A core switch and two rail switches in a ring, one more on a spur, and a switch without VLANs inside a machine. */
export function creameryGear(site: DemoSite): void {
  site.box('gw-1', 'gateway-6', 'comms cupboard');
  site.box('sw-a', 'switch-24p', 'comms cupboard', { spanningTree: 'rstp' });
  site.box('sw-b', 'rail-8p', 'bottling hall');
  site.box('sw-c', 'rail-8p', 'cold store', { loginChanged: null, loginKept: '' });
  site.box('sw-d', 'rail-8', 'pasteuriser');
  site.box('hub-filler', 'plain-8', 'inside the filler');
  site.box('ap-01', 'ap-1', 'office');
  site.box('ap-02', 'ap-1', 'weighbridge');
  const all = '100, 110, 120, 130, 140, 150, 160, 210, 220, 230, 240';
  site.cable('gw-1 3 = sw-a 1');
  site.trunk('gw-1 3', all);
  site.trunk('sw-a 1', all);
  site.do('assignPorts', { ports: site.ports('gw-1 2'), role: 'uplink' });
  const fibre = { media: 'multi-mode', length: 120 };
  for (const text of ['sw-a 25 = sw-b 9', 'sw-b 10 = sw-c 9', 'sw-c 10 = sw-a 26', 'sw-a 27 = sw-d 9'])
    site.cable(text, fibre);
  site.trunk('sw-a 25', '110, 140, 210, 220, 230');
  site.trunk('sw-b 9', '110, 140, 210, 220, 230');
  // The other way round the ring does not carry the pasteuriser cell.
  site.trunk('sw-b 10', '110, 140, 220, 230');
  site.trunk('sw-c 9', '110, 140, 210, 220, 230');
  site.trunk('sw-c 10', '110, 140, 210, 220, 230');
  site.trunk('sw-a 26', '110, 140, 210, 220, 230');
  site.trunk('sw-a 27', '110, 210');
  site.trunk('sw-d 9', '110, 210');
  site.trunk('sw-a 2-3', '120, 150', 110);
  site.plug('sw-a', 2, ['ap-01 1', 'ap-02 1']);
  for (const ap of ['ap-01', 'ap-02']) {
    site.trunk(`${ap} 1`, '120, 150', 110);
    site.trunk(`${ap} inside`, '120, 150', 110);
    site.powered(4, ap);
  }
  site.access('sw-a 4', 240);
  site.access('sw-a 5-8', 140);
  site.voice('sw-a 9-16', 120);
  site.access('sw-a 18-20', 100);
  site.plug('sw-a', 4, ['historian', ...names(4, 'gate-cam')]);
  site.powered(3, ...names(4, 'gate-cam'));
  site.plug('sw-a', 9, names(8, 'phone'));
  site.powered(2, ...names(8, 'phone'));
  site.plug('sw-a', 18, ['scada-a', 'scada-b', 'alarm']);
  site.access('sw-b 1-2', 220);
  site.access('sw-b 4-5', 220);
  site.access('sw-b 3', 140);
  site.cable('sw-b 1 = hub-filler 1');
  site.plug('hub-filler', 2, ['filler', 'capper', 'panel-line-01', 'conveyor-01']);
  site.plug('sw-b', 2, ['labeller', 'hall-cam-01', 'packer', 'palletiser']);
  site.powered(3, 'hall-cam-01');
  site.access('sw-c 1-2', 230);
  // A cell controller in the wrong segment's port.
  site.access('sw-c 3-4', 210);
  site.access('sw-c 5', 140);
  site.plug('sw-c', 1, ['compressor-01', 'compressor-02', 'condenser', 'cold-temp-01', 'store-cam-01']);
  site.powered(3, 'store-cam-01');
  site.access('sw-d 1-6', 210);
  site.plug('sw-d', 1, [
    'pasteuriser',
    'homogeniser',
    'separator',
    'panel-pasteuriser',
    'valve-island',
    'cip-skid',
  ]);
  site.do('mapPorts', {
    device: site.plan.port.get(site.ports('sw-b 1')[0]!)!.device,
    name: 'fe{n-1}',
    index: '{10-n}',
  });
  site.box('sw-e', 'rail-8p', 'silo yard');
  site.box('sw-f', 'switch-24p', 'office');
  site.cable('sw-a 28 = sw-e 9', fibre);
  site.trunk('sw-a 28', '110, 140, 160');
  site.trunk('sw-e 9', '110, 140, 160');
  site.access('sw-e 1-6', 160);
  site.plug('sw-e', 1, ['weighbridge', 'barrier', ...names(4, 'silo-level')]);
  site.cable('sw-a 24 = sw-f 1', { length: 64 });
  site.trunk('sw-a 24', '110, 120, 130, 150');
  site.trunk('sw-f 1', '110, 120, 130, 150');
  site.trunk('sw-f 2-5', '120, 150', 110);
  for (let n = 3; n <= 6; n++) {
    const ap = `ap-0${n}`;
    site.box(ap, 'ap-1', ['office', 'laboratory', 'canteen', 'drivers’ room'][n - 3]!);
    site.cable(`sw-f ${n - 1} = ${ap} 1`);
    site.trunk(`${ap} 1`, '120, 150', 110);
    site.trunk(`${ap} inside`, '120, 150', 110);
    site.powered(4, ap);
  }
  site.voice('sw-f 6-9', 120);
  site.plug('sw-f', 6, names(4, 'phone', 9));
  site.powered(2, ...names(4, 'phone', 9));
  site.access('sw-f 10-12', 120);
  site.plug('sw-f', 10, names(3, 'printer'));
  site.parkRest('sw-e', 'sw-f');
  for (const text of ['sw-a 21-23', 'sw-b 6-8', 'sw-c 6-8', 'sw-d 7-8', 'sw-d 10', 'gw-1 4-6'])
    site.do('assignPorts', { ports: site.ports(text), role: 'parked' });
}
