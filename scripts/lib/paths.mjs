import { createHash } from 'node:crypto';
import fs from 'node:fs';
import net from 'node:net';
import os from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { Stop } from './say.mjs';

export const root = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '../..');
export const shortHash = (text) => createHash('sha256').update(text).digest('hex').slice(0, 12);

/** The folder the database lives in: never inside the checkout, where a socket would break the CSS build. */
export function dataFolder() {
  const share = process.env.XDG_DATA_HOME || path.join(os.homedir(), '.local/share');
  const folder = path.resolve(process.env.DIANOME_DATA_DIR || path.join(share, 'dianome'));
  if (folder === root || folder.startsWith(root + path.sep))
    throw new Stop(`DIANOME_DATA_DIR is ${folder}, inside the checkout; name a folder outside ${root}.`);
  return folder;
}

export function requireNode() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 9))
    throw new Stop(
      `This is Node.js ${process.versions.node}; Dianome needs 20.9 or newer. Install it and start again.`,
    );
}

/** Makes a folder that only its owner reads; says what is in the way where that fails. */
export function requireFolder(folder) {
  try {
    fs.mkdirSync(folder, { recursive: true, mode: 0o700 });
    fs.accessSync(folder, fs.constants.W_OK);
  } catch (error) {
    throw new Stop(
      `The data folder ${folder} cannot be written to (${error.code}). Give it to this user, or name another: DIANOME_DATA_DIR=/path npm start`,
    );
  }
}

/** A full disk shows as a broken database much later; better to say so first. */
export function requireSpace(folder, megabytes) {
  let existing = folder;
  while (!fs.existsSync(existing)) existing = path.dirname(existing);
  const { bavail, bsize } = fs.statfsSync(existing);
  const free = Math.floor((bavail * bsize) / 1048576);
  if (free < megabytes)
    throw new Stop(
      `Only ${free} MB are free on the disk of ${existing}; at least ${megabytes} MB are needed.`,
    );
}

export const portFree = (port, address = '127.0.0.1') =>
  new Promise((resolve) => {
    const server = net.createServer();
    server.once('error', () => resolve(false));
    server.listen(port, address, () => server.close(() => resolve(true)));
  });

export const freePort = () =>
  new Promise((resolve, reject) => {
    const server = net.createServer();
    server.once('error', reject);
    server.listen(0, '127.0.0.1', () => {
      const { port } = server.address();
      server.close(() => resolve(port));
    });
  });

export const alive = (pid) => {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    // It runs, and is somebody else’s.
    return error.code === 'EPERM';
  }
};

export const pause = (ms) => new Promise((resolve) => setTimeout(resolve, ms));

/** Holds a lock folder while `work` runs, so that two scripts do not install or build at once. */
export async function withLock(name, work) {
  const lock = path.join(os.tmpdir(), `dianome-${name}-${shortHash(root)}.lock`);
  for (;;) {
    try {
      fs.mkdirSync(lock);
      break;
    } catch (error) {
      if (error.code !== 'EEXIST')
        throw new Stop(`The lock ${lock} cannot be made (${error.code}); make its folder writable.`);
    }
    const holder = Number(readOr(path.join(lock, 'pid'), '0'));
    const age = Date.now() - (fs.statSync(lock, { throwIfNoEntry: false })?.mtimeMs ?? Date.now());
    if (holder ? !alive(holder) : age > 5000) breakLock(lock);
    else await pause(300);
  }
  fs.writeFileSync(path.join(lock, 'pid'), String(process.pid));
  try {
    return await work();
  } finally {
    fs.rmSync(lock, { recursive: true, force: true });
  }
}

/** Takes away what a process left that ended without. */
function breakLock(lock) {
  try {
    fs.rmSync(lock, { recursive: true, force: true });
  } catch {
    throw new Stop(
      `The lock ${lock} is another user’s and nobody holds it any more; remove it: sudo rm -r ${lock}`,
    );
  }
}

export const readOr = (file, otherwise) => {
  try {
    return fs.readFileSync(file, 'utf8');
  } catch {
    return otherwise;
  }
};
