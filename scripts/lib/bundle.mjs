import fs from 'node:fs';
import path from 'node:path';
import { build } from 'esbuild';
import { root } from './paths.mjs';

const out = path.join(root, '.next/dianome');

function filesIn(folder) {
  if (!fs.existsSync(folder)) return [];
  return fs.readdirSync(folder, { withFileTypes: true }).flatMap((item) => {
    const name = path.join(folder, item.name);
    return item.isDirectory() ? filesIn(name) : [name];
  });
}

/** Bundles what runs beside the framework: the web server, its threads, and the service worker with the files of the build. */
export async function bundle({ dev = false } = {}) {
  const shared = { bundle: true, absWorkingDir: root, logLevel: 'warning', sourcemap: 'linked' };
  await build({
    ...shared,
    entryPoints: { main: 'src/server/main.ts', worker: 'src/server/worker.ts' },
    outdir: out,
    outExtension: { '.js': '.mjs' },
    platform: 'node',
    format: 'esm',
    target: 'node20',
    packages: 'external',
  });
  const statics = path.join(root, '.next/static');
  // Their names change with what is in them.
  const files = filesIn(statics)
    .filter((file) => !file.endsWith('.map'))
    .map((file) => ({
      url: `/_next/static/${path.relative(statics, file).split(path.sep).join('/')}`,
      revision: null,
    }));
  await build({
    ...shared,
    sourcemap: false,
    entryPoints: { sw: 'src/service-worker/main.ts' },
    outdir: out,
    platform: 'browser',
    target: 'es2022',
    minify: true,
    define: { FILES: JSON.stringify(dev ? [] : files), 'process.env.NODE_ENV': '"production"' },
  });
}
