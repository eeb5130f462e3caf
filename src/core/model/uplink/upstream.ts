import { type IpAddress, formatAddress, contains, parsePrefix, specialBlockOf } from '../../address';
import type { Plan, Uplink } from '../../plan';

/** What follows from how a gateway is joined to its provider: who translates, what may come in, how long packets are. */

export type Outside = Uplink['outside'];

const SHARED = parsePrefix('100.64.0.0/10')!.prefix;

/** Of what kind an outside address is: shared by a provider's customers (RFC 6598), private (RFC 1918, 4193) or public. */
export function kindOfAddress(address: IpAddress): Exclude<Outside, 'unknown'> {
  if (typeof address === 'number' && contains(SHARED, address)) return 'shared';
  const block = specialBlockOf({ address, length: typeof address === 'number' ? 32 : 128 });
  return block && block.inside !== 'documentation' ? 'private' : 'public';
}

/** What the outside address is: read off the address where that is recorded. */
export const outsideOf = (uplink: Uplink): Outside =>
  uplink.address === null ? uplink.outside : kindOfAddress(uplink.address);

/** Somebody further out than this gateway who translates addresses once more. */
export type Translator = 'upstream-router' | 'provider' | 'somebody';

/** Who translates addresses behind this gateway's own translation; empty when its outside address is public. */
export function translatorsOf(uplink: Uplink): readonly Translator[] {
  const outside = outsideOf(uplink);
  return [
    ...(uplink.upstream === 'routing' ? (['upstream-router'] as const) : []),
    ...(outside === 'shared' ? (['provider'] as const) : []),
    // A private address with no router upstream comes from somewhere.
    ...(outside === 'private' && uplink.upstream !== 'routing' ? (['somebody'] as const) : []),
  ];
}

export interface Letting {
  /** Do forwards work? Null when that cannot be known from what is recorded. */
  readonly works: boolean | null;
  /** Why, in words that stand alone. */
  readonly why: string;
}

/**
 * Whether a forward on this uplink can work: the outside address is public, or every router further out passes it on;
 * never on an address the provider shares among its customers (RFC 6598).
 */
export function letsForwardsIn(uplink: Uplink): Letting {
  if (!uplink.enabled) return { works: false, why: 'the uplink is switched off' };
  if (uplink.noForwards) return { works: false, why: 'nothing is let in on this uplink' };
  if (uplink.segment !== null)
    return {
      works: true,
      why: 'from the segment it stands in; from the Internet only when the router in front forwards the same',
    };
  const outside = outsideOf(uplink);
  if (outside === 'shared')
    return {
      works: false,
      why: 'its outside address is shared by customers of the provider (100.64.0.0/10), whom nobody passes anything on to',
    };
  if (uplink.upstream === 'routing') {
    if (uplink.passes === 'nothing')
      return { works: false, why: 'the router upstream passes nothing on to this gateway' };
    return {
      works: true,
      why:
        uplink.passes === 'everything'
          ? 'the router upstream passes everything on to this gateway'
          : 'the router upstream passes these ports on, each entered there as well',
    };
  }
  if (outside === 'private')
    return {
      works: false,
      why: 'its outside address is private: some router further out translates and passes nothing on',
    };
  if (outside === 'unknown')
    return { works: null, why: 'nobody recorded whether its outside address is public' };
  return { works: true, why: 'its outside address is public' };
}

const ETHERNET = 1500;
/** PPPoE takes 8 bytes of each frame (RFC 2516 section 7). */
const PPPOE = 8;
const HEADERS = { 4: 40, 6: 60 } as const;

/** The largest IP packet in bytes that the addressing leaves: 1492 over PPPoE, else 1500. */
export const usualMtu = ({ addressing }: Pick<Uplink, 'addressing'>): number =>
  addressing === 'pppoe' ? ETHERNET - PPPOE : ETHERNET;

export const mtuOf = (uplink: Pick<Uplink, 'addressing' | 'mtu'>): number => uplink.mtu ?? usualMtu(uplink);

/** The TCP segment that fits: the packet without IP and TCP headers (RFC 9293 section 3.7.1): 1452 of 1492 over IPv4. */
export const mssOf = (mtu: number, family: 4 | 6): number => mtu - HEADERS[family];

/** One station on the way out, from the gateway to the Internet. */
export interface WayPart {
  readonly what: string;
  readonly translates: boolean;
  /** What is on the line after it: the address there, and of what kind. */
  readonly after: string;
}

const upstreamWords: Readonly<Record<Uplink['upstream'], string>> = {
  modem: 'modem',
  bridged: 'provider’s box, bridged',
  routing: 'provider’s router',
  satellite: 'satellite terminal',
  mobile: 'mobile modem',
};

const addressWords: Readonly<Record<Outside, string>> = {
  public: 'public address',
  private: 'private address',
  shared: 'shared address',
  unknown: 'address not known',
};

/** The way out as a chain: the gateway, what stands upstream, the provider; who of them translates. */
export function wayOut(plan: Plan, uplink: Uplink): readonly WayPart[] {
  const translators = translatorsOf(uplink);
  const outside = outsideOf(uplink);
  const port = uplink.port === null ? undefined : plan.port.get(uplink.port);
  const gateway = plan.device.get(uplink.device)!.name;
  const tag = uplink.providerVlan === null ? '' : `, tagged ${uplink.providerVlan}`;
  const own = uplink.address === null ? addressWords[outside] : `${formatAddress(uplink.address)}`;
  const routed = uplink.upstream === 'routing';
  return [
    { what: port ? `${gateway} ${port.number}` : gateway, translates: true, after: `${own}${tag}` },
    {
      what: upstreamWords[uplink.upstream],
      translates: routed,
      after: routed ? 'its address' : uplink.addressing === 'pppoe' ? 'PPPoE' : '',
    },
    ...(translators.includes('provider') || translators.includes('somebody')
      ? [
          {
            what: translators.includes('provider') ? 'provider' : 'a router further out',
            translates: true,
            after: 'public',
          },
        ]
      : []),
  ];
}
