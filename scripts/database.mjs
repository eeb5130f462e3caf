import { startDatabase, stopDatabase } from './lib/mariadb.mjs';
import { entry } from './lib/say.mjs';

/** `database.mjs start FOLDER` prints {url, pid} of a MariaDB with its data there; `stop FOLDER` ends it. */
const [, , what, folder] = process.argv;
entry(async () => {
  if (what === 'start') console.log(JSON.stringify(await startDatabase(folder)));
  else await stopDatabase(folder);
});
