import { spawn, spawnSync } from 'node:child_process';
import fs from 'node:fs';
import http from 'node:http';
import path from 'node:path';
import readline from 'node:readline/promises';
import { openLan } from './lib/lan.mjs';
import { databaseEnds, hasDatabase, startDatabase, stopDatabase } from './lib/mariadb.mjs';
import { dataFolder, pause, portFree, requireFolder, requireNode, requireSpace, root } from './lib/paths.mjs';
import { Stop, entry } from './lib/say.mjs';
import {
  buildVersion,
  hasBuild,
  hasModules,
  requireBuild,
  requireModules,
  requirePackages,
} from './lib/setup.mjs';
import { keepRunning } from './lib/supervise.mjs';

/** Megabytes on the disk: of the packages and the build, of a new database, and to go on with what is there. */
const SPACE = { modules: 700, build: 300, database: 300, running: 30 };
/** The log of the web server is begun anew at this size, in bytes; the one before is kept. */
const LOG_SIZE = 20 * 1024 * 1024;

const options = new Set(process.argv.slice(2));
for (const option of options)
  if (!['--fresh', '--yes', '--dev', '--lan'].includes(option)) {
    console.error(
      `Unknown option ${option}. Known: --fresh (reset to the demo data), --yes (do not ask), --dev (reload live, on data of its own), --lan (paired phones on the local network may follow a run).`,
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

function portFromEnvironment(name, usual) {
  const text = process.env[name] || String(usual);
  const port = Number(text);
  if (!Number.isInteger(port) || port < 1 || port > 65535)
    throw new Stop(`${name} is “${text}”; write a number from 1 to 65535.`);
  return port;
}

const answers = (port) =>
  new Promise((resolve) => {
    const request = http.get({ host: '127.0.0.1', port, path: '/api/ready', timeout: 2000 }, (response) => {
      response.resume();
      resolve(response.statusCode === 200);
    });
    request.on('timeout', () => request.destroy());
    request.on('error', () => resolve(false));
  });

/** Where the web server writes its lines. */
function openLog(folder) {
  const file = path.join(folder, 'dianome.log');
  if ((fs.statSync(file, { throwIfNoEntry: false })?.size ?? 0) > LOG_SIZE) fs.renameSync(file, `${file}.1`);
  return fs.openSync(file, 'a', 0o600);
}

/** Space for what has to be made, and no more: what is there opens with little left. */
function requireRoom(folder, own, dev) {
  const here = (hasModules() ? 0 : SPACE.modules) + (dev || hasBuild() ? 0 : SPACE.build);
  if (here > 0) requireSpace(root, here);
  requireSpace(folder, own && !hasDatabase(folder) ? SPACE.database : SPACE.running);
}

function prepare(env) {
  const tsx = path.join(root, 'node_modules/tsx/dist/cli.mjs');
  const args = [tsx, 'scripts/prepare-database.ts', ...(options.has('--fresh') ? ['--fresh'] : [])];
  const { status } = spawnSync(process.execPath, args, {
    cwd: root,
    env,
    stdio: ['ignore', 'inherit', 'inherit'],
  });
  if (status !== 0) throw new Stop('The database could not be prepared; see the lines above.');
}

entry(async () => {
  requireNode();
  const port = portFromEnvironment('PORT', 4380);
  const lanPort = options.has('--lan') ? portFromEnvironment('DIANOME_LAN_PORT', port + 1) : null;
  const dev = options.has('--dev');
  const folder = `${dataFolder()}${dev ? '-dev' : ''}`;
  await confirmFresh();
  if (!(await portFree(port)))
    throw new Stop(
      `Port ${port} on 127.0.0.1 is taken. Stop what listens there, or choose another: PORT=4381 npm start`,
    );
  if (lanPort !== null && !(await portFree(lanPort, '0.0.0.0')))
    throw new Stop(
      `Port ${lanPort} is taken; choose another for phones: DIANOME_LAN_PORT=4390 npm start -- --lan`,
    );
  const own = !process.env.DATABASE_URL;
  requireRoom(folder, own, dev);
  requireFolder(folder);
  if (own) await requirePackages(['mariadb-server-core', 'mariadb-client-core', 'fonts-wqy-microhei']);
  await requireModules();
  if (!dev) await requireBuild();
  const lan = lanPort === null ? null : await openLan(folder, lanPort);

  let web = null;
  let ending = false;
  const end = async (code) => {
    if (ending) return;
    ending = true;
    const running = () => web && web.exitCode === null && web.signalCode === null;
    if (running()) {
      web.kill('SIGTERM');
      // Open event streams are closed by the server itself; this is for the case that it hangs.
      for (let i = 0; i < 60 && running(); i++) await pause(100);
      if (running()) web.kill('SIGKILL');
    }
    if (own) await stopDatabase(folder);
    process.exit(code);
  };
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => end(0));
  const say = (text) => console.error(text);
  const give = (text) => {
    console.error(`\n${text} Its log: ${folder}`);
    void end(1);
  };

  try {
    let url = own ? (await startDatabase(folder)).url : process.env.DATABASE_URL;
    const env = () => ({
      ...process.env,
      DATABASE_URL: url,
      DIANOME_PHOTOS: process.env.DIANOME_PHOTOS || path.join(folder, 'photos'),
      NEXT_TELEMETRY_DISABLED: '1',
      // Nothing but loopback is served where nobody asked for more.
      DIANOME_LAN: '',
      ...lan?.env,
      NODE_ENV: dev ? 'development' : 'production',
    });
    prepare(env());
    if (dev) await (await import('./lib/bundle.mjs')).bundle({ dev });
    if (own)
      void keepRunning({
        name: 'The database',
        ending: () => ending,
        say,
        give,
        start: async () => {
          const started = await startDatabase(folder);
          if (started.url !== url) {
            // Its port was taken meanwhile; the web server has to be told.
            url = started.url;
            web?.kill('SIGTERM');
          }
          return { ended: databaseEnds(started.pid) };
        },
      });
    void keepRunning({
      name: 'The web server',
      ending: () => ending,
      say,
      give,
      start: async () => {
        const log = openLog(folder);
        // A process group of its own: Ctrl-C reaches this script only, which then ends things in order.
        web = spawn(process.execPath, ['--enable-source-maps', path.join(root, '.next/dianome/main.mjs')], {
          cwd: root,
          env: { ...env(), PORT: String(port), DIANOME_BUILD: dev ? '' : buildVersion() },
          detached: true,
          stdio: ['ignore', log, log],
        });
        fs.closeSync(log);
        const child = web;
        return {
          ended: new Promise((resolve) =>
            child.once('exit', (code, signal) => resolve(signal ? `signal ${signal}` : `exit ${code}`)),
          ),
        };
      },
    });
    for (let i = 0; !(await answers(port)); i++) {
      if (ending) return;
      if (i > 300) throw new Stop(`The web server has not answered for a minute; see ${folder}/dianome.log.`);
      await pause(200);
    }
    console.log(`Dianome is ready: http://127.0.0.1:${port}  (Ctrl-C stops it)`);
    if (lan)
      console.log(
        `Phones paired with a run reach it at ${lan.urls.join(' and ')}\nThe SHA-256 fingerprint of its certificate: ${lan.fingerprint}`,
      );
  } catch (error) {
    console.error(error instanceof Stop ? `\n${error.message}` : error);
    await end(1);
  }
});
