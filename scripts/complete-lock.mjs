import fs from 'node:fs';

/**
 * Adds to package-lock.json the platform packages that a registry mirror did not have when the lock was written. Their
 * parents name them by exact version; without an entry `npm ci` calls the lock incomplete even on platforms that never
 * fetch them. Run after `npm install` when `npm ci` says so.
 */
const lock = JSON.parse(fs.readFileSync('package-lock.json', 'utf8'));
const systems = {
  darwin: 'darwin',
  linux: 'linux',
  win32: 'win32',
  android: 'android',
  freebsd: 'freebsd',
  openharmony: 'openharmony',
};
const processors = ['arm64', 'x64', 'ia32', 'arm', 'ppc64', 's390x', 'riscv64', 'loong64', 'wasm32'];
for (const item of Object.values({ ...lock.packages }))
  for (const [name, version] of Object.entries(item.optionalDependencies ?? {})) {
    const key = `node_modules/${name}`;
    if (lock.packages[key] || !/^\d/.test(version)) continue;
    const os = Object.keys(systems).find((system) => name.includes(system));
    const cpu = processors.find((processor) => new RegExp(`[-]${processor}(-|$)`).test(name));
    lock.packages[key] = {
      version,
      ...(cpu ? { cpu: [cpu] } : {}),
      optional: true,
      ...(os ? { os: [os] } : {}),
      ...(item.dev ? { dev: true } : {}),
    };
    console.log(`added ${name}@${version} ${os ?? ''} ${cpu ?? ''}`);
  }
lock.packages = Object.fromEntries(Object.entries(lock.packages).sort(([a], [b]) => (a < b ? -1 : 1)));
fs.writeFileSync('package-lock.json', `${JSON.stringify(lock, null, 2)}\n`);
