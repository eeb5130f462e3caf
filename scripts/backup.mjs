import { spawn, spawnSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { pipeline } from 'node:stream/promises';
import zlib from 'node:zlib';
import { startDatabase, stopDatabase } from './lib/mariadb.mjs';
import { dataFolder, requireFolder, requireNode, root } from './lib/paths.mjs';
import { Stop, entry } from './lib/say.mjs';
import { requireModules, requirePackages } from './lib/setup.mjs';

/**
 * `verify`: replays every journal and says where it does not lead to the stored plan. `backup FILE`: a consistent copy of the
 * database, checked by reading it back and replaying, and beside it the photos. `restore FILE [--yes]`: puts such a copy in place
 * of what is there.
 */
const [, , what, ...rest] = process.argv;
const file = rest.find((arg) => !arg.startsWith('--'));
const yes = rest.includes('--yes');

/** Arguments of the MariaDB programs for an address; the password goes by the environment, where no other user sees it. */
function reach(url) {
  const { hostname, port, username, password, pathname } = new URL(url);
  return {
    args: [
      '--protocol=tcp',
      `--host=${hostname}`,
      `--port=${port || 3306}`,
      `--user=${decodeURIComponent(username)}`,
    ],
    env: { ...process.env, MYSQL_PWD: decodeURIComponent(password) },
    name: decodeURIComponent(pathname.slice(1)),
  };
}

const ended = (child, name) =>
  new Promise((resolve, reject) => {
    child.once('error', reject);
    child.once('close', (code) =>
      code === 0 ? resolve() : reject(new Stop(`${name} failed; see the lines above.`)),
    );
  });

async function dump(url, to) {
  const { args, env, name } = reach(url);
  const child = spawn(
    'mariadb-dump',
    ['--no-defaults', ...args, '--single-transaction', '--quick', '--hex-blob', '--skip-comments', name],
    {
      env,
      stdio: ['ignore', 'pipe', 'inherit'],
    },
  );
  const part = `${to}.part`;
  const out = fs.createWriteStream(part, { mode: 0o600 });
  await Promise.all([ended(child, 'mariadb-dump'), pipeline(child.stdout, zlib.createGzip(), out)]);
  // Only a whole copy gets the name.
  fs.renameSync(part, to);
}

async function load(url, from) {
  const { args, env, name } = reach(url);
  const child = spawn('mariadb', ['--no-defaults', ...args, name], {
    env,
    stdio: ['pipe', 'inherit', 'inherit'],
  });
  await Promise.all([
    ended(child, 'mariadb'),
    pipeline(fs.createReadStream(from), zlib.createGunzip(), child.stdin),
  ]);
}

/** Where the photos of the logs are, and the copy of them beside a copy of the database. */
const photos = () => process.env.DIANOME_PHOTOS || path.join(dataFolder(), 'photos');
const photosOf = (copy) => `${copy}.photos.tar`;

/** A photo never changes and goes before what speaks of it: copied after the database, every one it names is there. */
function copyPhotos(to) {
  if (!fs.existsSync(photos())) return;
  const part = `${to}.part`;
  const { status } = spawnSync('tar', ['-C', photos(), '--exclude=*.part', '-cf', part, '.'], {
    stdio: 'inherit',
  });
  if (status !== 0) throw new Stop('The photos could not be copied; see the lines above.');
  fs.chmodSync(part, 0o600);
  fs.renameSync(part, to);
}

/** Puts the photos of a copy to those that are there. */
function restorePhotos(from) {
  if (!fs.existsSync(from)) return;
  fs.mkdirSync(photos(), { recursive: true, mode: 0o700 });
  const { status } = spawnSync('tar', ['-C', photos(), '-xf', from], { stdio: 'inherit' });
  if (status !== 0) throw new Stop('The photos could not be restored; see the lines above.');
}

/** Runs a script of the program on a database; false when it ends with an error. */
const tsx = (script, url, args = []) =>
  spawnSync(process.execPath, [path.join(root, 'node_modules/tsx/dist/cli.mjs'), script, ...args], {
    cwd: root,
    env: { ...process.env, DATABASE_URL: url },
    stdio: 'inherit',
  }).status === 0;

/** The sites of a database; null while it holds no tables. */
function sitesIn(url) {
  const { args, env, name } = reach(url);
  const { status, stdout } = spawnSync(
    'mariadb',
    ['--no-defaults', ...args, '--batch', '--skip-column-names', '-e', 'SELECT COUNT(*) FROM site', name],
    { env, encoding: 'utf8', stdio: ['ignore', 'pipe', 'ignore'] },
  );
  return status === 0 ? Number(stdout) : null;
}

/** Reads a copy into a database of its own and replays every journal in it. */
async function check(copy) {
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'dianome-check-'));
  try {
    const { url } = await startDatabase(folder);
    await load(url, copy);
    if (!tsx('scripts/verify.ts', url)) throw new Stop(`${copy} does not replay; it was not used.`);
  } finally {
    await stopDatabase(folder);
    fs.rmSync(folder, { recursive: true, force: true });
  }
}

async function withData(work) {
  if (process.env.DATABASE_URL) return work(process.env.DATABASE_URL);
  const folder = dataFolder();
  requireFolder(folder);
  const { url } = await startDatabase(folder);
  try {
    return await work(url);
  } finally {
    await stopDatabase(folder);
  }
}

entry(async () => {
  requireNode();
  if (!['verify', 'backup', 'restore'].includes(what))
    throw new Stop('Say verify, backup FILE or restore FILE.');
  if (what !== 'verify' && !file)
    throw new Stop(`Name the file: npm run ${what} -- ${path.join(os.homedir(), 'dianome.sql.gz')}`);
  await requirePackages(['mariadb-server-core', 'mariadb-client-core', 'mariadb-client']);
  await requireModules();
  await withData(async (url) => {
    if (what === 'verify') {
      if (!tsx('scripts/verify.ts', url)) process.exitCode = 1;
      return;
    }
    if (what === 'backup') {
      await dump(url, file);
      await check(file);
      copyPhotos(photosOf(file));
      console.log(`Saved and checked: ${file}, ${Math.ceil(fs.statSync(file).size / 1024)} kB`);
      return;
    }
    if (!fs.existsSync(file)) throw new Stop(`There is no file ${file}.`);
    const there = sitesIn(url);
    if (there && !yes)
      throw new Stop(
        `The database holds ${there} sites, which would be replaced. Stop the program and add --yes.`,
      );
    await check(file);
    restorePhotos(photosOf(file));
    await load(url, file);
    if (!tsx('scripts/prepare-database.ts', url))
      throw new Stop('The restored database could not be prepared.');
    if (!tsx('scripts/verify.ts', url)) throw new Stop('The restored database does not replay.');
    console.log(`Restored from ${file}`);
  });
});
