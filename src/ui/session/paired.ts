/** Is this a phone that is paired with one run? It sees nothing else then, and changes nothing in the plan. */
export const isPaired = (): boolean =>
  typeof document !== 'undefined' && /(?:^|;\s*)dianome-paired=1(?:;|$)/.test(document.cookie);
