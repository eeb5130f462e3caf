import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import fs from 'node:fs';
import path from 'node:path';
import { readOr, root, withLock } from './paths.mjs';
import { Stop } from './say.mjs';

const programs = {
  'mariadb-server-core': '/usr/sbin/mariadbd',
  'mariadb-client-core': '/usr/bin/mariadb',
  chromium: '/usr/bin/chromium',
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
    if (!run([...apt, 'install', '-y', '--no-install-recommends', ...wanted]))
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

/** Runs `npm ci` unless node_modules already holds what the lock file says. */
export const requireModules = () =>
  withLock('install', async () => {
    const stamp = path.join(root, 'node_modules/.dianome-stamp');
    const digest = digestOf(['package-lock.json']);
    if (readOr(stamp, '') === digest) return;
    console.log('Installing npm packages');
    const { status } = spawnSync('npm', ['ci', '--no-fund', '--no-audit'], {
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

/** Builds unless the last build was made from exactly these sources. */
export const requireBuild = () =>
  withLock('build', async () => {
    const single = ['package-lock.json', 'next.config.ts', 'postcss.config.mjs', 'tsconfig.json'];
    const digest = digestOf([...single, ...sourceFiles('src').sort()]);
    const stamp = path.join(root, '.next/dianome-stamp');
    if (readOr(stamp, '') === digest) return;
    console.log('Building the application');
    const env = { ...process.env, NEXT_TELEMETRY_DISABLED: '1' };
    const next = path.join(root, 'node_modules/next/dist/bin/next');
    const { status, stdout } = spawnSync(process.execPath, [next, 'build'], {
      cwd: root,
      env,
      encoding: 'utf8',
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    if (status !== 0) throw new Stop(`The build failed.\n${stdout}`);
    fs.writeFileSync(stamp, digest);
  });
