'use client';

import { customAlphabet } from 'nanoid';
import { create } from 'zustand';
import { remember, remembered } from './stored';

const NAME = 'dianome.author';
const BROWSER = 'dianome.browser';
const FALLBACK = 'unnamed';

interface AuthorState {
  readonly name: string;
  /** Was the question who works here asked for, or put off? Null for neither. */
  readonly asked: boolean | null;
  readonly setName: (name: string) => void;
  readonly ask: (asked: boolean) => void;
}

/** Who works in this browser: asked once, told to the journal with every change. */
export const useAuthor = create<AuthorState>((set) => ({
  name: remembered(NAME) ?? '',
  asked: null,
  ask: (asked) => set({ asked }),
  setName: (name) => {
    remember(NAME, name);
    set({ name });
  },
}));

export const authorName = (): string => useAuthor.getState().name || FALLBACK;

export const newSeed = customAlphabet('0123456789abcdefghijklmnopqrstuvwxyz', 12);

let made = '';
/** The id of this browser: what is undone here is what was done here, whatever name somebody typed. */
export function browserId(): string {
  made ||= remembered(BROWSER) ?? '';
  if (!made) {
    made = newSeed();
    remember(BROWSER, made);
  }
  return made;
}
