import { boxOf, type Plan, withRecord } from '../../plan';
import { carriedOf, portsOf } from '../../model/wiring';
import { FindingsEngine } from '../engine';
import { deviceNamed, portNamed, put, soundGear } from '../../testing/gear';
import { done } from '../../testing/plans';
import { factoryPortGuards } from '../../model/guards';

const TODAY = '2026-05-04';
const sound = soundGear();
const camera = portNamed(sound, 'sw-a', 3);
const unpowered = put(sound, 'port', camera, { poeClass: null });
const remedies = (plan: Plan) =>
  new FindingsEngine(plan, TODAY).all().find(({ check }) => check === 'not-powered')!.remedies;

describe('a plug goes into another socket', () => {
  test('the first free one that gives enough, and the plan of the port goes along', () => {
    const [remedy, ...others] = remedies(unpowered);
    expect(remedy!.label).toBe('Plug it into sw-a 5');
    expect(others).toEqual([]);
    const after = done(unpowered, remedy!.operation, remedy!.input);
    expect(carriedOf(portNamed(after, 'sw-a', 5))).toEqual(carriedOf(camera));
    expect(portNamed(after, 'sw-a', 3).role).toBe('parked');
    expect(new FindingsEngine(after, TODAY).all().map(({ check }) => check)).not.toContain('not-powered');
  });

  test('not one that is planned for something, nor one that is guarded', () => {
    const labelled = put(unpowered, 'port', portNamed(unpowered, 'sw-a', 5), { label: 'door phone' });
    expect(remedies(labelled)[0]!.label).toBe('Plug it into sw-a 6');
    const guarded = withRecord(labelled, 'portGuard', 'g', {
      id: 'g',
      port: portNamed(labelled, 'sw-a', 6).id,
      ...factoryPortGuards,
      macLimit: 1,
    });
    expect(remedies(guarded)[0]!.label).toBe('Plug it into sw-a 7');
  });

  test('none where a guard would stay behind, where the budget is spent, and where no socket gives more', () => {
    const guard = { id: 'g', port: camera.id, ...factoryPortGuards, macLimit: 1 };
    expect(remedies(withRecord(unpowered, 'portGuard', 'g', guard))).toEqual([]);
    const box = boxOf(unpowered, deviceNamed(unpowered, 'sw-a').id)!;
    expect(remedies(put(unpowered, 'box', box, { poeBudget: 40 }))).toEqual([]);
    const none = portsOf(unpowered, camera.device).reduce(
      (plan, port) => put(plan, 'port', port, { poeClass: null }),
      unpowered,
    );
    expect(remedies(none)).toEqual([]);
  });
});
