import type { Log } from '../log';
import type { Arrangement } from '../model/map';
import { type Plan, type Vlan } from '../plan';
import type { Block, Cell } from './blocks';

/** What a book is written from. */
export interface Sources {
  readonly plan: Plan;
  readonly log: Log;
  readonly revision: number;
  /** As 2026-12-31. */
  readonly today: string;
  /** Where the boxes stand on the map; null: without one. */
  readonly map: Arrangement | null;
}

export interface ChapterKind {
  readonly id: string;
  readonly title: string;
  /** Nothing where the plan has nothing to say of it. */
  readonly write: (sources: Sources) => readonly Block[];
}

/** A segment as a cell: its number and code on its colour. */
export const jacketOf = ({ vid, code, colour }: Vlan): Exclude<Cell, string> => ({
  text: `${vid} ${code}`,
  colour,
});

export const joined = (parts: readonly string[]): string => parts.filter((part) => part !== '').join(', ');
export const counted = (count: number, what: string): string => `${count} ${what}${count === 1 ? '' : 's'}`;
