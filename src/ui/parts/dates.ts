/** Days and times in the reader's own form and zone. */

const time = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'short' });
const day = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium' });

export const timeText = (at: string): string => time.format(new Date(at));
/** A moment, or a plain day, which is the same day in every zone. */
export const dayText = (at: string): string => day.format(new Date(at.length === 10 ? `${at}T00:00` : at));
/** The time of day only. */
const clock = new Intl.DateTimeFormat(undefined, { timeStyle: 'short' });
export const clockText = (at: number): string => clock.format(new Date(at));
/** A span in whole minutes, rounded up: 1 h 50 min. */
export function spanText(seconds: number): string {
  const minutes = Math.ceil(seconds / 60);
  const [hours, rest] = [Math.floor(minutes / 60), minutes % 60];
  return [hours > 0 ? `${hours} h` : '', rest > 0 || hours === 0 ? `${rest} min` : '']
    .filter(Boolean)
    .join(' ');
}

/** The zone that times are shown in, as it is named: Europe/Lisbon. */
export const readersZone = (): string => time.resolvedOptions().timeZone;
