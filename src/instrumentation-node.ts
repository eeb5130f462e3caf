import { application } from './server/application';

/** Only on Node.js: open event streams end with the process, or the web server would linger. */
for (const signal of ['SIGTERM', 'SIGINT'] as const) process.on(signal, () => application().streams.close());
