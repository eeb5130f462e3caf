/** Text that stays in this browser; null where nothing was stored. Without storage it holds for this visit. */
export const remembered = (key: string): string | null => {
  try {
    return typeof window === 'undefined' ? null : localStorage.getItem(key);
  } catch {
    return null;
  }
};
export const remember = (key: string, value: string): void => {
  try {
    localStorage.setItem(key, value);
  } catch {
    // It holds for this visit.
  }
};
