/** The fields of a record that are named, and no others. */
export function pick<R extends object, K extends keyof R>(record: R, names: readonly K[]): Pick<R, K> {
  const picked = {} as Pick<R, K>;
  for (const name of names) picked[name] = record[name];
  return picked;
}
