import type { Written } from './fold';

/** Does an entry belong to a run? What takes something back may; whoever does not know what it takes back leaves it. */
export const isOfRun = ({ id, body }: Pick<Written, 'id' | 'body'>, run: string): boolean =>
  id === run || body.kind === 'correction' || ('run' in body && body.run === run);

/** May somebody who sees nothing but a run write this down? */
export const mayBeAdded = (entry: Pick<Written, 'id' | 'body'>, run: string): boolean =>
  entry.body.kind !== 'run' && isOfRun(entry, run);
