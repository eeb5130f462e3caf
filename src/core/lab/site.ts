import type { IpAddress } from '../address';

/** A whole plan as what a Linux kernel is told: network namespaces, virtual cables, lines for `ip` and rulesets for `nft`. */

export interface LaidHost {
  /** Of the device; the Internet has its own. */
  readonly id: string;
  readonly forwards: boolean;
  /** Lines for `ip -batch`, when all cables are laid. */
  readonly links: readonly string[];
  /** Routes: one that the kernel refuses is one that no packet takes. */
  readonly routes: readonly string[];
  /** A ruleset for `nft -f`; empty for none. */
  readonly rules: string;
}
export interface LaidCable {
  readonly from: { readonly host: string; readonly name: string };
  readonly to: { readonly host: string; readonly name: string };
}
export interface LaidPlan {
  readonly hosts: readonly LaidHost[];
  readonly cables: readonly LaidCable[];
  /** End devices that have an address and a cable. */
  readonly ends: readonly { readonly device: string; readonly address: IpAddress }[];
  /** The boxes that route. */
  readonly routers: readonly string[];
}

/** Who is outside: no device, so an id that none has. */
export const INTERNET = 'internet';

/** What is set in a namespace before anything else, as lines of a shell. */
export const kernelSettings = ({ id, forwards }: Pick<LaidHost, 'id' | 'forwards'>): string[] => [
  `for f in ipv4/ip_forward ipv6/conf/all/forwarding; do echo ${forwards ? 1 : 0} > /proc/sys/net/$f; done`,
  // What a switch passes on is no business of the router in the same box.
  'for f in /proc/sys/net/bridge/bridge-nf-call-*; do [ -e $f ] && echo 0 > $f; done',
  // Whoever is in the Internet is reached by every line of every provider.
  `cd /proc/sys/net/ipv4/conf; for c in all default; do echo 0 > $c/rp_filter; echo ${id === INTERNET ? 0 : 1} > $c/arp_ignore; echo 2 > $c/arp_announce; echo 1 > $c/ignore_routes_with_linkdown; done`,
];

/** The lines that make a network, by host. */
export class Site {
  private readonly all = new Map<
    string,
    { forwards: boolean; links: string[]; routes: string[]; rules: string }
  >();
  readonly cables: LaidCable[] = [];

  add(id: string, forwards: boolean): void {
    this.all.set(id, { forwards, links: [], routes: [], rules: '' });
  }
  link = (id: string, line: string): unknown => this.all.get(id)!.links.push(line);
  route = (id: string, line: string): unknown => this.all.get(id)!.routes.push(line);
  rules(id: string, text: string): void {
    this.all.get(id)!.rules = text;
  }
  has = (id: string): boolean => this.all.has(id);
  cable(a: string, aName: string, b: string, bName: string): void {
    this.cables.push({ from: { host: a, name: aName }, to: { host: b, name: bName } });
  }
  get hosts(): LaidHost[] {
    return [...this.all].map(([id, host]) => ({ id, ...host }));
  }
}
