import type { Device, Need, Port } from '../plan';
import type { Hardware } from './design';
import type { Brief } from './gather';
import type { KeyedDraft } from './keyed';
import type { Segment } from './segments';

/** What the records of a network are written from, and what was written so far. */

/** Everything that was written for a design, by key. */
export interface Written {
  readonly devices: Map<string, Device>;
  /** By box and number. */
  readonly ports: Map<string, Map<number, Port>>;
}

/** The segment of boxes: their own, or where there is but one, that. */
export const managementOf = (segments: ReadonlyMap<string, Segment>): Segment =>
  segments.get('management') ?? segments.get('all')!;

export interface NetworkInput {
  readonly draft: KeyedDraft;
  readonly brief: Brief;
  readonly hardware: Hardware;
  readonly segments: ReadonlyMap<string, Segment>;
  readonly gateway: Device;
  /** The layer-3 switch. */
  readonly core: Device | null;
}

/** The segment of a need. */
export const segmentOf = ({ brief, segments }: NetworkInput, need: Need): Segment =>
  segments.get(brief.groups.find(({ needs }) => needs.includes(need))!.key)!;
