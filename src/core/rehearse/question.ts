import { type IpAddress, formatAddress } from '../address';
import type { Plan } from '../plan';
import type { Wanted } from '../model/policy';
import type { Air } from './entry';

/** What the probe is asked: who wants what of whom. */

/** An echo request (RFC 792). */
export const PING = { protocol: 'icmp', port: 8 } as const;
/** Who asks. */
export type Sender =
  | { readonly port: string }
  /** Somebody new on a wireless network at an access point. */
  | Air
  | { readonly device: string }
  | { readonly vlan: string }
  /** Somebody at the other end of a tunnel, or who has dialled in. */
  | { readonly tunnel: string }
  | { readonly internet: true };
/** Who is asked. */
export type Receiver =
  | { readonly device: string }
  | { readonly address: IpAddress }
  | { readonly vlan: string }
  | { readonly internet: true }
  | { readonly gateway: true };
/** One question: may this one reach that one by a service, and does the answer come back? */
export interface ProbeQuestion {
  readonly from: Sender;
  readonly to: Receiver;
  readonly wanted: Wanted;
}

export function nameOfReceiver(plan: Plan, to: Receiver): string {
  if ('internet' in to) return 'the Internet';
  if ('gateway' in to) return 'the gateway';
  if ('address' in to) return formatAddress(to.address);
  return 'vlan' in to ? plan.vlan.get(to.vlan)!.name : plan.device.get(to.device)!.name;
}
