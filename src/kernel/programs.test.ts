import { spawnSync } from 'node:child_process';
import fc from 'fast-check';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { formatAddress, parseAddress } from '../core/address';
import { type OpenFile, openFiles, readPlanFile } from '../core/formats';
import { layoutOfSubnet } from '../core/model/segments';
import { Draft, type Plan, addressesOf, addressesOn, hostOf, interfacesOf } from '../core/plan';
import { buildAccess, damagedAccess, soundAccess } from '../core/testing/access';
import { deviceNamed, put } from '../core/testing/gear';
import { buildInternet, damagedInternet, soundInternet } from '../core/testing/internet';
import { changeAtRandom, withEveryKind } from '../core/testing/kinds';
import { dualStack } from '../core/testing/outside';
import { build, damagedSite } from '../core/testing/plans';
import { soundPolicy } from '../core/testing/policy';
import { runs } from '../core/testing/runs';
import { soundTrees } from '../core/testing/trees';
import { namespacesMissing } from './namespaces';
import { serverSettings } from './radius-server';

/** Every file that another program reads, read by that program. */

let folder: string;
beforeAll(() => {
  folder = fs.mkdtempSync(path.join(os.tmpdir(), 'dianome-programs-'));
});
afterAll(() => fs.rmSync(folder, { recursive: true }));

function judged(program: string, args: readonly string[]): string {
  const { status, stdout, stderr } = spawnSync(program, args, { encoding: 'utf8' });
  if (status !== 0) throw new Error(`${program} ${args.join(' ')}: ${stdout}${stderr}`);
  return `${stdout}${stderr}`;
}

/** A ruleset is checked by the kernel, which not everybody may ask. */
const asksKernel = namespacesMissing() === null;

const WRITTEN = { today: '2026-11-30', revision: 41 };
const seen = new Map<string, number>();
/** Gives a file to the program that reads it. */
function read({ path: place, text }: OpenFile): void {
  const name = path.basename(place);
  const own = path.join(folder, name);
  const written = text(WRITTEN);
  seen.set(name, (seen.get(name) ?? 0) + 1);
  if (name === 'dnsmasq.conf' || name === 'telephones.conf') {
    fs.writeFileSync(own, written);
    expect(judged('dnsmasq', ['--test', `--conf-file=${own}`])).toContain('syntax check OK');
  } else if (name === 'kea-dhcp4.conf') {
    // It looks for the interfaces, which are on another machine. Who leases IPv6 only has nothing to say here.
    const conf = JSON.parse(written);
    if (conf.Dhcp4.subnet4) {
      expect(conf.Dhcp4['interfaces-config'].interfaces.length).toBeGreaterThan(0);
      conf.Dhcp4['interfaces-config'].interfaces = [];
    }
    fs.writeFileSync(own, JSON.stringify(conf));
    judged('kea-dhcp4', ['-t', own]);
  } else if (name === 'radvd.conf') {
    fs.writeFileSync(own, written);
    judged('radvd', ['-c', '-C', own]);
  } else if (name === 'interfaces') {
    fs.writeFileSync(own, written);
    const autos = [...written.matchAll(/^auto (\S+)$/gm)].map((found) => found[1]!);
    expect(new Set(judged('ifquery', ['-i', own, '--list']).split('\n').filter(Boolean))).toEqual(
      new Set(autos),
    );
    judged('ifup', ['--no-act', '-i', own, '-a']);
  } else if (name === 'ruleset.nft') {
    fs.writeFileSync(own, written);
    judged('nft', ['-c', '-f', own]);
  } else if (name.endsWith('.zone')) {
    fs.writeFileSync(own, written);
    expect(judged('named-checkzone', [name.slice(0, -5), own])).toContain('loaded serial 42');
  }
}
const isJudged = ({ path: place }: OpenFile): boolean =>
  /(dnsmasq|telephones|kea-dhcp4|radvd)\.conf$|\/interfaces$|\.zone$/.test(place) ||
  (asksKernel && place.endsWith('/ruleset.nft'));

/** The two files of a RADIUS server are read together. */
function readByServer(files: readonly OpenFile[]): void {
  const text = (place: string) => files.find((file) => file.path === `radius/${place}`)?.text(WRITTEN);
  const [clients, users] = [text('clients.conf'), text('users')];
  if (clients === undefined || users === undefined) return;
  fs.writeFileSync(path.join(folder, 'clients.conf'), clients);
  fs.writeFileSync(path.join(folder, 'authorize'), users);
  fs.writeFileSync(path.join(folder, 'radiusd.conf'), serverSettings(folder));
  expect(judged('freeradius', ['-XC', '-d', folder])).toContain('appears to be OK');
}

/** Ranges by subnet, as each of the two says them. */
const rangesIn = (text: string, line: RegExp): string[] =>
  [...text.matchAll(line)].map(([, start, end]) => `${start} ${end}`).sort();

/** Law: what is leased is what the plan leases, and whoever has an address for good gets it. */
function leasesAsPlanned(plan: Plan): void {
  const all = openFiles(plan);
  expect(new Set(all.map(({ path: place }) => place)).size).toBe(all.length);
  for (const file of all.filter(({ path: place }) => place.endsWith('/dnsmasq.conf'))) {
    const text = file.text(WRITTEN);
    const kea = all
      .find(({ path: place }) => place === file.path.replace('dnsmasq', 'kea-dhcp4'))!
      .text(WRITTEN);
    const four = rangesIn(text, /^dhcp-range=set:[\w-]+,([\d.]+),([\d.]+),/gm);
    expect(rangesIn(kea, /"pool": "([\d.]+) - ([\d.]+)"/g)).toEqual(four);
    const pools = [...plan.subnet.values()]
      .flatMap((subnet) => layoutOfSubnet(plan, subnet).runs)
      .filter(({ use }) => use === 'pool');
    for (const range of four) {
      const [start, end] = range.split(' ').map((one) => parseAddress(one)!) as [number, number];
      expect(start <= end && pools.some((run) => run.start <= start && end <= run.end)).toBe(true);
    }
    for (const [, mac, address, name] of text.matchAll(
      /^dhcp-host=([0-9a-f:]+),([\d.]+)(?:,([a-z][\w-]*))?/gm,
    )) {
      const planned = [...plan.subnet.values()]
        .flatMap(({ id }) => addressesOf(plan, id))
        .filter((one) => formatAddress(one.address) === address && one.assignment === 'reservation');
      expect(planned.map((one) => hostOf(plan, one).interface.mac?.toLowerCase())).toContain(mac);
      if (name) expect(planned.map((one) => hostOf(plan, one).device.name.toLowerCase())).toContain(name);
    }
  }
}

test.each(['1-row-house', '2-clinic', '3-creamery'])('every file of %s is taken by its program', (name) => {
  const plan = readPlanFile(fs.readFileSync(path.join('demo', `${name}.json`), 'utf8'));
  const files = openFiles(plan).filter(isJudged);
  expect(files.length).toBeGreaterThan(4);
  for (const file of files) read(file);
  leasesAsPlanned(plan);
});

test('whatever was done to a site, its files are still taken', () => {
  const drawn = fc.oneof(
    damagedSite.map(build),
    damagedInternet.map((damage) => buildInternet(damage, dualStack(soundInternet()))),
    damagedAccess.map((damage) => buildAccess(damage, soundAccess())),
  );
  fc.assert(
    fc.property(drawn, (plan) => {
      for (const file of openFiles(plan).filter(isJudged)) read(file);
      leasesAsPlanned(plan);
    }),
    { numRuns: runs(20), seed: 17 },
  );
  for (const name of ['dnsmasq.conf', 'kea-dhcp4.conf', 'interfaces', 'radvd.conf'])
    expect([name, (seen.get(name) ?? 0) > 3]).toEqual([name, true]);
});

test('nor does any plan, however little sense it makes, have a file that its program refuses', () => {
  const everything = [soundTrees(soundPolicy()), dualStack(soundInternet()), soundAccess()].map((plan, at) =>
    withEveryKind(plan, at),
  );
  const seeds = fc.array(fc.nat(), { minLength: 1, maxLength: 12 });
  fc.assert(
    fc.property(fc.constantFrom(...everything), seeds, (start, drawn) => {
      const all = openFiles(drawn.reduce(changeAtRandom, start));
      expect(new Set(all.map(({ path: place }) => place)).size).toBe(all.length);
      for (const file of all.filter(isJudged)) read(file);
      readByServer(all);
    }),
    { numRuns: runs(40) },
  );
});

test('a RADIUS server knows each box by an address of its own, whatever boxes are called', () => {
  const sound = soundAccess();
  const boxes = ['sw-a', 'sw-b'].map((name) => deviceNamed(sound, name));
  const called = ['Front desk', 'a"b\\c'];
  let plan = boxes.reduce((now, box, at) => put(now, 'device', box, { name: called[at]! }), sound);
  readByServer(openFiles(plan));
  const [one, two] = boxes.map(({ id }) => addressesOn(plan, interfacesOf(plan, id)[0]!.id)[0]!);
  plan = put(plan, 'address', two!, { address: one!.address });
  readByServer(openFiles(plan));
  const clients = openFiles(plan)
    .find((file) => file.path === 'radius/clients.conf')!
    .text(WRITTEN);
  expect(clients).toMatch(/^# .* has [\d.]+, which is that of .* already\.$/m);
});

test('a server listens where it leases or answers names, and nowhere else', () => {
  const house = readPlanFile(fs.readFileSync('demo/1-row-house.json', 'utf8'));
  const [vlan] = [...house.vlan.values()].filter(({ vid }) => vid === 40);
  const conf = (plan: Plan) =>
    openFiles(plan)
      .find(({ path: place }) => place === 'gw-1/dnsmasq.conf')!
      .text(WRITTEN);
  expect(conf(house)).toContain('interface=vlan40\n');
  const draft = new Draft(house, 'quiet');
  for (const { id, vlan: of } of house.subnet.values())
    if (of === vlan!.id) {
      for (const pool of house.pool.group(id).values()) draft.remove('pool', pool.id);
      draft.update('subnet', id, { dns: [] });
    }
  expect(conf(draft.plan)).not.toContain('vlan40');
  expect(conf(draft.plan)).toContain('interface=vlan20\n');
  // It is asked for names, so it answers them.
  expect(conf(draft.plan)).not.toContain('port=0');
});
