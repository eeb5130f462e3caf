/** The day it is, as 2026-12-31 in UTC: what rules that run out are judged by. */
export const today = (): string => new Date().toISOString().slice(0, 10);
