import { type ChildProcess, spawn } from 'node:child_process';
import net from 'node:net';

/** The start command itself, with a data folder and a port of its own. */
export const freePort = () =>
  new Promise<number>((resolve) => {
    const server = net.createServer();
    server.listen(0, '127.0.0.1', () => {
      const { port } = server.address() as net.AddressInfo;
      server.close(() => resolve(port));
    });
  });

export interface Started {
  readonly child: ChildProcess;
  readonly said: () => string;
  readonly ended: Promise<number | null>;
}

export function start(
  port: number,
  data: string,
  args: string[] = [],
  env: Record<string, string> = {},
): Started {
  const { DATABASE_URL: _url, ...rest } = process.env;
  const child = spawn(process.execPath, ['scripts/start.mjs', ...args], {
    env: { ...rest, PORT: String(port), DIANOME_DATA_DIR: data, ...env },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  let text = '';
  child.stdout.on('data', (chunk) => (text += chunk));
  child.stderr.on('data', (chunk) => (text += chunk));
  return {
    child,
    said: () => text,
    ended: new Promise((resolve) => child.once('exit', (code) => resolve(code))),
  };
}
