/**
 * How often laws are tried. With LAWS=0.1 a tenth of it, for a quick look while working; then nothing is asked about how
 * much was drawn, as that takes them all.
 */
const share = Number(process.env.LAWS ?? 1);
export const inFull = share >= 1;
export const runs = (full: number): number => Math.max(2, Math.ceil(full * share));
/** What a count has to exceed, should all have been tried. */
export const moreThan = (count: number): number => (inFull ? count : -1);
