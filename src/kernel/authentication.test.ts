import { execFileSync, spawn } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { formatAddress } from '../core/address';
import {
  filterRules,
  hostapdPort,
  hostapdRadio,
  macAsName,
  octetsOf,
  radiusClients,
  radiusUsers,
} from '../core/formats';
import { type Plan, addressesOn, interfacesOf, securities } from '../core/plan';
import { widthsOf } from '../core/model/wireless';
import { authenticate, serverWays } from '../core/rehearse';
import { listens, soundAccess, withServer } from '../core/testing/access';
import { deviceNamed, portNamed, put } from '../core/testing/gear';
import { done } from '../core/testing/plans';
import { radioOf, soundWireless, ssidNamed } from '../core/testing/wireless';
import { Namespaces, namespacesMissing } from './namespaces';
import { serverSettings } from './radius-server';

/** The files for authentication, read by the programs they are for; what these come to is what the rehearsal says. */

const missing = namespacesMissing();
if (missing !== null)
  console.log(`802.1X is not tried on the kernel: no network namespaces can be made here (${missing}).`);
const onKernel = missing === null ? test : test.skip;

let folder: string;
beforeAll(() => {
  folder = fs.mkdtempSync(path.join(os.tmpdir(), 'dianome-eap-'));
});
afterAll(() => fs.rmSync(folder, { recursive: true }));
const write = (name: string, text: string): string => {
  const file = path.join(folder, name);
  fs.writeFileSync(file, text);
  return file;
};

const serverFiles = (plan: Plan): void => {
  write('clients.conf', radiusClients(plan));
  write('authorize', radiusUsers(plan, TODAY));
  write('radiusd.conf', serverSettings(folder));
};

const peer = (name: string, password: string): string => `
ap_scan=0
network={
  key_mgmt=IEEE8021X
  eap=MD5
  identity="${name}"
  password="${password}"
  eapol_flags=0
}
`;
const secretOf = (box: string): string => `SET-THE-SECRET-OF-${box}`;
const passwordOf = (name: string): string => `SET-THE-PASSWORD-OF-${name}`;
const addressOf = (plan: Plan, name: string): string => {
  const [card] = interfacesOf(plan, deviceNamed(plan, name).id);
  return formatAddress(addressesOn(plan, card!.id)[0]!.address);
};

const READY = /Ready to process requests/;
const ENDED = /CTRL-EVENT-EAP-(SUCCESS|FAILURE)/;
/** The VLAN a server names for a device, as the programs print its answer. */
function vidIn(said: string): number | null {
  const octets = /Attribute 81 \(Tunnel-Private-Group-Id\).*\n\s+Value: ([0-9a-f]+)/.exec(said)?.[1];
  if (octets) return Number(Buffer.from(octets, 'hex').toString());
  const tagged = /Attribute 56 .*\n\s+Value: 31([0-9a-f]{6})/.exec(said)?.[1];
  return tagged ? parseInt(tagged, 16) : null;
}

/** How many octets of a list a server hands out when it lets in: of this attribute the programs print no more. */
function octetsIn(said: string): number {
  const accepted = said.split(/RADIUS message: code=/).find((part) => part.startsWith('2 '));
  return [...(accepted ?? '').matchAll(/Attribute 92 \([^)]*\) length=(\d+)/g)].reduce(
    (sum, [, length]) => sum + Number(length),
    0,
  );
}

/** With zones, and ports that take lists. */
function listing(): Plan {
  const plan = done(soundAccess(), 'startPolicy', { kind: 'office' });
  const [access] = [...plan.access.values()];
  return put(plan, 'access', access!, { takesList: true });
}
const TODAY = '2026-05-04';
const sound = listing();

/** The server and two boxes on one wire, and behind sw-b 3 a device. */
function site(): Namespaces {
  const network = new Namespaces();
  for (const name of ['lan', 'auth', 'sw-a', 'sw-b', 'device']) network.add(name);
  network.ip('lan', 'link add br0 type bridge');
  network.ip('lan', 'link set br0 up');
  for (const name of ['auth', 'sw-a', 'sw-b']) {
    network.cable('lan', `to${name}`, name, 'net0');
    network.ip('lan', `link set to${name} master br0`);
    network.ip(name, `addr add ${addressOf(sound, name)}/24 dev net0`);
  }
  network.cable('sw-b', 'eth3', 'device', 'eth0');
  return network;
}

interface Case {
  readonly at: readonly [string, number];
  readonly device: string | null;
  readonly by: 'dot1x' | 'mac';
  readonly credentials?: 'good' | 'bad';
  readonly plan?: Plan;
}
const noMac = (name: string): Plan => {
  const [card] = interfacesOf(sound, deviceNamed(sound, name).id);
  return put(sound, 'interface', card!, { mac: null });
};
const macOfDevice = (plan: Plan, name: string): string => {
  const [card] = interfacesOf(plan, deviceNamed(plan, name).id);
  return macAsName(card!.mac ?? '02:00:00:00:00:01');
};
const cases: readonly (readonly [string, Case])[] = [
  ['a computer with its password', { at: ['sw-b', 3], device: 'leased', by: 'dot1x' }],
  ['with a wrong password', { at: ['sw-b', 3], device: 'leased', by: 'dot1x', credentials: 'bad' }],
  ['a stranger', { at: ['sw-b', 3], device: null, by: 'dot1x' }],
  ['a camera by its MAC address', { at: ['sw-a', 3], device: 'cam-1', by: 'mac' }],
  ['a telephone by its MAC address, tagged', { at: ['sw-a', 4], device: 'phone', by: 'mac' }],
  ['a computer without a fixed segment', { at: ['sw-a', 5], device: 'visitor', by: 'dot1x' }],
  ['the same with a wrong password', { at: ['sw-a', 5], device: 'visitor', by: 'dot1x', credentials: 'bad' }],
  [
    'a camera whose MAC address nobody recorded',
    { at: ['sw-a', 3], device: 'cam-1', by: 'mac', plan: noMac('cam-1') },
  ],
  [
    'a server asked at the old port',
    {
      at: ['sw-b', 3],
      device: 'leased',
      by: 'dot1x',
      plan: withServer(listens(sound, 'udp', 1812), { port: 1645, timeout: 1 }),
    },
  ],
];

/** What eapol_test, as the box and the device in one, comes to: the outcome and the VLAN that the server names. */
async function tried(network: Namespaces, { at: [box], device, by, credentials, plan = sound }: Case) {
  const identity = device === null ? 'stranger' : by === 'mac' ? macOfDevice(plan, device) : device;
  const password = by === 'mac' ? identity : credentials === 'bad' ? 'another' : passwordOf(identity);
  const [server] = serverWays(plan, deviceNamed(plan, box).id, { group: '' });
  const said = await network.told(
    box,
    'eapol_test',
    [
      ...['-n', '-c', write('peer.conf', peer(identity, password)), '-t', '4', '-r', '0'],
      ...['-a', addressOf(plan, 'auth'), '-p', String(server!.port), '-s', secretOf(box)],
    ],
    /never/,
  );
  const heard = /RADIUS message: code=(2|3) /.exec(said)?.[1];
  return {
    outcome: heard === '2' ? 'let in' : heard === '3' ? 'refused' : 'no server',
    vid: vidIn(said),
    octets: octetsIn(said),
  };
}

onKernel(
  'the server reads both files, and comes to what the rehearsal says',
  async () => {
    const network = site();
    try {
      serverFiles(sound);
      expect(execFileSync('freeradius', ['-XC', '-d', folder], { encoding: 'utf8' })).toContain(
        'Configuration appears to be OK',
      );
      const silent = await tried(network, cases[0]![1]);
      expect(silent.outcome).toBe('no server');
      const off = { servers: 'silent', credentials: 'good' } as const;
      const { id } = portNamed(sound, 'sw-b', 3);
      expect(authenticate(sound, id, deviceNamed(sound, 'leased').id, off)!.outcome).toBe('no server');

      await network.told(
        'auth',
        'freeradius',
        ['-f', '-l', 'stdout', '-d', folder],
        /Ready to process requests/,
      );
      let lists = 0;
      for (const [name, one] of cases) {
        const plan = one.plan ?? sound;
        const port = portNamed(plan, ...one.at);
        const device = one.device === null ? null : deviceNamed(plan, one.device).id;
        const circumstances = { servers: 'as planned', credentials: one.credentials ?? 'good' } as const;
        const rehearsed = authenticate(plan, port.id, device, circumstances)!;
        const found = await tried(network, one);
        expect([name, found.outcome]).toEqual([name, rehearsed.outcome]);
        const octets = rehearsed.list === null ? 0 : octetsOf(filterRules(plan, rehearsed.list, TODAY));
        expect([name, found.octets]).toEqual([name, octets]);
        lists += rehearsed.list ? 1 : 0;
        if (rehearsed.outcome === 'let in')
          expect([name, found.vid ?? plan.vlan.get(port.untagged!)!.vid]).toEqual([
            name,
            rehearsed.vlan!.vid,
          ]);
      }
      expect(lists).toBeGreaterThan(1);
    } finally {
      network.close();
    }
  },
  300_000,
);

onKernel.each(['good', 'bad'] as const)(
  'a wired authenticator and a device with a %s password at its port come to what the rehearsal says',
  async (credentials) => {
    const network = site();
    try {
      serverFiles(sound);
      await network.told('auth', 'freeradius', ['-f', '-l', 'stdout', '-d', folder], READY);
      const port = portNamed(sound, 'sw-b', 3);
      const { id } = deviceNamed(sound, 'leased');
      const { outcome, vlan } = authenticate(sound, port.id, id, { servers: 'as planned', credentials })!;
      const file = write('eth3.conf', hostapdPort(sound, port)!);
      const authenticator = network.told(
        'sw-b',
        'hostapd',
        ['-dd', file],
        /RADIUS message: code=[23] [\s\S]*\n.*STA/,
      );
      const password = credentials === 'good' ? passwordOf('leased') : 'another';
      const said = await network.told(
        'device',
        'wpa_supplicant',
        ['-D', 'wired', '-i', 'eth0', '-c', write('leased.conf', peer('leased', password))],
        ENDED,
      );
      expect(ENDED.exec(said)?.[1]).toBe(outcome === 'let in' ? 'SUCCESS' : 'FAILURE');
      const heard = await authenticator;
      if (outcome === 'let in') expect(vidIn(heard)).toBe(vlan!.vid);
      else expect(heard).toContain('code=3 (Access-Reject)');
    } finally {
      network.close();
    }
  },
  300_000,
);

const withRadius = (plan: Plan): Plan => {
  const [address] = [...plan.address.values()].filter(({ gateway }) => !gateway);
  return done(plan, 'addRadius', { address: address!.id });
};

/** What hostapd says of a file before it looks for a radio. */
function readBy(text: string): Promise<string> {
  const child = spawn('hostapd', [write('radio.conf', text.replace('driver=nl80211', 'driver=none'))]);
  let said = '';
  return new Promise((ended) => {
    child.stdout.on('data', (part: Buffer) => {
      said += part.toString();
      if (/interface state|errors? found/.test(said)) child.kill('SIGKILL');
    });
    child.on('close', () => ended(said));
  });
}

test('hostapd reads the networks of every security, band and width', async () => {
  const wireless = withRadius(soundWireless());
  const office = ssidNamed(wireless, 'Office');
  const widths = (['2.4', '5'] as const).flatMap((band) =>
    widthsOf[band].map((width) => [band, width] as const),
  );
  const plans = [
    ...securities.map((security) => [put(wireless, 'ssid', office, { security }), '5', '20'] as const),
    ...widths.map(([band, width]) => [wireless, band, width] as const),
    [put(wireless, 'ssid', office, { name: 'Büro 💡', hidden: true, isolated: true }), '2.4', '20'] as const,
  ];
  for (const [plan, band, width] of plans) {
    const radio = { ...radioOf(plan, 'ap', band), width, channel: band === '2.4' ? 1 : 36 };
    const text = hostapdRadio(plan, radio);
    expect(text).not.toContain('It sends no network');
    expect(await readBy(text)).not.toMatch(/Line \d+|errors? found|invalid/i);
  }
  const wrong = `${hostapdRadio(wireless, radioOf(wireless, 'ap', '5'))}no_such_word=1\n`;
  expect(await readBy(wrong)).toMatch(/Line \d+: unknown configuration item 'no_such_word'/);
});
