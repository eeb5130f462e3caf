import * as z from 'zod';
import {
  idSchema,
  protocols,
  kinds,
  type Interface,
  type Uplink,
  type Draft,
  operation,
  type Plan,
  badInput,
  addressesOn,
  portsText,
} from '../../plan';
import { addForward } from './operations';
import { routedSixOf } from './six';
import { probe } from '../../rehearse';
import { knownServiceAt, uplinksOf, letsForwardsIn, outsideOf } from '../../model/uplink';

/** How something inside can be reached from outside: what each way needs, and why one cannot work here. */

export const visitors = ['own people', 'one company', 'anybody'] as const;
export type Visitor = (typeof visitors)[number];
export const ways = ['vpn', 'calls-out', 'forward', 'ipv6'] as const;
export type AccessWay = (typeof ways)[number];

export interface Wish {
  readonly target: string;
  readonly protocol: (typeof protocols)[number];
  readonly port: number;
  readonly who: Visitor;
}

export interface Advice {
  readonly way: AccessWay;
  readonly name: string;
  /** Can it work with what is recorded? Null when something that decides it is not known. */
  readonly works: boolean | null;
  /** What speaks for or against it here, in sentences. */
  readonly why: string;
  /** What has to be there or be done, in order. */
  readonly needs: readonly string[];
  /** The uplink it would come in by. */
  readonly uplink: string | null;
}

const names: Readonly<Record<AccessWay, string>> = {
  vpn: 'VPN to the gateway',
  'calls-out': 'the device calls out',
  forward: 'port forward',
  ipv6: 'IPv6, straight to the device',
};

/** The best first, for whoever is to come in: a key for few is right, a key for everybody is not. */
const order: Readonly<Record<Visitor, readonly AccessWay[]>> = {
  'own people': ['vpn', 'calls-out', 'ipv6', 'forward'],
  'one company': ['vpn', 'calls-out', 'forward', 'ipv6'],
  anybody: ['ipv6', 'forward', 'calls-out', 'vpn'],
};

/** The uplink by which something gets in best: one that surely lets in, else one that may. */
function wayIn(
  plan: Plan,
): { readonly uplink: Uplink; readonly works: boolean | null; readonly why: string } | null {
  const all = uplinksOf(plan).map((uplink) => ({ uplink, ...letsForwardsIn(uplink) }));
  return all.find(({ works }) => works === true) ?? all.find(({ works }) => works === null) ?? all[0] ?? null;
}

const stays = (uplink: Uplink): boolean => uplink.addressing === 'static' && outsideOf(uplink) === 'public';
/** The address a visitor types: fixed, or by a name that follows it. */
const nameNeeds = (uplink: Uplink): string[] =>
  stays(uplink)
    ? []
    : uplink.dynamicName === ''
      ? [`a dynamic name for ${uplink.name}, since its address may change`]
      : uplink.updater === null
        ? [`somebody who keeps ${uplink.dynamicName} up to date`]
        : [];

/** Ranks the ways to reach one service of one device from outside; those that cannot work come last. */
export function adviseReach(plan: Plan, wish: Wish): Advice[] {
  const item = plan.interface.get(wish.target);
  if (!item) throw badInput('This device is no longer in the plan; choose another.', 'target');
  const device = plan.device.get(item.device)!;
  const entry = wayIn(plan);
  const service = knownServiceAt(wish.protocol, wish.port);
  const risky = service !== undefined && (service.plain || service.control);
  const made: Readonly<Record<AccessWay, () => Omit<Advice, 'way' | 'name'>>> = {
    vpn: () => {
      if (!entry) return { works: false, why: 'No uplink is recorded.', needs: [], uplink: null };
      const many = wish.who === 'anybody' ? ' Everybody who comes would need a key of their own.' : '';
      return {
        works: entry.works,
        why:
          entry.works === false
            ? `It would have to be let in on ${entry.uplink.name}, and ${entry.why}.`
            : `Only who has a key gets in, and ${device.name} itself stays closed.${many}`,
        needs: [
          `one port let in on ${entry.uplink.name} for the VPN itself (${entry.why})`,
          ...nameNeeds(entry.uplink),
          'a key for each person, kept where the customer keeps keys',
        ],
        uplink: entry.uplink.id,
      };
    },
    'calls-out': () => {
      const vlan = homeOf(plan, item);
      const out = uplinksOf(plan).find(({ enabled }) => enabled);
      const works = out !== undefined && vlan !== undefined && callsOut(plan, item.device);
      return {
        works,
        why: !out
          ? 'No uplink is recorded.'
          : !vlan
            ? `${device.name} has no address here.`
            : works
              ? `Nothing is let in; ${device.name} keeps a connection to a server outside, whose owner can reach it at any time.`
              : vlan.internet
                ? `${device.name} does not get out to the Internet as it stands.`
                : `${vlan.name} may not reach the Internet.`,
        needs: [
          `a server outside that ${device.name} can call, and trust in who runs it`,
          ...(works
            ? []
            : vlan && !vlan.internet
              ? [`the Internet for ${vlan.name}, or for this device alone`]
              : []),
        ],
        uplink: out?.id ?? null,
      };
    },
    forward: () => {
      if (!entry) return { works: false, why: 'No uplink is recorded.', needs: [], uplink: null };
      const fixed = addressesOn(plan, item.id).some(({ assignment }) => assignment !== 'virtual');
      return {
        works: entry.works === false || !fixed ? false : entry.works,
        why:
          entry.works === false
            ? `It cannot get in on ${entry.uplink.name}: ${entry.why}.`
            : !fixed
              ? `${device.name} has no fixed address to forward to.`
              : entry.works === null
                ? `Not known whether anything gets in on ${entry.uplink.name}: ${entry.why}. If it does, ${portsText(wish.protocol, wish.port)} of ${device.name} is open to ${wish.who === 'anybody' ? 'everybody' : 'whoever you let come'}${risky ? `, ${service.control ? 'a way to control the device' : 'and it is not encrypted'}` : ''}.`
                : risky
                  ? `It works, and opens ${service.name}, which is ${service.control ? 'a way to control the device' : 'not encrypted'}, to ${wish.who === 'anybody' ? 'everybody' : 'whoever you let come'}.`
                  : `It works: ${portsText(wish.protocol, wish.port)} of ${device.name} is open to ${wish.who === 'anybody' ? 'everybody' : 'whoever you let come'}.`,
        needs: [
          ...(fixed ? [] : [`a fixed address for ${device.name}`]),
          ...nameNeeds(entry.uplink),
          ...(wish.who === 'anybody'
            ? []
            : ['the addresses those who come have outside, to let only them in']),
          ...(entry.uplink.upstream === 'routing' ? ['the same port entered in the box upstream'] : []),
        ],
        uplink: entry.uplink.id,
      };
    },
    ipv6: () => {
      const uplink = uplinksOf(plan).find(({ enabled, delegated }) => enabled && delegated !== null);
      const has = uplink !== undefined && routedSixOf(plan, item, uplink).length > 0;
      const home = homeOf(plan, item);
      return {
        works: uplink !== undefined && home !== undefined,
        why: !uplink
          ? 'No provider delegates an IPv6 prefix here.'
          : has
            ? 'No translation is in the way; who comes needs IPv6 too.'
            : home
              ? `${device.name} is given an address of the prefix that ${uplink.name} delegates; who comes needs IPv6 too.`
              : `${device.name} has no address here.`,
        needs: [
          ...(uplink ? [] : ['a provider that delegates an IPv6 prefix']),
          ...(has ? [] : [`a fixed IPv6 address for ${device.name}`]),
          `an opening in the filter for ${portsText(wish.protocol, wish.port)}`,
        ],
        uplink: uplink?.id ?? null,
      };
    },
  };
  const ranked = order[wish.who].map((way) => ({ way, name: names[way], ...made[way]() }));
  return [...ranked.filter(({ works }) => works !== false), ...ranked.filter(({ works }) => works === false)];
}

/** Does a device get to a server outside by HTTPS? */
const callsOut = (plan: Plan, device: string): boolean =>
  probe(plan, { from: { device }, to: { internet: true }, wanted: { protocol: 'tcp', port: 443 } }).works !==
  false;

/** The segment a network card has its first address in. */
function homeOf(plan: Plan, item: Interface) {
  const [address] = addressesOn(plan, item.id);
  return address && plan.vlan.get(plan.subnet.get(address.subnet)!.vlan);
}

/** Gives an uplink a name that follows its address, kept by its gateway unless somebody keeps it already. */
export function setDynamicName(draft: Draft, uplink: Uplink, name: string): void {
  if (name === '') return;
  if (!/^[a-z0-9-]+(\.[a-z0-9-]+)+$/i.test(name))
    throw badInput(`“${name}” is not a name in the DNS; write one like site.example.net.`, 'name');
  draft.update('uplink', uplink.id, { dynamicName: name, updater: uplink.updater ?? uplink.device });
}

/** Takes the advice of a port forward: the forward, and the name that follows the address with the gateway keeping it. */
export const takeForward = operation(
  'takeForward',
  z.strictObject({
    uplink: idSchema,
    target: idSchema,
    protocol: z.enum(protocols),
    port: kinds.forward.fields.inside,
    sources: kinds.forward.fields.sources.default([]),
    /** The dynamic name, where one is wanted. */
    name: z.string().trim().max(120).default(''),
  }),
  (draft, { uplink: id, target, protocol, port, sources, name }) => {
    const uplink = draft.need('uplink', id);
    setDynamicName(draft, uplink, name);
    return addForward.run(draft, { uplink: id, target, protocol, inside: port, count: 1, sources, note: '' });
  },
);
