import { formatPrefix } from '../../src/core/address';
import { gatewaysOf, vlansOf } from '../../src/core/plan';
import { uplinksOf } from '../../src/core/model/uplink';
import type { DemoSite } from './builder';

/** Names the uplink that was recorded first, and says what it is like. */
function uplink(site: DemoSite, name: string, port: string, fields: Record<string, unknown>): string {
  site.do('addUplink', { name, port: site.ports(port)[0] });
  const { id } = uplinksOf(site.plan).find((item) => item.name === name)!;
  site.edit('uplink', id, fields);
  return id;
}

const listeners = (site: DemoSite, host: string, ...ports: (readonly ['tcp' | 'udp', number])[]) => {
  for (const [protocol, port] of ports) site.do('addListener', { device: site.device(host), protocol, port });
};

/** Whom a host lets in by itself. */
const firewall = (site: DemoSite, host: string, value: string) =>
  site.edit('device', site.device(host), { firewall: value });

/** The provider's box still routes, so nothing gets in; and the heat pump's control is open, were it to. */
export function rowHouseInternet(site: DemoSite): void {
  const line = uplink(site, 'cable', 'gw-1 1', {
    upstream: 'routing',
    outside: 'private',
    address: '192.168.1.20',
    network: '192.168.1.0/24',
    down: 250,
    up: 25,
    dynamicName: 'weir12.example.net',
  });
  listeners(site, 'disk-station', ['tcp', 443], ['tcp', 445]);
  firewall(site, 'disk-station', 'as-listed');
  listeners(site, 'heat-pump', ['tcp', 502], ['tcp', 443]);
  listeners(site, 'recorder', ['tcp', 443], ['tcp', 554]);
  site.do('addForward', { uplink: line, target: site.card('disk-station'), inside: 443, from: 8443 });
  site.do('addForward', {
    uplink: line,
    target: site.card('heat-pump'),
    inside: 502,
    note: 'for its installer',
  });
}

/** A fixed public address over PPPoE, with the packet size of plain Ethernet left in. */
export function clinicInternet(site: DemoSite): void {
  const line = uplink(site, 'fibre', 'gw-1 1', {
    addressing: 'pppoe',
    providerVlan: 7,
    outside: 'public',
    address: '203.0.113.42',
    mtu: 1500,
    down: 500,
    up: 100,
  });
  listeners(site, 'images', ['tcp', 443], ['tcp', 11112]);
  firewall(site, 'images', 'none');
  listeners(site, 'records', ['tcp', 443]);
  site.do('addForward', {
    uplink: line,
    target: site.card('images'),
    inside: 443,
    sources: ['198.51.100.0/27'],
    note: 'referring surgery',
  });
  site.do('addForward', {
    uplink: line,
    target: site.card('records'),
    inside: 4443,
    note: 'owners see their records',
  });
  // The provider's box is kept for the telephones; nobody told it to mark its voice.
  site.do('addHost', {
    subnet: site.subnet(vlansOf(site.plan).find(({ code }) => code === 'VO')!.id).id,
    name: 'provider-voice',
    kind: 'provider-box',
    mac: site.nextMac(),
    assignment: 'reservation',
  });
  site.do('keepVoiceBox', { device: site.device('provider-voice') });
  const [kept] = [...site.plan.voiceBox.values()];
  site.edit('voiceBox', kept!.id, {
    own: '192.168.178.0/24',
    tagRepeated: true,
    firstInQueue: true,
    backedUp: true,
  });
}

/** Fibre first, mobile when it fails; the mobile address is shared, and the fibre is judged by the box next to it. */
export function creameryInternet(site: DemoSite): void {
  const fibre = uplink(site, 'fibre', 'gw-1 1', {
    addressing: 'static',
    outside: 'public',
    address: '198.51.100.10',
    network: '198.51.100.8/29',
    monitor: '198.51.100.9',
    down: 300,
    up: 300,
  });
  const mobile = uplink(site, 'mobile', 'gw-1 2', {
    upstream: 'mobile',
    outside: 'shared',
    address: '100.64.12.7',
    monitor: '192.0.2.53',
    monitorEvery: 30,
    down: 80,
    up: 20,
    cap: 200,
  });
  listeners(site, 'historian', ['tcp', 8883], ['tcp', 443], ['tcp', 9443]);
  firewall(site, 'jump-host', 'as-listed');
  listeners(site, 'jump-host', ['tcp', 443], ['udp', 4500]);
  site.do('addForward', {
    uplink: fibre,
    target: site.card('historian'),
    inside: 8883,
    note: 'milk tankers report',
  });
  site.do('addForward', {
    uplink: mobile,
    target: site.card('historian'),
    inside: 8883,
    note: 'the same by mobile',
  });
  site.do('addForward', {
    uplink: fibre,
    target: site.card('jump-host'),
    inside: 443,
    sources: ['203.0.113.64/28'],
    note: 'maker of the bottling line',
  });
  site.do('addTunnel', {
    name: 'plant north',
    remote: ['10.45.0.0/16'],
    peer: 'north.example.net',
    initiates: false,
  });
}

/** The provider delegates a prefix, and the disk station has an address of it that nobody is let in to. */
export function rowHouseSix(site: DemoSite): void {
  const [line] = uplinksOf(site.plan);
  site.edit('uplink', line!.id, { delegated: '2001:db8:12::/48' });
  const { space } = site.plan.site.get('site')!;
  const known = space.map(formatPrefix);
  site.edit('site', 'site', { space: [...known, '2001:db8:12::/48'], documentation: true });
  const { vlan } = site.plan.subnet.get(site.addressOf('disk-station').subnet)!;
  site.do('addSubnet', { vlan, prefix: '2001:db8:12:14::/64' });
  const made = [...site.plan.subnet.values()].at(-1)!;
  site.do('addAddress', { device: site.device('disk-station'), subnet: made.id });
}

/** The pool of the office is leased by a server in another segment, to which the gateway passes questions on. */
export function creameryLeases(site: DemoSite): void {
  const office = vlansOf(site.plan).find(({ name }) => name === 'Office')!;
  const server = site.card('update-mirror');
  const { id: subnet } = site.subnet(office.id);
  for (const { id } of site.plan.pool.group(subnet).values()) site.edit('pool', id, { servedBy: [server] });
  const [gateway] = gatewaysOf(site.plan, subnet);
  site.do('setRelay', { interface: gateway!.interface, servers: [server] });
}
