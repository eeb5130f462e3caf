'use client';

import { useEffect, useMemo } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { create } from 'zustand';
import { useView } from '../session/view';

/** Something that one key does where it is offered. */
export interface Command {
  /** As it is produced: `u`, `U`, `+`, `Escape`; what nothing is to be bound to, in words: `Alt ↑ ↓`. */
  readonly key: string;
  /** What it does, for the list of keys and the palette. */
  readonly name: string;
  /** Null where something on the page hears the key itself, while it has the focus. */
  readonly run: (() => void) | null;
}

interface Offered {
  readonly offers: ReadonlyMap<symbol, readonly Command[]>;
  readonly offer: (by: symbol, commands: readonly Command[] | null) => void;
}

const useOffered = create<Offered>((set) => ({
  offers: new Map(),
  offer: (by, commands) =>
    set(({ offers }) => {
      const next = new Map(offers);
      if (commands) next.set(by, commands);
      else next.delete(by);
      return { offers: next };
    }),
}));

/** Every command of the page as it is now, each key once. */
export function useOfferedCommands(): readonly Command[] {
  const offers = useOffered((state) => state.offers);
  return useMemo(() => {
    const all = [...offers.values()].flat();
    return all.filter(
      ({ key, name }, at) => all.findIndex((one) => one.key === key && one.name === name) === at,
    );
  }, [offers]);
}

/** A tick box takes no letters, so commands go on while it has the focus; a choice is searched by them. */
const typing = (target: EventTarget | null) =>
  target instanceof HTMLElement &&
  (target.isContentEditable ||
    target.matches('textarea, input:not([type=checkbox]), [role=combobox]') ||
    target.closest('[data-typing]') !== null);

const SPLIT = '&';
/** How the key of a command may come about: a sign needs Shift on one keyboard and not on another, a letter says so itself. */
const waysTo = (key: string): readonly string[] => {
  if (/^[A-Z]$/.test(key)) return [`shift${SPLIT}${key.toLowerCase()}`];
  return /^([a-z]|\w{2,})$/.test(key) ? [key] : [key, `shift${SPLIT}${key}`];
};

const options = {
  useKey: true,
  splitKey: SPLIT,
  preventDefault: true,
  // What is typed into is asked below, as a tick box and the ports of a face are no fields.
  enableOnFormTags: true,
  ignoreEventWhen: (event: KeyboardEvent) =>
    event.defaultPrevented || typing(event.target) || document.querySelector('[role="dialog"]') !== null,
} as const;

/** Offers commands while the component is there; silent while somebody types, behind a dialog, or when switched off. */
export function useCommands(commands: readonly Command[]): void {
  const offer = useOffered((state) => state.offer);
  useEffect(() => {
    const by = Symbol('commands');
    offer(by, commands);
    return () => offer(by, null);
  }, [commands, offer]);
  const on = useView((state) => state.singleKeys);
  const byWay = new Map(
    commands.flatMap(({ key, run }) => (run ? waysTo(key).map((way) => [way, run]) : [])),
  );
  useHotkeys(
    [...byWay.keys()],
    (_event, { hotkey }) => byWay.get(hotkey)?.(),
    { ...options, enabled: on && byWay.size > 0 },
    [commands],
  );
}

/** Undo and redo as everywhere, and the palette; in a field undo is the field's own. */
export function useControlKeys(undo: (direction: 'undo' | 'redo') => void, palette: () => void): void {
  useHotkeys(
    [`mod${SPLIT}z`, `mod${SPLIT}y`, `mod${SPLIT}shift${SPLIT}z`],
    (_event, { hotkey }) => undo(hotkey === `mod${SPLIT}z` ? 'undo' : 'redo'),
    options,
  );
  useHotkeys(`mod${SPLIT}k`, palette, { ...options, ignoreEventWhen: () => false });
}
