import { formatAddress, maskOf } from '../address';
import type { Plan } from '../plan';
import { type PortFacts, isEvery, rangeText } from '../model/wiring';
import { pageTitles } from './pages/titles';
import { ALONE, type BoxState } from './state';
import type { Step } from './steps';

/** What to set, in the neutral words of IEEE 802.1Q; boxes call the same things otherwise. */

export interface Saying {
  /** What to do, in one line. */
  readonly does: string;
  /** What must be seen when it is done. */
  readonly sees: string;
}

/** How a step is taken back, from how its box was before. */
export function backOf(
  plan: Plan,
  { setting }: Step,
  before: BoxState,
  ports: readonly string[] = [],
): string {
  switch (setting.kind) {
    case 'vlans':
      return `Take VLAN ${byNumber(setting.vids)} away again.`;
    case 'port':
    case 'parachute': {
      const { ports: all, facts } = before.bridge;
      const was = facts[all.findIndex(({ id }) => id === setting.port)];
      return `${portsText(plan, ports.length > 1 ? ports : [setting.port])}: ${was ? factsText(was) : 'off'}.`;
    }
    case 'management': {
      const was = before.management;
      return was?.address == null
        ? 'Reset the box, or take what was saved last.'
        : `Management address back to ${formatAddress(was.address)}, mask ${maskOf(was.length)}${was.way ? '' : `, in VLAN ${was.vid}`}.`;
    }
    case 'pages':
      return 'Take back what was set there.';
    case 'plug':
      return 'Unplug them again.';
    case 'save':
      return 'From here on a restart brings nothing back.';
    case 'check':
      return '';
  }
}

/** Ports as on the case. */
const portsText = (plan: Plan, ports: readonly string[]): string =>
  `${ports.length > 1 ? 'Ports' : 'Port'} ${rangeText(ports.map((id) => plan.port.get(id)!))}`;

const byNumber = (vids: Iterable<number>): string => [...vids].sort((a, b) => a - b).join(', ');

/** What a port carries: untagged, tagged, and where untagged frames go should that differ. */
export function factsText({ pvid, untagged, tagged, accepts }: PortFacts): string {
  const first = untagged === null ? 'nothing untagged' : `untagged VLAN ${untagged}`;
  const parts = [untagged === ALONE ? 'untagged as it comes' : first];
  if (pvid !== null && pvid !== untagged && pvid !== ALONE) parts.push(`PVID ${pvid}`);
  if (isEvery(tagged)) parts.push('every VLAN tagged');
  else if (tagged.except) parts.push(`every VLAN tagged but ${byNumber(tagged.vids)}`);
  else if (tagged.vids.size > 0) parts.push(`tagged ${byNumber(tagged.vids)}`);
  if (accepts === 'tagged') parts.push('takes tagged frames only');
  if (accepts === 'untagged') parts.push('takes untagged frames only');
  return parts.join(', ');
}

/** A step as somebody says it who stands in front of the box; `ports` are all that are set alike. */
export function sayingOf(plan: Plan, { setting }: Step, ports: readonly string[] = []): Saying {
  const number = (port: string): string => portsText(plan, ports.length > 1 ? ports : [port]);
  switch (setting.kind) {
    case 'vlans':
      return {
        does: `Make VLAN ${byNumber(setting.vids)}`,
        sees: 'They stand in its list of VLANs.',
      };
    case 'port': {
      const { port, facts, part } = setting;
      if (facts === null) return { does: `${number(port)}: off`, sees: 'The light there stays dark.' };
      const now = `${number(port)}: ${factsText(facts)}`;
      if (part === 'add')
        return { does: `${now}; nothing is taken away yet`, sees: 'The page of the box still opens.' };
      if (part === 'pvid')
        return { does: `${now}; untagged frames go there already`, sees: 'The page of the box still opens.' };
      return { does: now, sees: 'The page of the box still opens.' };
    }
    case 'parachute':
      return {
        does: `${number(setting.port)}: ${factsText(setting.facts)}, for you as long as you work`,
        sees: 'A laptop there gets a link.',
      };
    case 'management': {
      const { address, length, vid } = setting.to;
      const at = formatAddress(address!);
      const { socket } = setting;
      const carries = socket?.facts ? `; on the same page its socket: ${factsText(socket.facts)}` : '';
      return {
        does: `Management address ${at}, mask ${maskOf(length)}, in VLAN ${vid}${carries}`,
        sees: `Its page opens at ${at}, and at the old address no more.`,
      };
    }
    case 'pages':
      return {
        does: `Set its other pages: ${setting.pages.map((page) => pageTitles[page]).join(', ')}`,
        sees: 'Each says that it took them, and its page still opens.',
      };
    case 'plug':
      return { does: 'Plug in its cables to other boxes', sees: 'Both ends show a link.' };
    case 'save':
      return { does: 'Save, so that it outlives a restart', sees: 'It says that it saved.' };
    case 'check':
      return {
        does: 'Restart it, and look whether it is as it was set',
        sees: 'Its page opens at the same address, with the same settings.',
      };
  }
}

/** What to do with the device whose socket is borrowed. */
export const lentText = (plan: Plan, device: string): string =>
  `Unplug ${plan.device.get(device)!.name} meanwhile, and plug it in again when you leave.`;
