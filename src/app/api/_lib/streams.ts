/** Event streams that are open in this process, so that a shutdown can end them instead of waiting for them. */
const holder = globalThis as typeof globalThis & { dianomeStreams?: Set<() => void> };
const open = (holder.dianomeStreams ??= new Set());

export function trackStream(close: () => void): () => void {
  open.add(close);
  return () => open.delete(close);
}

export function closeAllStreams(): void {
  for (const close of [...open]) close();
}
