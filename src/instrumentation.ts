/** Ends open event streams at shutdown; the web server would otherwise wait for the pages that hold them. */
export async function register() {
  if (process.env.NEXT_RUNTIME !== 'nodejs') return;
  const { closeAllStreams } = await import('./app/api/_lib/streams');
  for (const signal of ['SIGTERM', 'SIGINT'] as const) process.on(signal, closeAllStreams);
}
