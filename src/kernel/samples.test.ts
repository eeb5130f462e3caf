import { spawnSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { dnsmasqSample, nftSample, zoneSample } from '../core/testing/files';

/** The files that the tests of bringing in read are files that their programs take. */

let folder: string;
beforeAll(() => {
  folder = fs.mkdtempSync(path.join(os.tmpdir(), 'dianome-samples-'));
});
afterAll(() => fs.rmSync(folder, { recursive: true }));

test.each([
  ['dnsmasq', dnsmasqSample, (file: string) => ['dnsmasq', '--test', `--conf-file=${file}`]],
  ['a zone', zoneSample, (file: string) => ['named-checkzone', 'clinic.example.net', file]],
  ['nftables', nftSample, (file: string) => ['nft', '--check', '--file', file]],
])('%s', (name, text, commandOf) => {
  const file = path.join(folder, name);
  fs.writeFileSync(file, `${text}\n`);
  const [program, ...args] = commandOf(file);
  const { status, stderr } = spawnSync(program!, args, { encoding: 'utf8' });
  expect([status, status === 0 ? '' : stderr]).toEqual([0, '']);
});
