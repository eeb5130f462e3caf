/**
 * How often laws are tried, as a share of all they are good for. `npm test` tries the usual share, `npm run laws` all of it;
 * LAWS=0.1 is for a quick look while working, and then nothing is asked about how much was drawn.
 */
const USUAL = 0.4;
const share = Number(process.env.LAWS ?? USUAL);
export const runs = (full: number): number => Math.max(2, Math.ceil(full * share));
/** Whether enough is drawn for a question about how much was. */
export const counted = share >= USUAL;
/** What a count exceeds that exceeds this one when all is tried; the fewer are drawn, the more a count strays. */
export const moreThan = (count: number): number =>
  counted ? Math.floor(count * Math.min(1, share) * (share < 1 ? 0.7 : 1)) : -1;
