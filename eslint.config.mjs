import hooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';
import { floorsRule } from './scripts/lib/floors.mjs';

/** Imports point downwards only: app → ui → contract → core, app → server → db → core, worker → core. */
const layer = (files, forbidden, why) => ({
  files,
  ignores: ['**/*.test.ts'],
  rules: {
    'no-restricted-imports': ['error', { patterns: [{ group: forbidden, message: why }] }],
  },
});

export default tseslint.config(
  { ignores: ['.next/**', 'node_modules/**', 'next-env.d.ts', 'test-results/**', 'playwright-report/**'] },
  ...tseslint.configs.recommended,
  {
    // Elsewhere stands no React, and what these rules work out takes its time.
    files: ['src/{app,ui}/**/*.{ts,tsx}'],
    plugins: { 'react-hooks': hooks },
    rules: {
      ...hooks.configs.recommended.rules,
      // Transient fields (drafts, timers) are set from effects on purpose in few places; each is marked there.
      'react-hooks/set-state-in-effect': 'error',
      'react-hooks/refs': 'off',
    },
  },
  {
    rules: {
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/no-unused-expressions': 'off',
    },
  },
  {
    files: ['src/**/*.{ts,tsx}', 'scripts/**/*.ts', 'e2e/**/*.ts'],
    plugins: { core: { rules: { floors: floorsRule } } },
    rules: { 'core/floors': 'error' },
  },
  layer(
    ['src/core/**'],
    [
      'react',
      'react-dom',
      'next',
      'next/*',
      'mysql2*',
      'node:*',
      '@/*',
      '**/ui/**',
      '**/app/**',
      '**/db/**',
      '**/worker/**',
      '**/contract/**',
      '**/server/**',
    ],
    'The core knows no React, Next.js, database or clock.',
  ),
  layer(
    ['src/db/**'],
    ['react', 'next', '@/*', '**/ui/**', '**/app/**', '**/contract/**', '**/server/**'],
    'The database layer stands on the core only.',
  ),
  layer(
    ['src/ui/**'],
    ['@/app/*', '@/db/*', '@/server/*', '**/app/**', '**/db/**', '**/server/**', 'mysql2*'],
    'The interface stands on the contract and the core only.',
  ),
  layer(
    ['src/contract/**'],
    ['react', 'next', 'node:*', '@/*', '**/ui/**', '**/app/**', '**/db/**', '**/server/**'],
    'The contract stands on the core only.',
  ),
  layer(
    ['src/server/**'],
    ['react', '@/*', '**/ui/**', '**/app/**'],
    'The server stands on the database, the contract and the core only.',
  ),
  layer(
    ['src/worker/**'],
    ['@/app/*', '@/db/*', '@/ui/*', 'react', 'next'],
    'The worker runs the core only.',
  ),
);
