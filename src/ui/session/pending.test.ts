import fc from 'fast-check';
import { perform } from '@/core/edit';
import { applySteps, type Call, type Plan, vlansOf, encodePlan } from '@/core/plan';
import { build, damagedSite, done, emptySite, nextSeed } from '@/core/testing/plans';
import { type Pending, rebase, revertible, reverting } from './pending';
import { runs } from '../../core/testing/runs';

const start = done(done(emptySite(), 'addSegment', { purpose: 'staff' }), 'addSegment', {
  purpose: 'cameras',
});
const [staff, cameras] = vlansOf(start) as [ReturnType<typeof vlansOf>[0], ReturnType<typeof vlansOf>[0]];

/** A queue of changes made one after the other on a plan, and the plan they lead to. */
function queued(plan: Plan, calls: readonly Call[], reviewed = false): { queue: Pending[]; local: Plan } {
  let local = plan;
  const queue = calls.map((call): Pending => {
    const seed = nextSeed();
    const change = perform(local, call, seed);
    const applied = applySteps(local, change.steps);
    if (!applied.ok) throw new Error('does not apply');
    local = applied.plan;
    return { seed, kind: 'change', call, reviewed, ...change };
  });
  return { queue, local };
}
const rename = (id: string, from: string, to: string): Call => ({
  operation: 'edit',
  input: { table: 'vlan', id, set: { name: to }, seen: { name: from } },
});
const remoteOf = (plan: Plan, call: Call) => {
  const { queue, local } = queued(plan, [call]);
  return { steps: queue[0]!.steps, confirmed: local };
};

describe('queued changes on a plan that others have changed', () => {
  test('an edit of another record is kept with both', () => {
    const { queue } = queued(start, [rename(staff.id, 'Staff', 'Crew')]);
    const { steps, confirmed } = remoteOf(start, rename(cameras.id, 'Cameras', 'Eyes'));
    const result = rebase(queue, steps, confirmed, ['Cameras renamed']);
    expect(result.conflicts).toEqual([]);
    expect(vlansOf(result.plan).map((vlan) => vlan.name)).toEqual(['Crew', 'Eyes']);
  });
  test('an edit of the same field becomes a conflict that keeps what was typed and says what came between', () => {
    const { queue } = queued(start, [rename(staff.id, 'Staff', 'Crew')]);
    const { steps, confirmed } = remoteOf(start, rename(staff.id, 'Staff', 'Team'));
    const result = rebase(queue, steps, confirmed, ['Staff → Team']);
    expect(result.queue).toEqual([]);
    expect(vlansOf(result.plan)[0]!.name).toBe('Team');
    expect(result.conflicts).toMatchObject([
      {
        call: queue[0]!.call,
        why: expect.stringContaining('was Staff when you edited it and is Team now'),
        between: ['Staff → Team'],
      },
    ]);
  });
  test('a change of a record somebody removed is a conflict, and those after it go on', () => {
    const { queue } = queued(start, [
      rename(staff.id, 'Staff', 'Crew'),
      rename(cameras.id, 'Cameras', 'Eyes'),
    ]);
    const { steps, confirmed } = remoteOf(start, { operation: 'removeSegment', input: { vlan: staff.id } });
    const result = rebase(queue, steps, confirmed, []);
    expect(result.conflicts).toHaveLength(1);
    expect(vlansOf(result.plan).map((vlan) => vlan.name)).toEqual(['Eyes']);
  });
  test('the same edit made by both is done once and is no conflict', () => {
    const { queue } = queued(start, [
      { operation: 'edit', input: { table: 'vlan', id: staff.id, set: { name: 'Crew' } } },
    ]);
    const { steps, confirmed } = remoteOf(start, rename(staff.id, 'Staff', 'Crew'));
    const result = rebase(queue, steps, confirmed, []);
    expect(result).toMatchObject({ queue: [], conflicts: [] });
    expect(result.plan).toBe(confirmed);
  });
  test('a bulk change that was looked at is shown again when its result would differ', () => {
    const call: Call = { operation: 'addSegment', input: { purpose: 'guest' } };
    const { queue } = queued(start, [call], true);
    const { steps, confirmed } = remoteOf(start, { operation: 'addSegment', input: { purpose: 'voice' } });
    expect(rebase(queue, steps, confirmed, []).conflicts[0]!.why).toContain('Look at it again');
    const unseen = queue.map((pending) => ({ ...pending, reviewed: false }));
    const kept = rebase(unseen, steps, confirmed, []);
    expect(kept.conflicts).toEqual([]);
    expect(new Set(vlansOf(kept.plan).map((vlan) => vlan.vid)).size).toBe(4);
  });
  test('its steps lead from the old local plan to the new one, whatever both sides did', () => {
    const edit = fc.tuple(fc.nat(30), fc.constantFrom('devices', 'growth'), fc.nat(90));
    fc.assert(
      fc.property(
        damagedSite,
        fc.array(edit, { maxLength: 4 }),
        fc.array(edit, { maxLength: 3 }),
        (site, mine, theirs) => {
          const plan = build(site);
          const vlans = vlansOf(plan);
          fc.pre(vlans.length > 0);
          const calls = (edits: typeof mine): Call[] =>
            edits.map(([at, field, value]) => ({
              operation: 'edit',
              input: { table: 'vlan', id: vlans[at % vlans.length]!.id, set: { [field]: value } },
            }));
          const { queue, local } = queued(plan, calls(mine));
          const remote = queued(plan, calls(theirs));
          const steps = remote.queue.flatMap((pending) => pending.steps);
          const result = rebase(queue, steps, remote.local, []);
          const moved = applySteps(local, result.steps);
          expect(moved.ok && encodePlan(moved.plan)).toEqual(encodePlan(result.plan));
          const replayed = applySteps(
            remote.local,
            result.queue.flatMap((pending) => pending.steps),
          );
          expect(replayed.ok && encodePlan(replayed.plan)).toEqual(encodePlan(result.plan));
        },
      ),
      { numRuns: runs(150) },
    );
  });
  test('an undo of a change before it in the queue undoes what that one does on the newer plan', () => {
    const { queue, local } = queued(start, [{ operation: 'addSegment', input: { purpose: 'guest' } }]);
    const undo = undoOf(queue[0]!, local);
    const { steps, confirmed } = remoteOf(start, { operation: 'addSegment', input: { purpose: 'voice' } });
    const result = rebase([...queue, undo], steps, confirmed, []);
    expect(result.conflicts).toEqual([]);
    expect(encodePlan(result.plan)).toEqual(encodePlan(confirmed));
  });
});

/** The undo of a change that is in the queue, made on the plan it led to. */
function undoOf(target: Pending, plan: Plan): Pending {
  const call = reverting(`Undo: ${target.label}`, target.steps);
  const seed = nextSeed();
  return {
    kind: 'undo',
    undoes: target.seed,
    seed,
    call,
    reviewed: false,
    ...perform(plan, call, seed),
  };
}

describe('what undo and redo would revert in a queue', () => {
  const { queue, local } = queued(start, [
    rename(staff.id, 'Staff', 'Crew'),
    rename(cameras.id, 'Cameras', 'Eyes'),
  ]);
  const undo = undoOf(queue[1]!, local);
  test.each([
    ['nothing is in it', [], null, null],
    ['two changes wait', queue, queue[1]!.seed, null],
    ['the second is undone', [...queue, undo], queue[0]!.seed, undo.seed],
    ['only an undo of what is saved waits', [undo], null, undo.seed],
  ] as [string, Pending[], string | null, string | null][])('when %s', (_, waiting, back, forth) => {
    expect(revertible(waiting, 'undo')?.seed ?? null).toBe(back);
    expect(revertible(waiting, 'redo')?.seed ?? null).toBe(forth);
  });
});
