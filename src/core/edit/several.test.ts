import { Refusal } from '../plan';
import { done, emptySite } from '../testing/plans';
import { perform } from './operations';

const site = () => {
  const one = done(emptySite(), 'addSegment', { purpose: 'staff' });
  return done(one, 'addSegment', { purpose: 'guest' });
};
const vlans = (plan: ReturnType<typeof site>) => [...plan.vlan.values()];
const name = (id: string, text: string) => ({
  operation: 'edit',
  input: { table: 'vlan', id, set: { name: text } },
});

describe('several operations as one change', () => {
  it('runs each on what the ones before it left, and names the change', () => {
    const plan = site();
    const [a, b] = vlans(plan);
    const calls = [name(a!.id, 'Desks'), name(b!.id, 'Lobby'), name(a!.id, 'Desks upstairs')];
    const change = perform(plan, { operation: 'several', input: { label: '2 cells pasted', calls } }, 's1');
    expect(change.label).toBe('2 cells pasted');
    expect(change.steps).toHaveLength(2);
    expect(change.steps.map(({ after }) => (after as { name: string }).name).sort()).toEqual([
      'Desks upstairs',
      'Lobby',
    ]);
  });

  it('refuses all when one is refused, and says which', () => {
    const plan = site();
    const [a, b] = vlans(plan);
    const calls = [
      name(a!.id, 'Desks'),
      { operation: 'edit', input: { table: 'vlan', id: b!.id, set: { vid: 5000 } } },
    ];
    expect(() => perform(plan, { operation: 'several', input: { label: 'x', calls } }, 's2')).toThrow(
      expect.objectContaining({ name: 'Refusal', path: expect.arrayContaining(['calls', 1]) }),
    );
  });

  it.each(['several', 'takeSteps', 'bringInPlan', 'nothingLikeIt'])('never runs %s', (operation) => {
    const calls = [{ operation, input: { label: 'x', steps: [], calls: [] } }];
    expect(() => perform(site(), { operation: 'several', input: { label: 'x', calls } }, 's3')).toThrow(
      Refusal,
    );
  });
});
