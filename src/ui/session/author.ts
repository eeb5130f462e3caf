'use client';

import { create } from 'zustand';

const KEY = 'dianome.author';
const FALLBACK = 'unnamed';

interface AuthorState {
  readonly name: string;
  readonly setName: (name: string) => void;
}

const stored = (): string => {
  try {
    return localStorage.getItem(KEY) ?? '';
  } catch {
    return '';
  }
};

/** Who works in this browser: asked once, told to the journal with every change. */
export const useAuthor = create<AuthorState>((set) => ({
  name: typeof window === 'undefined' ? '' : stored(),
  setName: (name) => {
    try {
      localStorage.setItem(KEY, name);
    } catch {
      // Without storage the name holds for this visit.
    }
    set({ name });
  },
}));

export const authorName = (): string => useAuthor.getState().name || FALLBACK;
