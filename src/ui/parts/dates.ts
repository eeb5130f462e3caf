/** Days and times in the reader's own form and zone. */

const time = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'short' });
const day = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium' });

export const timeText = (at: string): string => time.format(new Date(at));
/** A moment, or a plain day, which is the same day in every zone. */
export const dayText = (at: string): string => day.format(new Date(at.length === 10 ? `${at}T00:00` : at));
/** The zone that times are shown in, as it is named: Europe/Lisbon. */
export const readersZone = (): string => time.resolvedOptions().timeZone;
