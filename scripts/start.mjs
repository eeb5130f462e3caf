import { spawn, spawnSync } from 'node:child_process';
import http from 'node:http';
import path from 'node:path';
import readline from 'node:readline/promises';
import { startDatabase, stopDatabase } from './lib/mariadb.mjs';
import { dataFolder, pause, portFree, requireNode, requireSpace, root } from './lib/paths.mjs';
import { Stop, entry } from './lib/say.mjs';
import { requireBuild, requireModules, requirePackages } from './lib/setup.mjs';

const options = new Set(process.argv.slice(2));
for (const option of options)
  if (!['--fresh', '--yes', '--dev'].includes(option)) {
    console.error(
      `Unknown option ${option}. Known: --fresh (reset to the demo data), --yes (do not ask), --dev (reload live, on data of its own).`,
    );
    process.exit(1);
  }

async function confirmFresh() {
  if (!options.has('--fresh') || options.has('--yes')) return;
  if (!process.stdin.isTTY)
    throw new Stop('--fresh deletes every site; without a terminal to ask on, add --yes.');
  const ask = readline.createInterface({ input: process.stdin, output: process.stdout });
  const answer = await ask.question('Delete every site and load the demo sites again? Type yes: ');
  ask.close();
  if (answer.trim() !== 'yes') throw new Stop('Nothing was changed.');
}

function portFromEnvironment() {
  const text = process.env.PORT || '4380';
  const port = Number(text);
  if (!Number.isInteger(port) || port < 1 || port > 65535)
    throw new Stop(`PORT is “${text}”; write a number from 1 to 65535.`);
  return port;
}

const answers = (port) =>
  new Promise((resolve) => {
    const request = http.get({ host: '127.0.0.1', port, path: '/api/health', timeout: 2000 }, (response) => {
      response.resume();
      resolve(response.statusCode === 200);
    });
    request.on('timeout', () => request.destroy());
    request.on('error', () => resolve(false));
  });

entry(async () => {
  requireNode();
  const port = portFromEnvironment();
  const dev = options.has('--dev');
  const folder = `${dataFolder()}${dev ? '-dev' : ''}`;
  await confirmFresh();
  if (!(await portFree(port)))
    throw new Stop(
      `Port ${port} on 127.0.0.1 is taken. Stop what listens there, or choose another: PORT=4381 npm start`,
    );
  requireSpace(root, 300);
  requireSpace(folder, 300);
  const own = !process.env.DATABASE_URL;
  if (own) await requirePackages(['mariadb-server-core', 'mariadb-client-core']);
  await requireModules();
  if (!dev) await requireBuild();

  let web = null;
  let ending = false;
  const end = async (code) => {
    if (ending) return;
    ending = true;
    if (web && web.exitCode === null) {
      web.kill('SIGTERM');
      // Open event streams are closed by the server itself; this is for the case that it hangs.
      for (let i = 0; i < 50 && web.exitCode === null && web.signalCode === null; i++) await pause(100);
      if (web.exitCode === null && web.signalCode === null) web.kill('SIGKILL');
    }
    if (own) await stopDatabase(folder);
    process.exit(code);
  };
  process.on('SIGINT', () => end(0));
  process.on('SIGTERM', () => end(0));
  process.on('SIGHUP', () => end(0));

  try {
    const url = own ? (await startDatabase(folder)).url : process.env.DATABASE_URL;
    const env = {
      ...process.env,
      DATABASE_URL: url,
      NEXT_TELEMETRY_DISABLED: '1',
      NODE_ENV: dev ? 'development' : 'production',
    };
    const tsx = path.join(root, 'node_modules/tsx/dist/cli.mjs');
    const prepare = [tsx, 'scripts/prepare-database.ts', ...(options.has('--fresh') ? ['--fresh'] : [])];
    const prepared = spawnSync(process.execPath, prepare, {
      cwd: root,
      env,
      stdio: ['ignore', 'inherit', 'inherit'],
    });
    if (prepared.status !== 0) throw new Stop('The database could not be prepared; see the lines above.');
    const next = path.join(root, 'node_modules/next/dist/bin/next');
    // A process group of its own: Ctrl-C reaches this script only, which then ends things in order.
    web = spawn(process.execPath, [next, dev ? 'dev' : 'start', '-H', '127.0.0.1', '-p', String(port)], {
      cwd: root,
      env,
      detached: true,
      stdio: ['ignore', 'ignore', 'inherit'],
    });
    web.once('exit', (code) => {
      if (!ending) {
        console.error(`The web server ended by itself (exit ${code}).`);
        void end(1);
      }
    });
    for (let i = 0; !(await answers(port)); i++) {
      if (ending) return;
      if (i > 300) throw new Stop('The web server has not answered for a minute.');
      await pause(200);
    }
    console.log(`Dianome is ready: http://127.0.0.1:${port}  (Ctrl-C stops it)`);
  } catch (error) {
    console.error(error instanceof Stop ? `\n${error.message}` : error);
    await end(1);
  }
});
