import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { formatAddress, parseAddress } from '../core/address';
import { telephoneOptions } from '../core/formats';
import { addressesOn, gatewaysOf, interfacesOf, subnetOf } from '../core/plan';
import { withTelephones } from '../core/testing/access';
import { deviceNamed, vlanFor } from '../core/testing/gear';
import { dnsmasq } from './leases';
import { Namespaces, namespacesMissing } from './namespaces';

/** What telephones are told, read by dnsmasq, and heard by a client. */

const missing = namespacesMissing();
if (missing !== null)
  console.log(`dnsmasq is not tried on the kernel: no network namespaces can be made here (${missing}).`);
const onKernel = missing === null ? test : test.skip;

let folder: string;
beforeAll(() => {
  folder = fs.mkdtempSync(path.join(os.tmpdir(), 'dianome-voice-'));
});
afterAll(() => fs.rmSync(folder, { recursive: true }));

const HEARD =
  '#!/bin/sh\n[ "$1" = bound ] && env | grep -E "^(ip|router|tftp|sipsrv|opt66|opt150|opt120)="\nexit 0\n';
const hex = (address: string): string => parseAddress(address)!.toString(16).padStart(8, '0');

/**
 * What a client hears that asks for the three options, by name; an option it has no name for by its bytes. Under log, what the server
 * says it told it: a client may refuse a URL where it wants a name.
 */
async function told(options: string, gateway: string, length: number): Promise<Map<string, string>> {
  const net = new Namespaces();
  try {
    const own = (name: string) => path.join(folder, name);
    const [config, script, log] = [own('options.conf'), own('heard'), own('log')];
    fs.writeFileSync(config, options);
    fs.writeFileSync(script, HEARD, { mode: 0o755 });
    net.add('server');
    net.add('phone');
    net.cable('server', 'lan0', 'phone', 'lan0');
    net.ip('server', `addr add ${gateway}/${length} dev lan0`);
    // Read as it is, by itself.
    net.exec('server', 'dnsmasq', ['--test', `--conf-file=${config}`]);
    dnsmasq(net, 'server', [`--conf-file=${config}`, '--log-dhcp', `--log-facility=${log}`]);
    const asked = ['66', '150', '120'].flatMap((option) => ['-O', option]);
    const text = await net.said('phone', 'udhcpc', [
      ...['-i', 'lan0', '-f', '-n', '-q', '-t', '10', '-T', '1', '-s', script],
      ...asked,
    ]);
    return new Map([
      ['log', fs.readFileSync(log, 'utf8')] as const,
      ...text
        .split('\n')
        .filter((line) => /^\w+=/.test(line))
        .map((line) => [line.slice(0, line.indexOf('=')), line.slice(line.indexOf('=') + 1).trim()] as const),
    ]);
  } finally {
    net.close();
  }
}

onKernel.each([
  ['a URL and a name', { boot: 'http://boot.example.net/a,b', registrar: 'sip.example.net:5070' }],
  ['addresses', { boot: '198.51.100.7', bootOption: '150', registrar: 'auth' }],
] as const)('dnsmasq tells a telephone %s', async (_name, fields) => {
  const plan = withTelephones(fields);
  const subnet = subnetOf(plan, vlanFor(plan, 'voice').id, 4)!;
  const [gateway] = gatewaysOf(plan, subnet.id);
  const [pool] = [...plan.pool.group(subnet.id).values()];
  const heard = await told(telephoneOptions(plan), formatAddress(gateway!.address), subnet.prefix.length);
  const ip = parseAddress(heard.get('ip') ?? '') as number;
  expect(ip).toBeGreaterThanOrEqual(pool!.start as number);
  expect(ip).toBeLessThanOrEqual(pool!.end as number);
  expect(heard.get('router')).toBe(formatAddress(gateway!.address));
  const [card] = interfacesOf(plan, deviceNamed(plan, 'auth').id);
  const auth = formatAddress(addressesOn(plan, card!.id)[0]!.address);
  if (fields.registrar === 'auth') {
    expect(heard.get('opt150')).toBe(hex('198.51.100.7'));
    expect(heard.get('tftp') ?? heard.get('opt66')).toBeUndefined();
    expect(heard.get('sipsrv')).toBe(auth);
  } else {
    expect(heard.get('log')).toMatch(/option: 66 tftp-server +http:\/\/boot\.example\.net\/a,b$/m);
    expect(heard.get('sipsrv')).toBe('sip.example.net');
  }
});
