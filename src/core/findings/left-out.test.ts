import { done, emptySite } from '../testing/plans';
import { type Plan, plainVlansOf } from '../plan';
import { FindingsEngine } from './engine';
import { vlanChecks } from './checks/vlans';
import type { Watch } from './left-out';

const TODAY = '2026-05-04';

/** Two segments of one name, one of them without a pool. */
const plan = (() => {
  let made = emptySite();
  for (let i = 0; i < 2; i++) made = done(made, 'addSegment', { purpose: 'staff', name: 'Staff' });
  const pool = [...made.pool.values()][0]!;
  return done(made, 'removeRange', { table: 'pool', id: pool.id });
})();
const found = (of: Plan, watch: Watch | null = null) => new FindingsEngine(of, TODAY, watch).all();
const watched = (leftOut: Watch['leftOut'], begun: string[] = []): Watch => ({
  leftOut,
  begin: (subject) => begun.push(subject),
});

test('a check that is left out says so, and the others find what they find', () => {
  const all = found(plan);
  expect(all.some(({ check }) => check === 'segment-name-twice')).toBe(true);
  const subject = `site segment-name-twice ${TODAY}`;
  const rest = found(plan, watched(new Map([[subject, 'It takes for ever.']])));
  expect(rest.filter(({ check }) => check !== 'not-checked')).toEqual(
    all.filter(({ check }) => check !== 'segment-name-twice'),
  );
  expect(rest.filter(({ check }) => check === 'not-checked')).toEqual([
    expect.objectContaining({
      key: `not-checked:${subject}`,
      severity: 'fix',
      station: 'segments',
      what: 'Not checked: segment name twice',
      because: 'It takes for ever.',
    }),
  ]);
});

test('a segment that is left out is named, with its own record', () => {
  const vlan = plainVlansOf(plan)[0]!;
  const [only] = found(plan, watched(new Map([[`vlans ${vlan.id}`, 'It takes for ever.']]))).filter(
    ({ check }) => check === 'not-checked',
  );
  expect(only).toMatchObject({
    what: 'Not checked: Staff (VLAN 10)',
    station: 'segments',
    where: [{ table: 'vlan', id: vlan.id }],
  });
});

test('every subject is told before it is checked', () => {
  const begun: string[] = [];
  found(plan, watched(new Map(), begun));
  expect(begun).toContain(`site segment-name-twice ${TODAY}`);
  for (const { id } of plan.subnet.values()) expect(begun).toContain(`subnets ${id}`);
  expect(new Set(begun).size).toBe(begun.length);
});

test('a check that throws takes no other with it', () => {
  const check = vlanChecks.find(({ id }) => id === 'segment-name-twice')!;
  const fails = jest.spyOn(check, 'find').mockImplementation(() => {
    throw new Error('out of range');
  });
  try {
    // Another plan, of which nothing is known yet.
    const other = done(plan, 'addSegment', { purpose: 'guest', name: 'Guests' });
    expect(() => found(other)).toThrow('out of range');
    const rest = found(other, watched(new Map()));
    expect(rest.filter((finding) => finding.check === 'not-checked').map(({ because }) => because)).toEqual([
      'It failed: out of range',
    ]);
    expect(rest.length).toBeGreaterThan(2);
  } finally {
    fails.mockRestore();
  }
});
