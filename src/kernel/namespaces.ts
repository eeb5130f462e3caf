import { type ChildProcess, execFileSync, spawn } from 'node:child_process';

/** Hosts for tests as network namespaces of the real kernel, joined by virtual cables. */

const run = (command: string, args: readonly string[], input?: string): string =>
  execFileSync(command, [...args], { encoding: 'utf8', input, stdio: ['pipe', 'pipe', 'pipe'] });

/** Why no namespaces can be made here; null when they can. */
export function namespacesMissing(): string | null {
  const name = `dn${process.pid}try`;
  try {
    run('ip', ['netns', 'add', name]);
    run('ip', ['netns', 'exec', name, 'nft', '-c', '-f', '-'], 'add table inet x\n');
    return null;
  } catch (error) {
    return String((error as Error).message).split('\n')[0]!;
  } finally {
    try {
      run('ip', ['netns', 'del', name]);
    } catch {
      // It was never made.
    }
  }
}

export type CallProtocol = 'tcp' | 'udp';

/** Listens on tcp and udp ports and says its name to whoever comes. */
const SERVER = `
  const net = require('node:net');
  const dgram = require('node:dgram');
  const [name, ...ports] = process.argv.slice(1);
  const streams = ports.map((port) => new Promise((ready, failed) => {
    const server = net.createServer((socket) => { socket.on('error', () => {}); socket.end(name); });
    server.on('error', failed);
    server.listen(Number(port), '0.0.0.0', ready);
  }));
  const datagrams = ports.map((port) => new Promise((ready, failed) => {
    const socket = dgram.createSocket('udp4');
    socket.on('message', (_, from) => socket.send(name, from.port, from.address, () => {}));
    socket.on('error', failed);
    socket.bind(Number(port), ready);
  }));
  Promise.all([...streams, ...datagrams]).then(() => console.log('ready'));
`;

/** Calls each address and port; prints the name that answered, or an empty text. */
const CLIENT = `
  const net = require('node:net');
  const dgram = require('node:dgram');
  const calls = JSON.parse(process.argv[1]);
  const ask = (host, port) => new Promise((done) => {
    const socket = dgram.createSocket('udp4');
    const end = (text) => { clearTimeout(patience); socket.close(); done(text); };
    const patience = setTimeout(() => end(''), 2500);
    socket.on('message', (text) => end(String(text)));
    socket.on('error', () => end(''));
    socket.connect(port, host, () => socket.send('?', () => {}));
  });
  const call = ([host, port, protocol]) => protocol === 'udp' ? ask(host, port) : new Promise((done) => {
    const socket = net.connect({ host, port, timeout: 2500 });
    let heard = '';
    socket.on('data', (text) => { heard += text; });
    socket.on('close', () => done(heard));
    socket.on('error', () => {});
    socket.on('timeout', () => socket.destroy());
  });
  Promise.all(calls.map(call)).then((heard) => console.log(JSON.stringify(heard)));
`;

export class Namespaces {
  private readonly made: string[] = [];
  private readonly children: ChildProcess[] = [];
  private cables = 0;

  private named = (name: string): string => `dn${process.pid}${name}`;

  add(name: string): void {
    const full = this.named(name);
    run('ip', ['netns', 'add', full]);
    this.made.push(full);
    this.ip(name, 'link set lo up');
  }

  ip(name: string, words: string): void {
    run('ip', ['-n', this.named(name), ...words.split(' ')]);
  }

  exec(name: string, command: string, args: readonly string[], input?: string): string {
    return run('ip', ['netns', 'exec', this.named(name), command, ...args], input);
  }

  /** A cable between two hosts, each end with a name of its own. */
  cable(a: string, aName: string, b: string, bName: string): void {
    const [left, right] = [
      `d${process.pid % 10_000}a${this.cables}`,
      `d${process.pid % 10_000}b${this.cables++}`,
    ];
    run('ip', ['link', 'add', left, 'type', 'veth', 'peer', 'name', right]);
    for (const [end, host, name] of [
      [left, a, aName],
      [right, b, bName],
    ] as const) {
      run('ip', ['link', 'set', end, 'netns', this.named(host)]);
      this.ip(host, `link set ${end} name ${name}`);
      this.ip(host, `link set ${name} up`);
    }
  }

  /** Resolves when all its ports listen. */
  serve(name: string, ports: readonly number[]): Promise<void> {
    const child = spawn(
      'ip',
      ['netns', 'exec', this.named(name), process.execPath, '-e', SERVER, name, ...ports.map(String)],
      { stdio: ['ignore', 'pipe', 'inherit'] },
    );
    this.children.push(child);
    return new Promise((ready, failed) => {
      child.stdout!.once('data', () => ready());
      child.once('exit', (code) => failed(new Error(`the server of ${name} ended with ${code}`)));
    });
  }

  /** Who answers each call from a host: a name, or an empty text for nobody. */
  calls(name: string, list: readonly (readonly [string, number, CallProtocol])[]): Promise<string[]> {
    const child = spawn(
      'ip',
      ['netns', 'exec', this.named(name), process.execPath, '-e', CLIENT, JSON.stringify(list)],
      { stdio: ['ignore', 'pipe', 'inherit'] },
    );
    let text = '';
    child.stdout!.on('data', (part) => (text += String(part)));
    return new Promise((done, failed) => {
      child.once('exit', (code) =>
        code === 0 ? done(JSON.parse(text) as string[]) : failed(new Error(`calling from ${name} failed`)),
      );
    });
  }

  close(): void {
    for (const child of this.children) {
      child.removeAllListeners('exit');
      child.kill('SIGKILL');
    }
    for (const name of this.made) run('ip', ['netns', 'del', name]);
  }
}
