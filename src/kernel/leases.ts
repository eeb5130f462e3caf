import fc from 'fast-check';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { familyOf, formatAddress, parseAddress } from '../core/address';
import { fabric } from '../core/model/switching';
import { type WiredPort, linksOf } from '../core/model/wiring';
import {
  type Interface,
  type Plan,
  addressesOf,
  addressesOn,
  interfacesOf,
  portTitle,
  subnetOf,
  vlansOf,
} from '../core/plan';
import { discover } from '../core/rehearse';
import { deviceNamed, portNamed, put } from '../core/testing/gear';
import { cardOf } from '../core/testing/internet';
import { tried } from '../core/testing/plans';
import { openEnd, trafficOf } from '../core/lab';
import type { Namespaces } from './namespaces';

/** Leases on the kernel: a server or relay wherever the plan has one, and a client in every free port. */

type Change = (plan: Plan, at: number) => Plan;

const PLACES = ['sw-a 5', 'sw-a 6', 'sw-b 5', 'sw-b 6', 'gw-1 4'].map(
  (text) => text.split(' ') as [string, string],
);
const segmentAt = (plan: Plan, at: number) => vlansOf(plan)[at % vlansOf(plan).length]!;
const poolsIn = (plan: Plan, vlan: string) => {
  const subnet = subnetOf(plan, vlan, 4);
  return subnet ? [...plan.pool.group(subnet.id).values()] : [];
};
const servedBy = (plan: Plan, vlan: string, names: readonly string[]): Plan =>
  poolsIn(plan, vlan).reduce(
    (next, pool) => put(next, 'pool', pool, { servedBy: names.map((name) => cardOf(plan, name).id) }),
    plan,
  );
/** The interface of the gateway in a segment. */
const legOf = (plan: Plan, vlan: string): Interface | undefined =>
  interfacesOf(plan, deviceNamed(plan, 'gw-1').id).find((item) => item.vlan === vlan);
const relayed = (plan: Plan, vlan: string, name: string): Plan => {
  const leg = legOf(plan, vlan);
  return leg ? tried(plan, 'setRelay', { interface: leg.id, servers: [cardOf(plan, name).id] }) : plan;
};

/** What is done about leases: sockets for clients, servers elsewhere, relays, pools that are full. */
const changes: Readonly<Record<string, Change>> = {
  socket: (plan, at) => {
    const [name, number] = PLACES[at % PLACES.length]!;
    const { id } = portNamed(plan, name, Number(number));
    return tried(plan, 'assignPorts', { ports: [id], role: 'access', vlan: segmentAt(plan, at >> 3).id });
  },
  central: (plan, at) => {
    const { id } = segmentAt(plan, at);
    return relayed(servedBy(plan, id, ['cam-1']), id, 'cam-1');
  },
  noRelay: (plan, at) => servedBy(plan, segmentAt(plan, at).id, ['cam-1']),
  local: (plan, at) => servedBy(plan, segmentAt(plan, at).id, ['till']),
  two: (plan, at) => {
    const { id } = segmentAt(plan, at);
    const leg = legOf(plan, id);
    const both = servedBy(plan, id, ['till']);
    return poolsIn(both, id).reduce(
      (next, pool) => (leg ? put(next, 'pool', pool, { servedBy: [...pool.servedBy, leg.id] }) : next),
      both,
    );
  },
  nobody: (plan, at) => servedBy(plan, segmentAt(plan, at).id, []),
  full: (plan, at) => {
    const { id } = segmentAt(plan, at);
    const held = addressesOf(plan, subnetOf(plan, id, 4)?.id ?? '')[0];
    return held
      ? poolsIn(plan, id).reduce(
          (next, pool) => put(next, 'pool', pool, { start: held.address, end: held.address }),
          plan,
        )
      : plan;
  },
};
export const drawnLeases = fc.array(
  fc.tuple(fc.constantFrom('socket', 'socket', 'socket', ...Object.keys(changes)), fc.nat(999)),
  { maxLength: 9 },
);
/** A plan with these changes; those that find nothing to change leave it as it is. */
export const withLeases = (plan: Plan, drawn: readonly (readonly [string, number])[]): Plan =>
  drawn.reduce((next, [name, at]) => {
    try {
      return changes[name]!(next, at);
    } catch {
      return next;
    }
  }, plan);

const four = (plan: Plan, item: Interface) =>
  addressesOn(plan, item.id).filter(({ address }) => familyOf(address) === 4);
const maskOf = (length: number): string => formatAddress((0xff_ff_ff_ff << (32 - length)) >>> 0);

/** What one box leases and relays, as the server takes it on its command line; empty for nothing. */
function settingsOf(plan: Plan, device: string): string[] {
  const items = interfacesOf(plan, device);
  const own = new Set(items.map(({ id }) => id));
  const pools = [...plan.pool.values()].filter(
    ({ servedBy: by, start }) => familyOf(start) === 4 && by.some((id) => own.has(id)),
  );
  const ranges = pools.flatMap((pool, i) => {
    const { prefix, id } = plan.subnet.get(pool.subnet)!;
    const gateway = addressesOf(plan, id).find((item) => item.gateway);
    return [
      `--dhcp-range=set:p${i},${formatAddress(pool.start)},${formatAddress(pool.end)},${maskOf(prefix.length)},3600`,
      `--dhcp-option=tag:p${i},3${gateway ? `,${formatAddress(gateway.address)}` : ''}`,
    ];
  });
  // What somebody else has is not handed out.
  const held = [...new Set(pools.map(({ subnet }) => subnet))].flatMap((id) =>
    addressesOf(plan, id).map(({ address }, i) => {
      const mac = [i >> 8, i & 255].map((byte) => byte.toString(16).padStart(2, '0'));
      return `--dhcp-host=02:00:5e:00:${mac.join(':')},${formatAddress(address)}`;
    }),
  );
  const relays = [...plan.relay.values()].flatMap(({ interface: id, servers }) =>
    own.has(id)
      ? four(plan, plan.interface.get(id)!).flatMap(({ address }) =>
          servers.flatMap((server) => {
            const to = four(plan, plan.interface.get(server)!)[0];
            return to ? [`--dhcp-relay=${formatAddress(address)},${formatAddress(to.address)}`] : [];
          }),
        )
      : [],
  );
  return [...ranges, ...held, ...relays];
}

/** A box that leases in a segment and relays out of it as well: which of the two it does differs from box to box. */
function doesBoth(plan: Plan, vlan: string): boolean {
  const deviceOf = (id: string) => plan.interface.get(id)!.device;
  const leasing = new Set(poolsIn(plan, vlan).flatMap((pool) => pool.servedBy.map(deviceOf)));
  return [...plan.relay.values()].some(
    ({ interface: id, servers }) =>
      servers.length > 0 &&
      leasing.has(deviceOf(id)) &&
      four(plan, plan.interface.get(id)!).some(({ subnet }) => plan.subnet.get(subnet)!.vlan === vlan),
  );
}

/** A server that leases and does nothing else. */
export const dnsmasq = (net: Namespaces, host: string, settings: readonly string[]): void =>
  net.daemon(host, 'dnsmasq', [
    '--keep-in-foreground',
    '--user=root',
    '--pid-file=',
    '--port=0',
    '--no-ping',
    '--dhcp-authoritative',
    '--leasefile-ro',
    ...settings,
  ]);

/** What a client is given, by what it tells its script; null for nothing. */
interface Given {
  readonly ip: string;
  readonly mask: string;
  readonly router: string;
  readonly server: string;
}
const SCRIPT = '#!/bin/sh\n[ "$1" = bound ] && echo "$ip $subnet $router $serverid"\nexit 0\n';

async function lease(net: Namespaces, client: string, dev: string, script: string): Promise<Given | null> {
  const text = await net.said(client, 'udhcpc', [
    '-i',
    dev,
    '-f',
    '-n',
    '-q',
    '-t',
    '4',
    '-T',
    '1',
    '-s',
    script,
  ]);
  const said = text.split('\n').find((line) => /^\d+\.\d+\.\d+\.\d+ /.test(line));
  if (!said) return null;
  const words = said.trim().split(' ');
  const [ip, mask] = [words[0]!, words[1]!];
  return { ip, mask, router: words.length > 3 ? words[2]! : '', server: words.at(-1)! };
}

const saysOf = (given: Given | null): string =>
  given ? `${given.ip} ${given.mask} by ${given.router || 'nobody'} from ${given.server}` : 'nothing';

/** Is this lease one of those that are offered by the rehearsal? */
function isOffered(plan: Plan, { hearings }: ReturnType<typeof discover>, given: Given | null): boolean {
  const offering = hearings.filter(({ offer }) => offer !== null);
  if (!given) return offering.length === 0;
  return offering.some(({ on, pool, offer }) => {
    const { device } = plan.interface.get(on!.id)!;
    const address = parseAddress(given.ip)!;
    return (
      interfacesOf(plan, device).some((item) =>
        four(plan, item).some((own) => formatAddress(own.address) === given.server),
      ) &&
      address >= pool!.start &&
      address <= pool!.end &&
      given.mask === maskOf(offer!.length) &&
      given.router === (offer!.gateway === null ? '' : formatAddress(offer!.gateway))
    );
  });
}

/** Ports that somebody could plug a computer into, and the VLAN of their box that its frames join. */
function socketsOf(plan: Plan): { readonly port: WiredPort; readonly vid: number }[] {
  return fabric(plan).bridges.flatMap(({ ports }) =>
    ports.flatMap((port) => {
      if (port.number === 0 || linksOf(plan).get(port.id)?.length) return [];
      const { takes, sends } = trafficOf(plan, port.id, '', 0);
      return takes !== null && sends.length === 1 && sends[0] === takes ? [{ port, vid: takes }] : [];
    }),
  );
}

export interface ComparedLeases {
  readonly clients: number;
  readonly leased: number;
  readonly wrong: readonly string[];
}

/** On a network that stands: starts the servers, plugs a client into every free port, and compares what each is given. */
export async function compareLeases(
  plan: Plan,
  net: Namespaces,
  stands: (device: string) => boolean,
  today: string | null,
): Promise<ComparedLeases> {
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'dianome-lease-'));
  try {
    const script = path.join(folder, 'told');
    fs.writeFileSync(script, SCRIPT, { mode: 0o755 });
    for (const { id } of plan.device.values()) {
      const settings = stands(id) ? settingsOf(plan, id) : [];
      if (settings.length > 0)
        dnsmasq(net, id, ['--conf-file=/dev/null', '--log-facility=/dev/null', ...settings]);
    }
    const clients = socketsOf(plan).flatMap(({ port, vid }, i) => {
      const told = discover(plan, { at: { port: port.id }, mac: null, rogueAt: null }, today);
      const open =
        told.hearings.some(({ assumed }) => assumed) || (told.vlan && doesBoth(plan, told.vlan.id));
      return open ? [] : [{ port, vid, told, name: `c${i}`, dev: openEnd(port.number, vid) }];
    });
    const wrong: string[] = [];
    let leased = 0;
    await Promise.all(
      clients.map(async ({ port, told, name, dev }) => {
        net.add(name);
        net.move(port.device, dev, name);
        let given = await lease(net, name, dev, script);
        // A machine that is busy answers late.
        for (let again = 0; again < 2 && !isOffered(plan, told, given); again++)
          given = await lease(net, name, dev, script);
        if (given) leased++;
        if (!isOffered(plan, told, given))
          wrong.push(
            `${portTitle(plan, plan.port.get(port.id)!)} leases ${saysOf(given)}, the rehearsal says: ${told.summary}`,
          );
      }),
    );
    return { clients: clients.length, leased, wrong };
  } finally {
    fs.rmSync(folder, { recursive: true, force: true });
  }
}
