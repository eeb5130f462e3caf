/** Puts the focus on the station, where nothing better has it: keys and screen readers go on from there. */
export function focusStation(): void {
  document.getElementById('station')?.focus({ preventScroll: true });
}

/** Is the focus nowhere? */
export const isFocusLost = (at: Element | null = document.activeElement): boolean =>
  at === null || at === document.body || !at.isConnected;
