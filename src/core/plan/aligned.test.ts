import { readFileSync } from 'node:fs';
import path from 'node:path';
import { readPlanFile } from '../formats';
import { done } from '../testing/plans';
import { alignedTo } from './aligned';
import { type Plan, compared, describeChange, stepsBetween, tableNames, withOtherIds } from './index';

const demo = (name: string) => readPlanFile(readFileSync(path.join('demo', `${name}.json`), 'utf8'));
/** The same plan by somebody else: every record has another id. */
const strange = (plan: Plan): Plan => {
  const all = tableNames.flatMap((table) => [...plan[table].values()].map(({ id }) => id as string));
  const ids = all.filter((id) => id !== 'site').map((id, at) => [id, `q${at.toString(36)}`] as const);
  return withOtherIds(plan, new Map(ids));
};
const lines = (from: Plan, to: Plan) =>
  describeChange(from, { label: '', steps: stepsBetween(from, alignedTo(from, to)) });

test.each(['1-row-house', '2-clinic', '3-creamery'])('%s drawn by somebody else is the same', (name) => {
  const plan = demo(name);
  const other = strange(plan);
  expect(stepsBetween(plan, other).length).toBeGreaterThan(100);
  // What a finding was accepted by names it by its record.
  const left = lines(plan, other).filter(({ table }) => table !== 'acceptance');
  expect(left).toEqual([]);
});

test('what is otherwise is told, also where names were changed', () => {
  const plan = demo('2-clinic');
  const vlan = [...plan.vlan.values()].find(({ name }) => name === 'Servers')!;
  let other = done(plan, 'edit', { table: 'vlan', id: vlan.id, set: { name: 'Machines' } });
  const [device] = [...plan.device.values()].filter(({ name }) => name === 'x-ray');
  other = done(other, 'edit', { table: 'device', id: device!.id, set: { firewall: 'own-subnet' } });
  const told = lines(plan, strange(other)).filter(({ table }) => table !== 'acceptance');
  expect(told.map(({ what, kind, field }) => [what, kind, field])).toEqual([
    ['Servers (VLAN 30)', 'changed', 'name'],
    ['x-ray', 'changed', 'own firewall'],
  ]);
});

test('what is otherwise stands kind by kind', () => {
  const plan = demo('2-clinic');
  const { id } = [...plan.device.values()].find(({ name }) => name === 'x-ray')!;
  const other = strange(done(plan, 'removeDevice', { device: id }));
  const kinds = compared(plan, other).filter(({ table }) => table !== 'acceptance');
  expect(kinds.find(({ table }) => table === 'device')).toEqual({
    table: 'device',
    word: 'device',
    added: [],
    removed: ['x-ray'],
    changed: [],
  });
  expect(kinds.every(({ added }) => added.length === 0)).toBe(true);
  expect(compared(plan, strange(plan)).filter(({ table }) => table !== 'acceptance')).toEqual([]);
});

test('two sites have in common what is called alike', () => {
  const told = lines(demo('1-row-house'), demo('2-clinic'));
  expect(told).toContainEqual(expect.objectContaining({ table: 'site', kind: 'changed', field: 'name' }));
  expect(told.some(({ what, kind }) => what === 'x-ray' && kind === 'added')).toBe(true);
  expect(told.some(({ what, kind }) => what === 'sw-cellar' && kind === 'removed')).toBe(true);
  // Both have a gw-1, which is neither taken away nor added.
  expect(told.some(({ what, kind }) => what === 'gw-1' && kind !== 'changed')).toBe(false);
});
