import { existsSync, readFileSync, readdirSync } from 'node:fs';
import path from 'node:path';
import { allRoutes } from './all-routes';
import { openApi } from './openapi';

const api = path.join('src', 'app', 'api');
const fileOf = (route: string) =>
  path.join('src', 'app', route.replace('{site}', '[site]').slice(1), 'route.ts');

test('docs/openapi.json is what the contract says; npm run schema writes it', () => {
  const written = JSON.parse(readFileSync(path.join('docs', 'openapi.json'), 'utf8')) as unknown;
  expect(written).toEqual(JSON.parse(JSON.stringify(openApi())));
});

test('every route of the contract has a handler, and every handler a route', () => {
  const wanted = new Map<string, Set<string>>();
  for (const { path: at, method } of allRoutes)
    wanted.set(fileOf(at), (wanted.get(fileOf(at)) ?? new Set()).add(method));
  const files = (readdirSync(api, { recursive: true }) as string[])
    .filter((name) => name.endsWith('route.ts'))
    .map((name) => path.join(api, name));
  expect(new Set(files)).toEqual(new Set(wanted.keys()));
  for (const file of files) {
    expect(existsSync(file)).toBe(true);
    const text = readFileSync(file, 'utf8');
    const methods = [...text.matchAll(/^export const (GET|POST|PATCH|DELETE)\b/gm)].map(([, name]) => name);
    expect([file, new Set(methods)]).toEqual([file, wanted.get(file)]);
  }
});

test('no route is told twice', () => {
  const names = allRoutes.map(({ method, path: at }) => `${method} ${at}`);
  expect(new Set(names).size).toBe(names.length);
});
