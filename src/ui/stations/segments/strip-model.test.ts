import fc from 'fast-check';
import { formatIpv4 } from '@/core/address';
import { prefix, done, emptySite } from '@/core/testing/plans';
import { vlansOf } from '@/core/plan';
import { freeRuns, spaceSpans, spreadLabels, stripSegments } from './strip-model';

const site = (...space: string[]) => emptySite({ space: space.map(prefix) });
const whole = (plan: ReturnType<typeof site>) => spaceSpans(plan)[0]!;

describe('the address strip', () => {
  test('blocks that touch are one piece, others a piece each, IPv6 none', () => {
    const plan = site('10.1.0.0/16', '10.0.0.0/16', '192.168.7.0/24', 'fd00::/48');
    const shown = spaceSpans(plan).map(({ from, to }) => `${formatIpv4(from)}–${formatIpv4(to)}`);
    expect(shown).toEqual(['10.0.0.0–10.1.255.255', '192.168.7.0–192.168.7.255']);
  });
  test('segments and free runs lie side by side and fill the space', () => {
    let plan = site('10.20.0.0/16');
    for (const purpose of ['management', 'staff', 'guest', 'cameras'])
      plan = done(plan, 'addSegment', { purpose });
    const view = whole(plan);
    const parts = [...stripSegments(plan, view), ...freeRuns(plan, view)].sort((a, b) => a.from - b.from);
    expect(parts[0]!.from).toBe(view.from);
    expect(parts.at(-1)!.to).toBe(view.to);
    parts.slice(1).forEach((part, i) => expect(part.from).toBe(parts[i]!.to + 1));
  });
  test('a free run says what it holds', () => {
    let plan = site('10.20.0.0/22');
    expect(freeRuns(plan, whole(plan)).map((run) => run.text)).toEqual([
      '4 × /24 free, largest 10.20.0.0/22',
    ]);
    plan = done(plan, 'addSegment', { purpose: 'staff', prefix: '10.20.1.0/25' });
    expect(freeRuns(plan, whole(plan)).map((run) => run.text)).toEqual([
      '256 free at 10.20.0.0/24',
      '2 × /24 free, largest 10.20.2.0/23',
    ]);
  });
  test('only what is in view is drawn', () => {
    let plan = site('10.20.0.0/16');
    for (const purpose of ['management', 'staff']) plan = done(plan, 'addSegment', { purpose });
    const [first] = stripSegments(plan, whole(plan));
    const near = stripSegments(plan, { from: first!.from, to: first!.to });
    expect(near.map(({ vlan }) => vlan.id)).toEqual([vlansOf(plan)[0]!.id]);
  });
  test('labels keep their distance and their order, and the last stays inside', () => {
    const wanted = fc.array(fc.integer({ min: 0, max: 700 }), { minLength: 1, maxLength: 18 });
    fc.assert(
      fc.property(wanted, (places) => {
        const sorted = places.sort((a, b) => a - b);
        const labels = spreadLabels(sorted, 34, 700);
        labels.slice(1).forEach((at, i) => expect(at - labels[i]!).toBeGreaterThanOrEqual(34 - 1e-9));
        expect(labels.at(-1)!).toBeLessThanOrEqual(700 - 17);
      }),
    );
    expect(spreadLabels([100, 300], 34, 700)).toEqual([100, 300]);
  });
});
