import { type Need, type Place, memo } from '../plan';
import { type Model, type PortBlock, placesOf } from '../model/wiring';
import type { World } from './things';

/** The hardware of a proposal as plain data: boxes, what is plugged into them, and the cables between them. */

/** A socket that something is to be plugged into. */
export interface Wanted {
  /** Null for what is still to come: growth and spare. */
  readonly for: { readonly need: Need; readonly number: number } | { readonly accessPoint: string } | null;
  /** The PoE class it asks for. */
  readonly poeClass: number | null;
}

export interface SwitchDesign {
  readonly key: string;
  readonly place: Place;
  readonly world: World;
  readonly model: Model;
  /** It comes out of what is at hand. */
  readonly atHand: boolean;
  /** What is plugged into it, by port. */
  readonly plugged: Map<number, Wanted>;
  /** Copper ports that are kept for growth and spare. */
  kept: number;
}

export interface AccessPointDesign {
  readonly key: string;
  readonly place: Place;
  readonly world: World;
  readonly model: Model;
  readonly atHand: boolean;
}

/** A cable between two boxes; the ports are numbers on the case. */
export interface LinkDesign {
  readonly key: string;
  readonly from: { readonly box: string; readonly port: number };
  readonly to: { readonly box: string; readonly port: number };
  readonly media: 'copper' | 'multi-mode' | 'single-mode' | 'direct-attach';
  /** Null where nobody measured. */
  readonly metres: number | null;
  /** It closes a ring of places. */
  readonly ring: boolean;
  /** Cables of one name act as one (IEEE 802.1AX). */
  readonly bundle: string | null;
}

export interface Hardware {
  readonly gateway: {
    readonly model: Model;
    readonly atHand: boolean;
    /** Ports that something is plugged into already. */
    readonly taken: ReadonlySet<number>;
  };
  /** The layer-3 switch between the gateway and the rest; null where the gateway routes everything. */
  readonly core: Model | null;
  readonly switches: readonly SwitchDesign[];
  readonly accessPoints: readonly AccessPointDesign[];
  readonly links: readonly LinkDesign[];
  /** The first switch of the main place, and the one that takes over as root. */
  readonly roots: readonly { readonly key: string; readonly priority: number }[];
  readonly decisions: readonly Decision[];
}

/** Something that was decided, and why. */
export interface Decision {
  readonly what: string;
  readonly why: string;
}

export const GATEWAY = 'gateway';
export const CORE = 'core';

/** The ports of a box, by its key, that somebody has plugged something of their own into. */
export type Occupied = (key: string) => ReadonlySet<number>;

/** A gateway that stands in the plan with its ports, and which of them are taken. */
export interface Standing {
  readonly model: Model;
  readonly taken: ReadonlySet<number>;
}

const portsWith = (kind: PortBlock['media']) =>
  memo((model: Model): readonly number[] =>
    placesOf(model.blocks)
      .filter(({ number, block }) => block.media === kind && !model.uplinks.includes(number))
      .map(({ number }) => number),
  );
/** Their numbers on the case, without those kept for uplinks. */
export const copperPorts = portsWith('copper');
export const fibrePorts = portsWith('fibre');
export const powered = (model: Model): boolean => model.blocks.some(({ poeClass }) => poeClass !== null);
