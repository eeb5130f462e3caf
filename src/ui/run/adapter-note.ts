import { create } from 'zustand';
import { remember, remembered } from '../session/stored';

const KEY = 'dianome.adapter';

/** What the network adapter of this laptop had set before work began: noted once, told again when a run ends. */
export const useAdapterNote = create<{ readonly text: string; readonly note: (text: string) => void }>(
  (set) => ({
    text: remembered(KEY) ?? '',
    note: (text) => {
      remember(KEY, text);
      set({ text });
    },
  }),
);
