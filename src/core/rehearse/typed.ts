import { contains, parseAddress } from '../address';
import { type Plan, badInput, boxOf, byName, derive, hostOf, vlansOf } from '../plan';
import { deviceMeant, deviceTyped } from '../model/hosts';
import { type Wanted, allServices, isOutside, vlanOfAddress, zonesOf } from '../model/policy';
import { holdersOf } from '../model/routing';
import { vlanMeant } from '../model/segments';
import { portsOf } from '../model/wiring';
import { radiosOf, sentBy, ssidsOf } from '../model/wireless';
import type { Air, Entry } from './entry';
import type { Receiver, Sender } from './question';

/** Questions as people type them: from, to, and for what. */

function typedVlan(plan: Plan, text: string, field: string): { readonly vlan: string } | null {
  const vlan = vlanMeant(plan, text, field);
  return vlan ? { vlan: vlan.id } : null;
}

function typedPort(plan: Plan, text: string): { readonly port: string } | null {
  const [, name, number] = /^(.+?)\s+(\d{1,3})$/.exec(text) ?? [];
  const device =
    name === undefined
      ? undefined
      : deviceMeant(plan, name, 'from', ({ id }) => boxOf(plan, id) !== undefined);
  if (!device || !boxOf(plan, device.id)) return null;
  const port = portsOf(plan, device.id).find((candidate) => candidate.number === Number(number));
  if (port && port.number > 0) return { port: port.id };
  const last = portsOf(plan, device.id).at(-1)?.number ?? 0;
  throw badInput(`${device.name} has no port ${number}; it has the ports 1 to ${last}.`, 'from');
}

const isInternet = (text: string) => /^(the )?internet$/i.test(text);

/** A port of a box, `sw-a 17`, and nothing else. */
export function typedBoxPort(plan: Plan, typed: string): string {
  const found = typedPort(plan, typed.trim());
  if (found) return found.port;
  throw badInput(`“${typed.trim()}” is no port of a box; write one like sw-a 7.`, 'port');
}

/** A zone stands for its one segment, the gateway or the Internet; of several segments one must be named. */
function typedZone(
  plan: Plan,
  text: string,
  field: string,
): { readonly vlan: string } | { readonly internet: true } | { readonly gateway: true } | null {
  const zone = zonesOf(plan).find(({ name }) => name.toLowerCase() === text.toLowerCase());
  if (!zone) return null;
  if (isOutside(zone)) return { internet: true };
  const [only, ...others] = vlansOf(plan).filter(({ id }) => zone.vlans.includes(id));
  if (!only) return zone.gateway ? { gateway: true } : null;
  if (others.length === 0) return { vlan: only.id };
  throw badInput(
    `The zone ${zone.name} has the segments ${[only, ...others].map(({ name }) => name).join(', ')}; name one of them.`,
    field,
  );
}

/** The names most like what was typed, as a sentence; empty where nothing is. */
function alike(plan: Plan, text: string): string {
  const near = suggestedEnds(plan, text, 4).filter((name) => name !== 'internet' && name !== 'gateway');
  return text !== '' && near.length > 0 ? ` Nearest here: ${near.join(', ')}.` : '';
}

/** `Guests at ap-1`, or the name of a network, which is joined at the first access point that sends it. */
function typedAir(plan: Plan, text: string): Air | null {
  const wanted = text.toLowerCase();
  for (const ssid of ssidsOf(plan)) {
    const name = ssid.name.toLowerCase();
    if (wanted === name) {
      const [first] = sentBy(plan, ssid);
      if (first) return { ssid: ssid.id, at: first.id };
    }
    const at = wanted.startsWith(`${name} at `)
      ? deviceMeant(plan, text.slice(name.length + 4), 'from', ({ id }) => radiosOf(plan, id).length > 0)
      : undefined;
    if (at) return { ssid: ssid.id, at: at.id };
  }
  return null;
}

/** A port of a box, or a wireless network at an access point. */
export const typedEntry = (plan: Plan, typed: string): Entry =>
  typedAir(plan, typed.trim()) ?? { port: typedBoxPort(plan, typed) };

/** `sw-a 17`, a device, an address, a segment, a network on the air, a zone, a tunnel or VPN by its name, or `internet`. */
export function typedSender(plan: Plan, typed: string): Sender {
  const text = typed.trim();
  if (isInternet(text)) return { internet: true };
  const device = deviceMeant(plan, text, 'from');
  const found =
    (device && { device: device.id }) ??
    typedPort(plan, text) ??
    typedVlan(plan, text, 'from') ??
    typedAir(plan, text);
  if (found) return found;
  const address = parseAddress(text);
  if (address !== null) {
    const [holder] = holdersOf(plan, address);
    if (holder) return { device: hostOf(plan, holder).device.id };
    const far = [...plan.tunnel.values()].find(({ remote }) => remote.some((net) => contains(net, address)));
    if (far) return { tunnel: far.id };
    const vlan = vlanOfAddress(plan, address);
    return vlan === null ? { internet: true } : { vlan };
  }
  const tunnel = [...plan.tunnel.values()].find(({ name }) => name.toLowerCase() === text.toLowerCase());
  if (tunnel) return { tunnel: tunnel.id };
  const zone = typedZone(plan, text, 'from');
  if (zone && !('gateway' in zone)) return zone;
  throw badInput(
    text === ''
      ? 'Nobody sends; write a port like sw-a 7, a device, an address, a segment or internet.'
      : `“${text}” is no port, device, address, segment, network on the air, zone or tunnel here.${alike(plan, text)}`,
    'from',
  );
}

/** A device, an address, a segment, a zone, `internet` or `gateway`. */
export function typedReceiver(plan: Plan, typed: string): Receiver {
  const text = typed.trim();
  if (isInternet(text)) return { internet: true };
  const device = deviceMeant(plan, text, 'to');
  if (device) return { device: device.id };
  if (/^(the )?gateway$/i.test(text)) return { gateway: true };
  const address = parseAddress(text);
  if (address !== null) return { address };
  const found = typedVlan(plan, text, 'to') ?? typedZone(plan, text, 'to');
  if (found) return found;
  throw badInput(
    text === ''
      ? 'Nobody is to be reached; write a device, an address, a segment, internet or gateway.'
      : `“${text}” is no device, address, segment or zone here.${alike(plan, text)}`,
    'to',
  );
}

/** `ping`, `HTTPS`, `tcp 8443`, `icmp 8`. */
export function typedWanted(plan: Plan, typed: string): Wanted {
  const text = typed.trim();
  const [, protocol, number] = /^(tcp|udp|icmp)\s+(\d{1,5})$/i.exec(text) ?? [];
  if (protocol !== undefined) {
    const port = Number(number);
    const last = protocol.toLowerCase() === 'icmp' ? 255 : 65_535;
    if (port <= last) return { protocol: protocol.toLowerCase() as Wanted['protocol'], port };
    throw badInput(`${protocol} ends at ${last}, and ${port} is more; write a smaller number.`, 'service');
  }
  const service = allServices(plan).find(({ name }) => name.toLowerCase() === text.toLowerCase());
  const match = service?.matches.find((candidate) => candidate.protocol !== 'ip');
  if (match && match.protocol !== 'ip') return { protocol: match.protocol, port: match.from };
  throw badInput(`“${text}” is no service here; write one like ping, HTTPS, tcp 8443 or udp 161.`, 'service');
}

const namesOfDevices = derive((plan): readonly string[] =>
  [...plan.device.values()].map((device) => deviceTyped(plan, device)).sort(byName),
);
const SHOWN = 30;

/** What can be typed as an end and is like the text so far: what begins with it before what contains it. */
export function suggestedEnds(plan: Plan, text: string, most = SHOWN): readonly string[] {
  const wanted = text.trim().toLowerCase();
  const words = [
    'internet',
    'gateway',
    ...vlansOf(plan).flatMap(({ vid, code, name }) => [`${vid} ${code}`, name]),
    ...zonesOf(plan).map(({ name }) => name),
    ...[...plan.tunnel.values()].map(({ name }) => name),
    ...ssidsOf(plan).flatMap((ssid) => sentBy(plan, ssid).map((at) => `${ssid.name} at ${at.name}`)),
  ];
  const begin = new Set<string>();
  const inside = new Set<string>();
  for (const list of [words, namesOfDevices(plan)])
    for (const word of list) {
      if (begin.size >= most) break;
      const at = word.toLowerCase().indexOf(wanted);
      if (at === 0) begin.add(word);
      else if (at > 0 && inside.size < most) inside.add(word);
    }
  return [...new Set([...begin, ...inside])].slice(0, most);
}

export const suggestedServices = (plan: Plan): readonly string[] => allServices(plan).map(({ name }) => name);
