import { typedVlan } from '../../src/core/model/wiring';
import type { DemoSite } from './builder';

/** What the boxes of the demo sites guard, with the mistakes people make there. */

function guard(
  site: DemoSite,
  names: readonly string[],
  vids: readonly number[],
  set: Readonly<Record<string, boolean>>,
): void {
  site.do('switchOnGuards', {
    devices: names.map((name) => site.device(name)),
    vlans: vids.map((vid) => typedVlan(site.plan, String(vid)).id),
    set,
  });
}
function hold(site: DemoSite, ports: string, set: Readonly<Record<string, unknown>>): void {
  site.do('setPortGuards', { ports: site.ports(ports), set });
}

export function rowHouseGuards(site: DemoSite): void {
  guard(site, ['sw-cellar'], [20, 60], { snooping: true });
  // Somebody trusted one port more while looking for a fault.
  hold(site, 'sw-cellar 5', { trustsDhcp: true });
}

export function clinicGuards(site: DemoSite): void {
  guard(site, ['sw-rack', 'sw-surgery'], [20, 60], { snooping: true });
  // One address at a port for a telephone with a computer behind it.
  hold(site, 'sw-rack 13', { macLimit: 1, macAction: 'tell' });
  clinicAccess(site);
  clinicTelephones(site);
  // Done on the day the rack was built, and not gone on with.
  site.do('tickHardening', {
    devices: [site.device('sw-rack')],
    items: ['name', 'login', 'sessions', 'reach', 'time', 'saved'],
    done: '2026-09-14',
    by: 'Ines',
  });
}

/** Treatment rooms are open to visitors, so their ports ask who is there. */
function clinicAccess(site: DemoSite): void {
  site.do('addRadius', { address: site.addressOf('directory').id });
  site.do('addAccess', { name: 'rooms' });
  const [rooms] = [...site.plan.access.values()];
  const vlan = (vid: number) => typedVlan(site.plan, String(vid)).id;
  site.edit('access', rooms!.id, {
    mode: 'closed',
    takesList: true,
    guest: vlan(80),
    failed: vlan(80),
    critical: vlan(60),
    // Longer than a DHCP client waits.
    period: 30,
    tries: 3,
  });
  hold(site, 'sw-rack 21-24', { access: rooms!.id });
  hold(site, 'sw-surgery 3-5', { access: rooms!.id });
  const known = (names: readonly string[], by: string) =>
    site.do('setIdentity', { devices: names.map((name) => site.device(name)), by });
  known(['x-ray', 'dental-x-ray'], 'dot1x');
  known(['ultrasound', 'blood-analyser', 'monitor-01', 'monitor-02'], 'mac');
  // It never speaks first, and is asked all the same.
  known(['anaesthesia'], 'neither');
}

/** What the telephones are told; one switch forgets which packets are voice. */
function clinicTelephones(site: DemoSite): void {
  const voice = typedVlan(site.plan, '40').id;
  site.do('addTelephony', { vlan: voice });
  const [told] = [...site.plan.telephony.values()];
  site.edit('telephony', told!.id, {
    boot: 'http://phones.clinic.example.net/boot',
    registrar: 'sip.clinic.example.net',
  });
  const hop = (names: readonly string[], set: object) =>
    site.do('setVoiceHop', { devices: names.map((name) => site.device(name)), set });
  hop(['sw-rack', 'sw-surgery'], { announces: 'yes', marks: 'kept', queue: 'yes' });
  hop(['gw-1'], { marks: 'kept', queue: 'no' });
}

export function creameryGuards(site: DemoSite): void {
  guard(site, ['sw-e'], [120, 160], { snooping: true, inspection: true });
  guard(site, ['sw-f'], [130], { snooping: true });
  // A binding that was forgotten.
  const forgotten = site.addressOf('silo-level-03').id;
  site.do('removeBinding', {
    bindings: [...site.plan.binding.values()].flatMap(({ id, address }) =>
      address === forgotten ? [id] : [],
    ),
  });
}
