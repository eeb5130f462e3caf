import type { SiteState } from './state';
import type { Step } from './steps';

/** An order as plain data, and where somebody is in the middle of one. */

/** What there is to do next. */
export type Entry =
  /** Sit down at a socket, with an address in the subnet of the box that comes next. */
  | { readonly kind: 'sit'; readonly socket: string }
  | {
      readonly kind: 'step';
      readonly step: Step;
      readonly socket: string;
      /** How many boxes with steps left are reached from there afterwards, of how many. */
      readonly reached: number;
      readonly of: number;
    }
  /** No socket reaches the box any more: its console, or a reset. */
  | { readonly kind: 'console'; readonly device: string; readonly steps: readonly Step[] }
  /** A parachute that has to stay, as nothing else reaches its box. */
  | { readonly kind: 'recorded'; readonly device: string; readonly port: string };

export interface Order {
  readonly entries: readonly Entry[];
  readonly end: SiteState;
}

/** Where somebody is in the middle of an order. */
export interface Standing {
  /** The socket they sit at; null before they sat down. */
  readonly seat: string | null;
  /** The sockets they gave themselves and have not closed yet. */
  readonly parachutes: ReadonlySet<string>;
  /** The boxes that are set otherwise than they are saved, and those not looked at since. */
  readonly unsaved: ReadonlySet<string>;
  readonly unchecked: ReadonlySet<string>;
  /** Steps that are left out on purpose, by their keys. */
  readonly skipped: ReadonlySet<string>;
}
const NONE: ReadonlySet<string> = new Set();
export const NOWHERE: Standing = {
  seat: null,
  parachutes: NONE,
  unsaved: NONE,
  unchecked: NONE,
  skipped: NONE,
};
