import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import fs from 'node:fs';
import path from 'node:path';
import { readOr, root, withLock } from './paths.mjs';
import { Stop } from './say.mjs';

/** Which build this is: pages ask by it whether the program was updated under them. */
export const buildVersion = () => readOr(path.join(root, '.next/dianome-stamp'), '').slice(0, 12);

const programs = {
  'mariadb-server-core': '/usr/sbin/mariadbd',
  'mariadb-client-core': '/usr/bin/mariadb',
  'mariadb-client': '/usr/bin/mariadb-dump',
  'chromium-headless-shell': '/usr/bin/chromium-headless-shell',
  iproute2: '/usr/sbin/ip',
  nftables: '/usr/sbin/nft',
  'iputils-ping': '/usr/bin/ping',
  'dnsmasq-base': '/usr/sbin/dnsmasq',
  udhcpc: '/usr/sbin/udhcpc',
  hostapd: '/usr/sbin/hostapd',
  wpasupplicant: '/usr/sbin/wpa_supplicant',
  eapoltest: '/usr/bin/eapol_test',
  freeradius: '/usr/sbin/freeradius',
  'kea-dhcp4-server': '/usr/sbin/kea-dhcp4',
  radvd: '/usr/sbin/radvd',
  'bind9-utils': '/usr/bin/named-checkzone',
  ifupdown: '/usr/sbin/ifup',
  'poppler-utils': '/usr/bin/pdftotext',
  'zbar-tools': '/usr/bin/zbarimg',
  xlsx2csv: '/usr/bin/xlsx2csv',
  unzip: '/usr/bin/unzip',
  'libxml2-utils': '/usr/bin/xmllint',
  'fonts-wqy-microhei': '/usr/share/fonts/truetype/wqy/wqy-microhei.ttc',
};
/** What the tests on the kernel run. */
export const KERNEL = ['nftables', 'iproute2', 'iputils-ping', 'dnsmasq-base', 'udhcpc'];
/** What the tests of files for other programs run. */
export const READERS = [
  'hostapd',
  'wpasupplicant',
  'eapoltest',
  'freeradius',
  'kea-dhcp4-server',
  'radvd',
  'bind9-utils',
  'ifupdown',
  'poppler-utils',
  'python3',
  'zbar-tools',
  'xlsx2csv',
  'unzip',
  'libxml2-utils',
  'fonts-wqy-microhei',
];

/** What these packages would start at every boot; the tests start what they need themselves. */
const services = {
  hostapd: 'hostapd',
  wpasupplicant: 'wpa_supplicant',
  freeradius: 'freeradius',
  'kea-dhcp4-server': 'kea-dhcp4-server',
  radvd: 'radvd',
  ifupdown: 'networking',
};

/** Installs the Debian packages that are missing. */
export async function requirePackages(names) {
  const missing = () => names.filter((name) => !fs.existsSync(programs[name]));
  if (missing().length === 0) return;
  await withLock('apt', async () => {
    const wanted = missing();
    if (wanted.length === 0) return;
    console.log(`Installing Debian packages: ${wanted.join(', ')}`);
    const sudo = process.getuid() === 0 ? [] : ['sudo', '-n'];
    const apt = [...sudo, 'apt-get', '-qq', '-o', 'DPkg::Lock::Timeout=300'];
    const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
    const run = (args) =>
      spawnSync(args[0], args.slice(1), { env, stdio: ['ignore', 'ignore', 'inherit'] }).status === 0;
    run([...apt, 'update']);
    // Nobody asked for servers that listen from now on.
    const policy = '/usr/sbin/policy-rc.d';
    const held = !fs.existsSync(policy);
    if (held)
      run([...sudo, 'sh', '-c', `printf '#!/bin/sh\\nexit 101\\n' > ${policy} && chmod 755 ${policy}`]);
    const installed = run([...apt, 'install', '-y', '--no-install-recommends', ...wanted]);
    if (held) run([...sudo, 'rm', '-f', policy]);
    const started = wanted.flatMap((name) => services[name] ?? []);
    if (started.length > 0) {
      const [first, ...rest] = [...sudo, 'systemctl', 'disable', '--quiet', ...started];
      spawnSync(first, rest, { stdio: 'ignore' });
    }
    if (!installed)
      throw new Stop(
        `Installing ${wanted.join(', ')} failed. Run: sudo apt-get install --no-install-recommends ${wanted.join(' ')}`,
      );
  });
}

const digestOf = (files) => {
  const hash = createHash('sha256');
  for (const file of files)
    hash
      .update(file)
      .update('\0')
      .update(fs.readFileSync(path.join(root, file)));
  return hash.digest('hex');
};

const modules = () => ({
  stamp: path.join(root, 'node_modules/.dianome-stamp'),
  digest: digestOf(['package-lock.json']),
});
/** Does node_modules hold what the lock file says? */
export const hasModules = () => readOr(modules().stamp, '') === modules().digest;

/** Runs `npm ci` unless node_modules already holds what the lock file says. */
export const requireModules = () =>
  withLock('install', async () => {
    if (hasModules()) return;
    const { stamp, digest } = modules();
    console.log('Installing npm packages');
    const { status } = spawnSync('npm', ['ci', '--no-fund', '--no-audit', '--loglevel=error'], {
      cwd: root,
      stdio: ['ignore', 'ignore', 'inherit'],
    });
    if (status !== 0) throw new Stop('npm ci failed; see the lines above.');
    fs.writeFileSync(stamp, digest);
  });

function sourceFiles(folder) {
  return fs.readdirSync(path.join(root, folder), { withFileTypes: true }).flatMap((item) => {
    const name = path.join(folder, item.name);
    if (item.isDirectory()) return sourceFiles(name);
    return /\.test\.tsx?$/.test(name) ? [] : [name];
  });
}

const build = () => {
  const single = ['package-lock.json', 'next.config.ts', 'postcss.config.mjs', 'tsconfig.json'];
  return {
    stamp: path.join(root, '.next/dianome-stamp'),
    digest: digestOf([...single, 'scripts/lib/bundle.mjs', ...sourceFiles('src').sort()]),
  };
};
/** Was the last build made from exactly these sources? */
export const hasBuild = () => readOr(build().stamp, '') === build().digest;

/** Builds unless the last build was made from exactly these sources. */
export const requireBuild = () =>
  withLock('build', async () => {
    if (hasBuild()) return;
    const { stamp, digest } = build();
    console.log('Building the application');
    // Types of routes that are gone would fail the check.
    for (const old of ['dev/types', 'types'])
      fs.rmSync(path.join(root, '.next', old), { recursive: true, force: true });
    const env = {
      ...process.env,
      NEXT_TELEMETRY_DISABLED: '1',
      NEXT_PUBLIC_DIANOME_BUILD: digest.slice(0, 12),
    };
    const next = path.join(root, 'node_modules/next/dist/bin/next');
    const { status, stdout } = spawnSync(process.execPath, [next, 'build'], {
      cwd: root,
      env,
      encoding: 'utf8',
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    if (status !== 0) throw new Stop(`The build failed.\n${stdout}`);
    // Only here are the packages it needs certain to be there.
    const { bundle } = await import('./bundle.mjs');
    await bundle();
    fs.writeFileSync(stamp, digest);
  });

/** Runs a TypeScript program of this folder in the terminal, with what stands after its name. */
export async function runProgram(name) {
  await requireModules();
  const tsx = path.join(root, 'node_modules/tsx/dist/cli.mjs');
  const program = path.join(root, 'scripts', name);
  const { status } = spawnSync(process.execPath, [tsx, program, ...process.argv.slice(2)], {
    stdio: 'inherit',
  });
  process.exitCode = status ?? 1;
}
