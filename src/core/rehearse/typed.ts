import { parseAddress } from '../address';
import { type Plan, badInput, devicesNamed, vlansOf, boxOf } from '../plan';
import { type Wanted, allServices } from '../model/policy';
import { portsOf } from '../model/wiring';
import type { Receiver, Sender } from './probe';

/** Questions as people type them: from, to, and for what. */

function typedVlan(plan: Plan, text: string): { readonly vlan: string } | null {
  const wanted = text.toLowerCase();
  const vlan = vlansOf(plan).find(({ vid, code, name }) =>
    [String(vid), code.toLowerCase(), name.toLowerCase(), `${vid} ${code}`.toLowerCase()].includes(wanted),
  );
  return vlan ? { vlan: vlan.id } : null;
}

function typedPort(plan: Plan, text: string): { readonly port: string } | null {
  const [, name, number] = /^(.+?)\s+(\d{1,3})$/.exec(text) ?? [];
  const device = name === undefined ? undefined : devicesNamed(plan, name)[0];
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

/** `sw-a 17`, a device, a segment, or `internet`. */
export function typedSender(plan: Plan, typed: string): Sender {
  const text = typed.trim();
  if (isInternet(text)) return { internet: true };
  const [device] = devicesNamed(plan, text);
  const found = (device && { device: device.id }) ?? typedPort(plan, text) ?? typedVlan(plan, text);
  if (found) return found;
  throw badInput(
    text === ''
      ? 'Nobody sends; write a port like sw-a 7, a device, a segment or internet.'
      : `“${text}” is no port, device or segment here; write one like sw-a 7, a device’s name, a segment or internet.`,
    'from',
  );
}

/** A device, an address, a segment, `internet` or `gateway`. */
export function typedReceiver(plan: Plan, typed: string): Receiver {
  const text = typed.trim();
  if (isInternet(text)) return { internet: true };
  const [device] = devicesNamed(plan, text);
  if (device) return { device: device.id };
  if (/^(the )?gateway$/i.test(text)) return { gateway: true };
  const address = parseAddress(text);
  if (address !== null) return { address };
  const vlan = typedVlan(plan, text);
  if (vlan) return vlan;
  throw badInput(
    text === ''
      ? 'Nobody is to be reached; write a device, an address, a segment, internet or gateway.'
      : `“${text}” is no device, address or segment here; write one of these, internet or gateway.`,
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

/** What can be typed, for the lists beside the fields. */
export function suggestions(plan: Plan): {
  readonly ends: readonly string[];
  readonly services: readonly string[];
} {
  return {
    ends: [
      'internet',
      'gateway',
      ...vlansOf(plan).map(({ vid, code }) => `${vid} ${code}`),
      ...[...plan.device.values()]
        .map(({ name }) => name)
        .sort((a, b) => a.localeCompare(b, undefined, { numeric: true })),
    ],
    services: allServices(plan).map(({ name }) => name),
  };
}
