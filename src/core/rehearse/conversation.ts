import type { IpAddress } from '../address';
import type { Remedy, Uplink, RecordRef } from '../plan';
import type { Verdict, Wanted } from '../model/policy';
import type { Router } from '../model/routing';
import type { Place } from './frames';
import type { Host } from './host';

/** What is said of a packet and its answer: each step, where they got to, what stopped them. */

export interface Packet {
  readonly from: IpAddress;
  readonly to: IpAddress;
  readonly wanted: Wanted;
  /** The answer to a packet that went the other way. */
  readonly reply: boolean;
}

/** One box on the way: what came in, what went out, what was decided and by which record. */
export interface PacketStep {
  readonly what: string;
  readonly came: string;
  readonly left: string;
  readonly decision: string;
  readonly result: 'passes' | 'stops' | 'assumed';
  readonly on: RecordRef | null;
}

export interface Stop {
  readonly what: string;
  readonly why: string;
  readonly on: RecordRef | null;
  readonly remedies: readonly Remedy[];
  /** The verdict of the box that refused, when it was one. */
  readonly verdict: Verdict | null;
}

/** Where a packet got to. */
export type Arrival =
  | { readonly at: 'host'; readonly host: Host }
  | { readonly at: 'router'; readonly router: Router }
  | { readonly at: 'internet'; readonly router: Router; readonly uplink: Uplink }
  | { readonly at: 'tunnel'; readonly router: Router; readonly tunnel: string };

/** What a router changed in a packet, so that the answer is changed back. */
export interface Changed {
  readonly router: string;
  readonly field: 'from' | 'to';
  readonly before: IpAddress;
  readonly after: IpAddress;
}

/** Frames that went on one wire, or were to. */
export interface Wired {
  readonly from: Place;
  readonly vlan: string;
  readonly to: Place;
  readonly listens: string;
  /** They arrived, and everything on their way is recorded. */
  readonly sure: boolean;
}

/** A conversation: the routers that let its first packet pass, those that saw an answer to it, and what they changed. */
export interface Conversation {
  readonly seen: Set<string>;
  readonly answered: Set<string>;
  readonly changed: Changed[];
  /**
   * By router, the uplink a conversation came in by or went out by: its answers go the same way, and one that shares its traffic
   * among several is asked for each.
   */
  readonly over: Map<string, string>;
  readonly wires: Wired[];
  /** What decides whether it works and is not known, in sentences: who of two answers, what a provider does. */
  readonly doubts: Set<string>;
  /** What to look at first where it fails all the same, in sentences. */
  readonly cautions: Set<string>;
  /** Laptops that are in no record, so that answers find them. */
  readonly newcomers: readonly Host[];
}

export interface Trip {
  readonly steps: readonly PacketStep[];
  readonly stop: Stop | null;
  readonly arrival: Arrival | null;
  /** As it arrived. */
  readonly packet: Packet;
}
