'use client';

import { useSyncExternalStore } from 'react';
import { remember } from '../session/stored';

const subscribe = (notify: () => void) => {
  const observer = new MutationObserver(notify);
  observer.observe(document.documentElement, { attributes: true, attributeFilter: ['data-theme'] });
  return () => observer.disconnect();
};

/** Day or night; until it is used, the system decides. */
export function ThemeSwitch() {
  const night = useSyncExternalStore(
    subscribe,
    () => document.documentElement.dataset.theme === 'night',
    () => false,
  );
  const next = night ? 'day' : 'night';
  return (
    <button
      type="button"
      aria-label={`Switch to ${next}`}
      className="p-1"
      onClick={() => {
        document.documentElement.dataset.theme = next;
        remember('dianome.theme', next);
      }}
    >
      <svg width="18" height="18" viewBox="0 0 18 18" aria-hidden="true">
        <rect x="1.5" y="1.5" width="15" height="15" fill="none" stroke="var(--ink)" strokeWidth="2" />
        <path d={night ? 'M9 2v14h7V2z' : 'M2 2v14h7V2z'} fill="var(--ink)" />
      </svg>
    </button>
  );
}
