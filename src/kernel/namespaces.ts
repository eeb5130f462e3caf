import { type ChildProcess, execFile, execFileSync, spawn } from 'node:child_process';
import { createInterface } from 'node:readline';

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

export type CallProtocol = 'tcp' | 'udp' | 'icmp';

/** What is heard where a ping is answered: it does not say by whom. */
export const PONG = 'pong';

/**
 * A host: listens on tcp and udp ports and says its name to whoever comes. Each line it is told is a list of calls; it answers with
 * the names that answered them, an empty text for nobody.
 */
const HOST = `
  const net = require('node:net');
  const dgram = require('node:dgram');
  const [name, ...ports] = process.argv.slice(1);
  const streams = ports.map((port) => new Promise((ready, failed) => {
    const server = net.createServer((socket) => { socket.on('error', () => {}); socket.end(name); });
    server.on('error', failed);
    server.listen(Number(port), '::', ready);
  }));
  // A box with several addresses answers from the one it was asked at, as every server does that is bound to one.
  const own = Object.values(require('node:os').networkInterfaces()).flat()
    .filter(({ scopeid }) => !scopeid);
  const kind = (family) => family === 'IPv4' ? 'udp4' : 'udp6';
  const datagrams = ports.flatMap((port) => own.map(({ address, family }) => new Promise((ready, failed) => {
    const socket = dgram.createSocket(kind(family));
    socket.on('message', (_, from) => socket.send(name, from.port, from.address, () => {}));
    socket.on('error', failed);
    socket.bind(Number(port), address, ready);
  })));
  const ask = (host, port) => new Promise((done) => {
    const socket = dgram.createSocket(host.includes(':') ? 'udp6' : 'udp4');
    let open = true;
    const end = (text) => { if (!open) return; open = false; clearTimeout(patience); socket.close(); done(text); };
    const patience = setTimeout(() => end(''), 2500);
    socket.on('message', (text) => end(String(text)));
    socket.on('error', () => end(''));
    socket.connect(port, host, (failed) => failed ? end('') : open && socket.send('?', () => {}));
  });
  const ping = (host) => new Promise((done) =>
    require('node:child_process').execFile('ping', ['-n', '-c', '1', '-W', '2', host], (failed) => done(failed ? '' : '${PONG}')));
  const call = ([host, port, protocol]) => protocol === 'udp' ? ask(host, port) : protocol === 'icmp' ? ping(host) : new Promise((done) => {
    const socket = net.connect({ host, port, timeout: 2500 });
    let heard = '';
    socket.on('data', (text) => { heard += text; });
    socket.on('close', () => done(heard));
    socket.on('error', () => {});
    socket.on('timeout', () => socket.destroy());
  });
  // Whoever started it is gone when nothing more is to come.
  require('node:readline').createInterface({ input: process.stdin }).on('line', async (line) => {
    console.log(JSON.stringify(await Promise.all(JSON.parse(line).map(call))));
  }).on('close', () => process.exit());
  Promise.all([...streams, ...datagrams]).then(() => console.log('ready'));
`;

/** What was made by this process, so that no two have one name. */
let [networks, cables] = [0, 0];

export class Namespaces {
  private readonly made: string[] = [];
  private readonly hosts = new Map<string, { child: ChildProcess; lines: AsyncIterator<string> }>();
  private readonly daemons: ChildProcess[] = [];
  private readonly at = networks++;

  private named = (name: string): string => `dn${process.pid}n${this.at}${name}`;

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
    const [left, right] = [`d${process.pid % 10_000}a${cables}`, `d${process.pid % 10_000}b${cables++}`];
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

  /** Takes an interface out of one host and gives it to another. */
  move(from: string, name: string, to: string): void {
    this.ip(from, `link set ${name} netns ${this.named(to)}`);
    this.ip(to, `link set ${name} up`);
  }

  /** A program that runs in a host until the network is closed. */
  daemon(name: string, command: string, args: readonly string[]): void {
    const words = ['netns', 'exec', this.named(name), command, ...args];
    this.daemons.push(spawn('ip', words, { stdio: 'ignore' }));
  }

  /**
   * A program that runs in a host until the network is closed; resolves with all it has said when it has said what is waited for, or
   * has ended.
   */
  told(name: string, command: string, args: readonly string[], until: RegExp): Promise<string> {
    const words = ['netns', 'exec', this.named(name), command, ...args];
    const child = spawn('ip', words, { stdio: ['ignore', 'pipe', 'pipe'] });
    this.daemons.push(child);
    let said = '';
    return new Promise((done) => {
      const hear = (text: Buffer) => {
        said += text.toString();
        if (until.test(said)) done(said);
      };
      child.stdout.on('data', hear);
      child.stderr.on('data', hear);
      child.on('close', () => done(said));
    });
  }

  /** What a program says that runs in a host; empty where it fails. */
  said(name: string, command: string, args: readonly string[]): Promise<string> {
    const words = ['netns', 'exec', this.named(name), command, ...args];
    return new Promise((done) => execFile('ip', words, (failed, text) => done(failed ? '' : text)));
  }

  /** Many lines of `ip` at once; those that fail are left out where `willing`. */
  batch(name: string, lines: readonly string[], willing = false): void {
    if (lines.length === 0) return;
    const words = ['-n', this.named(name), ...(willing ? ['-force'] : []), '-batch', '-'];
    try {
      run('ip', words, `${lines.join('\n')}\n`);
    } catch (error) {
      if (!willing) throw error;
    }
  }

  /** Resolves when all its ports listen. Its addresses must stand by then. */
  async serve(name: string, ports: readonly number[], says = name): Promise<void> {
    const child = spawn(
      'ip',
      ['netns', 'exec', this.named(name), process.execPath, '-e', HOST, says, ...ports.map(String)],
      { stdio: ['pipe', 'pipe', 'inherit'] },
    );
    const lines = createInterface({ input: child.stdout! })[Symbol.asyncIterator]();
    this.hosts.set(name, { child, lines });
    await this.heard(name);
  }

  /** Who answers each call from a host that serves: a name, or an empty text for nobody. */
  async calls(name: string, list: readonly (readonly [string, number, CallProtocol])[]): Promise<string[]> {
    this.hosts.get(name)!.child.stdin!.write(`${JSON.stringify(list)}\n`);
    return JSON.parse(await this.heard(name)) as string[];
  }

  private async heard(name: string): Promise<string> {
    const next = await this.hosts.get(name)!.lines.next();
    if (next.done) throw new Error(`the host ${name} ended`);
    return next.value;
  }

  close(): void {
    for (const child of [...this.daemons, ...[...this.hosts.values()].map((host) => host.child)])
      child.kill('SIGKILL');
    for (const name of this.made) run('ip', ['netns', 'del', name]);
  }
}
