'use client';

import { create } from 'zustand';

/** What has to be told and belongs to no field: refusals nobody else shows, and defects. */
export interface Notice {
  readonly id: number;
  readonly text: string;
  readonly severe: boolean;
}

interface NoticeState {
  readonly notices: readonly Notice[];
  readonly tell: (text: string, severe?: boolean) => void;
  readonly dismiss: (id: number) => void;
}

let told = 0;
const MOST = 3;
export const useNotices = create<NoticeState>((set) => ({
  notices: [],
  tell: (text, severe = false) =>
    set(({ notices }) => {
      const others = notices.filter((notice) => notice.text !== text);
      return { notices: [...others, { id: ++told, text, severe }].slice(-MOST) };
    }),
  dismiss: (id) => set(({ notices }) => ({ notices: notices.filter((notice) => notice.id !== id) })),
}));
