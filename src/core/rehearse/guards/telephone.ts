import { formatAddress } from '../../address';
import {
  type Device,
  type Plan,
  type Port,
  type Telephony,
  type Vlan,
  addressesOn,
  boxOf,
  interfacesOf,
  portTitle,
  withRecord,
} from '../../plan';
import { type Target, hopOf, macOf, targetOf, telephonyOf } from '../../model/guards';
import { landsIn } from '../../model/switching';
import { access, classAsked, isOpen, portsOf, powerOf, reservedFor, usualPoeClass } from '../../model/wiring';
import { discover } from '../dhcp';
import { deliver } from '../frames';
import { homeVlanOf } from './authenticate';
import { type Answer, probe } from '../probe';

/**
 * A telephone as it starts: power, the voice VLAN by LLDP-MED (ANSI/TIA-1057), an address by DHCP, its boot server, where it
 * registers, and what becomes of the priority of voice at every box on the way.
 */

export interface TelephoneStep {
  readonly what: 'Power' | 'Voice VLAN' | 'Address' | 'Boot server' | 'Registers' | 'Priority';
  readonly says: string;
  /** Null where something decides it that nobody recorded. */
  readonly works: boolean | null;
}

export interface Telephone {
  readonly steps: readonly TelephoneStep[];
  /** The segment it ends in; null where it is in none. */
  readonly vlan: Vlan | null;
  readonly works: boolean | null;
  /** The boxes its voice goes through, in order; empty where it does not register. */
  readonly through: readonly string[];
}

/** False when one is, else null when one is not known. */
const together = (all: readonly { readonly works: boolean | null }[]): boolean | null =>
  all.some(({ works }) => works === false) ? false : all.some(({ works }) => works === null) ? null : true;

function power(plan: Plan, port: Port, phone: Device | null): TelephoneStep {
  const step = (says: string, works: boolean) => ({ what: 'Power' as const, says, works });
  const own = phone && portsOf(plan, phone.id)[0];
  const asks = own ? own.poeClass : usualPoeClass.phone!;
  if (asks === null) return step('it has a power supply of its own', true);
  const title = portTitle(plan, port);
  const wants = `class ${asks} (${reservedFor(asks)} W)`;
  if (port.poeClass === null) return step(`it asks for ${wants}, and ${title} gives none`, false);
  if (port.poeClass < asks)
    return step(`it asks for ${wants}, and ${title} gives class ${port.poeClass} at most`, false);
  const { left } = powerOf(plan, port.device);
  const box = plan.device.get(port.device)!.name;
  const counted = classAsked(plan, port) !== null;
  if (left !== null && left - (counted ? 0 : reservedFor(asks)) < 0)
    return step(`it asks for ${wants}, and the budget of ${box} is spent`, false);
  return step(`${wants} from ${title}`, true);
}

interface Taught {
  readonly step: TelephoneStep;
  readonly vlan: Vlan | null;
  readonly tagged: boolean;
}
function taught(plan: Plan, port: Port): Taught {
  const title = portTitle(plan, port);
  const step = (says: string, works: boolean | null) => ({ what: 'Voice VLAN' as const, says, works });
  if (!isOpen(port)) return { step: step(`${title} lets nothing pass`, false), vlan: null, tagged: false };
  const { announces } = hopOf(plan, port.device);
  const box = plan.device.get(port.device)!.name;
  if (port.role === 'voice' && port.voice !== null && announces !== 'no') {
    const vlan = plan.vlan.get(port.voice)!;
    const settings = telephonyOf(plan, vlan.id);
    const marks = settings ? `, priority ${settings.priority}, DSCP ${settings.dscp}` : '';
    const said = `LLDP-MED at ${title}: VLAN ${vlan.vid} tagged${marks}`;
    if (vlan.purpose !== 'voice')
      return { step: step(`${said}; that is ${vlan.name}, no segment for voice`, false), vlan, tagged: true };
    const unsure = `${said}; whether ${box} can announce it is not recorded`;
    return {
      step: announces === 'yes' ? step(said, true) : step(unsure, null),
      vlan,
      tagged: true,
    };
  }
  const { vlan, why } = landsIn(plan, port);
  if (!vlan) return { step: step(why.replace(/^you(r laptop)? /, 'it '), false), vlan, tagged: false };
  const silent =
    port.role === 'voice' ? `${box} cannot announce a VLAN` : `${title} announces no VLAN for voice`;
  return vlan.purpose === 'voice'
    ? { step: step(`without a tag in ${vlan.name}`, true), vlan, tagged: false }
    : { step: step(`${silent}: it stays without a tag, in ${vlan.name}`, false), vlan, tagged: false };
}

/** Its own fixed address in the segment: then it asks for no lease and hears no options. */
const fixedIn = (plan: Plan, phone: Device, vlan: Vlan) =>
  interfacesOf(plan, phone.id)
    .flatMap((card) => addressesOn(plan, card.id))
    .find(({ subnet, assignment }) => assignment === 'static' && plan.subnet.get(subnet)!.vlan === vlan.id);

interface Addressed {
  readonly step: TelephoneStep;
  readonly leased: boolean;
}
function addressed(plan: Plan, port: Port, phone: Device | null, vlan: Vlan): Addressed {
  const step = (says: string, works: boolean) => ({ what: 'Address' as const, says, works });
  const fixed = phone && fixedIn(plan, phone, vlan);
  if (fixed)
    return { step: step(`${formatAddress(fixed.address)}, set at the telephone`, true), leased: false };
  const [card] = phone ? interfacesOf(plan, phone.id) : [];
  const mac = card ? macOf(plan, card) : null;
  const { taken, summary } = discover(plan, { at: { port: port.id }, mac, rogueAt: null });
  const offer = taken?.offer ?? null;
  if (!offer) return { step: step(summary.replace(/^No address: /, 'none: '), false), leased: false };
  return {
    step: step(`${formatAddress(offer.address)} from ${taken!.name}, ${taken!.why}`, true),
    leased: true,
  };
}

const nothingTold = (what: TelephoneStep['what'], says: string): TelephoneStep => ({
  what,
  says,
  works: null,
});

function bootStep(
  settings: Telephony,
  leased: boolean,
  ask: (target: Target) => Answer,
  target: Target | null,
) {
  const what = 'Boot server' as const;
  const { boot, bootOption } = settings;
  if (!target) return { what, says: `“${boot}” is no host, address or URL`, works: false };
  if (bootOption === '150' && !target.literal)
    return { what, says: `option 150 carries addresses (RFC 5859), and “${boot}” is none`, works: false };
  if (!leased)
    return { what, says: `option ${bootOption} comes with a lease, and it asks for none`, works: null };
  const { works, summary } = ask(target);
  const { protocol, port } = target.wanted;
  const served = `option ${bootOption}: ${boot}, ${protocol.toUpperCase()} ${port}`;
  return { what, says: works === false ? `${served}: ${summary}` : served, works };
}

/** The boxes that frames of an answer went through on the way there, each once. */
function throughOf(plan: Plan, { wires }: Answer): string[] {
  const found = new Set<string>();
  for (const { from, vlan, to, listens } of wires)
    for (const { device } of deliver(plan, from, vlan, to, listens).hops)
      if (boxOf(plan, device)) found.add(device);
  return [...found];
}

function priority(plan: Plan, through: readonly string[]): TelephoneStep {
  const at = (device: string) => ({ name: plan.device.get(device)!.name, ...hopOf(plan, device) });
  const hops = through.map(at);
  const lost = hops.find(({ marks }) => marks === 'cleared');
  const slow = hops.filter(({ queue }) => queue === 'no').map(({ name }) => name);
  const unsure = hops.filter(({ marks, queue }) => marks === 'unknown' || queue === 'unknown');
  const says = [
    lost ? `${lost.name} clears the mark, and nobody after it knows voice from anything else` : '',
    slow.length > 0
      ? `${slow.join(', ')} ${slow.length === 1 ? 'sends' : 'send'} it after whatever came first`
      : '',
    unsure.length > 0 ? `not recorded at ${unsure.map(({ name }) => name).join(', ')}` : '',
  ].filter(Boolean);
  return {
    what: 'Priority',
    says:
      says.length > 0 ? says.join('; ') : `kept and sent first by ${hops.map(({ name }) => name).join(', ')}`,
    works: lost || slow.length > 0 ? false : unsure.length > 0 ? null : true,
  };
}

/** The boxes that the voice of a telephone with an address goes through on its way to where it registers; none where it does not. */
export function voiceThrough(plan: Plan, phone: string, today: string | null): string[] {
  const vlan = homeVlanOf(plan, phone);
  const registrar = (vlan && telephonyOf(plan, vlan)?.registrar) || '';
  const target = registrar === '' ? null : targetOf(plan, registrar, 'sip');
  if (!target) return [];
  const answer = probe(plan, { from: { device: phone }, to: target.to, wanted: target.wanted }, today);
  return answer.works === false ? [] : throughOf(plan, answer);
}

/**
 * Lets a telephone start at a port of a box; null for a new one. What it sends with the tag it was told is looked at as if the
 * port put it there itself, so a guard or a router treats both alike.
 */
export function telephoneAt(
  plan: Plan,
  port: Port,
  phone: Device | null,
  today: string | null,
  { powered = true }: { readonly powered?: boolean } = {},
): Telephone {
  const { step, vlan, tagged } = taught(plan, port);
  const steps: TelephoneStep[] = [...(powered ? [power(plan, port, phone)] : []), step];
  const end = (through: readonly string[] = []): Telephone => ({
    steps,
    vlan,
    works: together(steps),
    through,
  });
  if (!vlan) return end();
  const there = tagged ? withRecord(plan, 'port', port.id, { ...port, ...access(vlan.id) }) : plan;
  const has = addressed(there, there.port.get(port.id)!, phone, vlan);
  steps.push(has.step);
  if (has.step.works === false) return end();
  const settings = telephonyOf(plan, vlan.id);
  if (!settings) {
    if (vlan.purpose === 'voice')
      steps.push(nothingTold('Boot server', `what telephones in ${vlan.name} are told is not recorded`));
    return end();
  }
  // With an address of its own in the segment it is asked as itself.
  const known = phone !== null && homeVlanOf(plan, phone.id) === vlan.id;
  const seen = known ? plan : there;
  const from = known ? { device: phone.id } : { port: port.id };
  const ask = ({ to, wanted }: Target) => probe(seen, { from, to, wanted }, today);
  if (settings.boot !== '')
    steps.push(bootStep(settings, has.leased, ask, targetOf(plan, settings.boot, 'tftp')));
  const { registrar } = settings;
  const target = registrar === '' ? null : targetOf(plan, registrar, 'sip');
  if (!target) {
    const says = registrar === '' ? 'where is not recorded' : `“${registrar}” is no host, address or URL`;
    steps.push({ what: 'Registers', says, works: registrar === '' ? null : false });
    return end();
  }
  const answer = ask(target);
  const { protocol, port: number } = target.wanted;
  const where = `at ${registrar}, ${protocol.toUpperCase()} ${number}`;
  steps.push({
    what: 'Registers',
    says: answer.works === false ? `${where}: ${answer.summary}` : where,
    works: answer.works,
  });
  if (answer.works === false) return end();
  const through = throughOf(seen, answer);
  if (through.length > 0) steps.push(priority(plan, through));
  return end(through);
}
