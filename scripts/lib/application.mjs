import { spawn } from 'node:child_process';
import { freePort, pause, root } from './paths.mjs';
import { Stop } from './say.mjs';

/** Starts the whole application with data in a folder and a port of its own, and waits until it answers. */
export async function startApplication(data) {
  const port = await freePort();
  const env = { ...process.env, PORT: String(port), DIANOME_DATA_DIR: data };
  delete env.DATABASE_URL;
  const child = spawn(process.execPath, ['scripts/start.mjs'], {
    cwd: root,
    env,
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  let output = '';
  child.stdout.on('data', (chunk) => (output += chunk));
  while (!output.includes('is ready')) {
    if (child.exitCode !== null) throw new Stop(`The application did not start:\n${output}`);
    await pause(100);
  }
  return { url: `http://127.0.0.1:${port}`, child };
}

/** Ends it as Ctrl-C would. */
export async function stopApplication(child) {
  child.kill('SIGINT');
  while (child.exitCode === null && child.signalCode === null) await pause(100);
}
