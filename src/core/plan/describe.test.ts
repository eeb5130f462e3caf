import { perform } from '../edit';
import { portNamed, put, soundGear, vlanFor } from '../testing/gear';
import { describeChange, stepsBetween } from './index';

const plan = soundGear();
const trunk = portNamed(plan, 'gw-1', 2);
const ids = ['management', 'cameras', 'staff', 'guest', 'voice'].map((purpose) => vlanFor(plan, purpose).id);
/** What is said of the trunk that carries these. */
const said = (from: readonly string[], to: readonly string[]) => {
  const before = put(plan, 'port', trunk, { tagged: from });
  const after = put(plan, 'port', trunk, { tagged: to });
  return describeChange(before, { label: '', steps: stepsBetween(before, after) }).map((line) => [
    line.what,
    line.field,
    line.before,
    line.after,
  ]);
};

describe('a change as it is reviewed', () => {
  test('of a long list, what came and what went', () => {
    expect(said(ids.slice(0, 4), ids)).toEqual([
      ['gw-1 2', 'tagged VLANs', '4 in all', 'also Voice (VLAN 50): 5 in all'],
    ]);
    expect(said(ids, ids.slice(2))).toEqual([
      ['gw-1 2', 'tagged VLANs', '5 in all', 'no longer Cameras (VLAN 20), Management (VLAN 10): 3 in all'],
    ]);
    expect(said(ids.slice(0, 4), ids.slice(1))).toEqual([
      [
        'gw-1 2',
        'tagged VLANs',
        '4 in all',
        'no longer Management (VLAN 10), also Voice (VLAN 50): 4 in all',
      ],
    ]);
  });
  test('a short list in full, and a long one in another order', () => {
    expect(said(ids.slice(0, 1), ids.slice(0, 2))).toEqual([
      ['gw-1 2', 'tagged VLANs', 'Management (VLAN 10)', 'Management (VLAN 10), Cameras (VLAN 20)'],
    ]);
    const [[, , before, after] = []] = said(ids, [...ids].reverse());
    expect(before?.split(', ')).toEqual(after?.split(', ').reverse());
  });
  test('what is added or removed is called by its kind, once', () => {
    const added = describeChange(
      plan,
      perform(plan, { operation: 'addSegment', input: { purpose: 'iot' } }, 'd'),
    );
    expect(added.map(({ what, word, kind }) => [what, word, kind])).toEqual(
      expect.arrayContaining([
        ['Things (VLAN 70)', 'segment', 'added'],
        [expect.stringMatching(/^pool /), '', 'added'],
      ]),
    );
    const [cable] = plan.cable.values();
    const gone = describeChange(
      plan,
      perform(plan, { operation: 'disconnect', input: { cable: cable!.id } }, 'e'),
    );
    expect(gone.map(({ kind }) => kind)).toContain('removed');
    expect(describeChange(plan, { label: '', steps: [] })).toEqual([]);
  });
});
