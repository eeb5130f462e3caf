import { readFileSync } from 'node:fs';
import { readPlanFile } from '../../formats';
import { finish } from '../../plan';
import { Practice, type WireBenchAction } from './index';

const house = readPlanFile(readFileSync('demo/1-row-house.json', 'utf8'));
const look = (practice: Practice) => finish(practice.view());

/** Does what the order says next until nothing is left, and now and then something else. */
function workOff(practice: Practice, besides: (at: number) => readonly WireBenchAction[]): number {
  for (let at = 0; at < 500; at++) {
    for (const action of besides(at)) practice.do(action);
    const { next } = look(practice);
    if (!next) return at;
    for (const action of next.actions) {
      practice.do(action);
      expect(look(practice).refused).toBe('');
    }
  }
  throw new Error('the order does not end');
}

test('a whole house is set up by doing what is said next, also after somebody pulled a plug or pressed a pin', () => {
  const plain = new Practice(house);
  const steps = workOff(plain, () => []);
  expect(steps).toBeGreaterThan(40);
  const end = look(plain);
  // One socket stays open for the installer, as this house plans none to be managed from.
  expect(end.boxes.flatMap(({ left }) => left.map(({ does }) => does))).toEqual([
    expect.stringMatching(/^Port \d+: /),
  ]);
  expect(end.boxes.every(({ unsaved, apart }) => !unsaved && !apart)).toBe(true);

  const { device } = end.boxes.find((box) => house.device.get(box.device)!.name === 'sw-cellar')!;
  const rough = new Practice(house);
  const longer = workOff(rough, (at) =>
    at === 12 ? [{ kind: 'restart', device }] : at === 30 ? [{ kind: 'reset', device }] : [],
  );
  expect(longer).toBeGreaterThan(steps);
  expect(look(rough).boxes.every(({ unsaved, apart }) => !unsaved && !apart)).toBe(true);
});

test('the page of a box that is out of reach takes nothing, and says why', () => {
  const practice = new Practice(house);
  const first = look(practice);
  expect(new Set(first.boxes.map(({ shut }) => shut))).toEqual(
    new Set(['The laptop is plugged in nowhere.']),
  );
  const box = first.boxes.find(({ apart }) => !apart)!;
  practice.do({ kind: 'set', step: box.left[0]!.step });
  expect(look(practice)).toMatchObject({ refused: 'The laptop is plugged in nowhere.', cut: [] });
  practice.do({ kind: 'sit', socket: first.sockets[0]! });
  practice.do({ kind: 'laptop', address: '192.0.2.9', length: 24 });
  expect(look(practice)).toMatchObject({ seat: first.sockets[0], laptop: '192.0.2.9 255.255.255.0' });
});
