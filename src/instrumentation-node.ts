import { closeAllStreams } from './app/api/_lib/streams';

/** Only on Node.js: open event streams end with the process, or the web server would linger. */
for (const signal of ['SIGTERM', 'SIGINT'] as const) process.on(signal, closeAllStreams);
