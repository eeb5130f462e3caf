const shared = {
  testEnvironment: 'node',
  // Looking a global up in the sandbox of a test is slow; these are handed to each module instead. Not Map
  // and Infinity, as a library has pictures called so.
  sandboxInjectedGlobals: [
    'Array',
    'BigInt',
    'JSON',
    'Math',
    'Number',
    'Object',
    'Set',
    'String',
    'Symbol',
    'Uint8Array',
    'WeakMap',
    'WeakRef',
  ],
  setupFiles: ['<rootDir>/src/core/testing/seed.ts'],
  transform: {
    '\\.(ts|tsx|js|mjs)$': [
      '@swc/jest',
      {
        jsc: {
          parser: { syntax: 'typescript', tsx: true },
          target: 'es2022',
          transform: { react: { runtime: 'automatic' } },
        },
      },
    ],
  },
  // These ship as ES modules only.
  transformIgnorePatterns: [
    '/node_modules/(?!(@noble/hashes|fractional-indexing|idb|nanoid|react-hotkeys-hook|tinyqueue)/)',
  ],
  moduleNameMapper: { '^@/(.*)$': '<rootDir>/src/$1' },
};

const config = {
  // Nothing here is about time; a slow disk or a busy machine is no failure.
  testTimeout: 900_000,
  maxWorkers: '100%',
  projects: [
    {
      ...shared,
      displayName: 'unit',
      testMatch: ['<rootDir>/src/**/*.test.ts'],
      testPathIgnorePatterns: ['\\.db\\.test\\.ts$'],
    },
    { ...shared, displayName: 'db', testMatch: ['<rootDir>/src/**/*.db.test.ts'] },
  ],
};

export default config;
