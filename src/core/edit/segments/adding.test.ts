import { readFileSync } from 'node:fs';
import { FindingsEngine } from '../../findings';
import { readPlanFile } from '../../formats';
import { type Plan, type Site, gatewaysOf, routersOf, subnetOf, vlansOf } from '../../plan';
import { innerPort, carries } from '../../model/wiring';
import { done, emptySite } from '../../testing/plans';

const TODAY = '2026-05-04';
const purposes = [
  'management',
  'staff',
  'guest',
  'cameras',
  'voice',
  'iot',
  'servers',
  'control-cell',
] as const;
const keysOf = (plan: Plan) => new Map(new FindingsEngine(plan, TODAY).all().map((one) => [one.key, one]));

/** What a person decides: who is plugged in, and whom they may talk to. Of a site without gear nothing else is open either. */
const LEFT_TO_PEOPLE = ['vlan-without-port', 'zone-missing'];

describe('a segment added leaves open only what a person decides', () => {
  const sites: Readonly<Record<string, Plan>> = {
    'new, each a /24': emptySite(),
    'new, each to its need': emptySite({ sizing: 'need' } satisfies Partial<Site>),
    ...Object.fromEntries(
      ['1-row-house', '2-clinic', '3-creamery'].map((name) => [
        name,
        readPlanFile(readFileSync(`demo/${name}.json`, 'utf8')),
      ]),
    ),
  };
  test.each(Object.keys(sites))('%s', (name) => {
    let plan = sites[name]!;
    for (const purpose of purposes) {
      const before = keysOf(plan);
      plan = done(plan, 'addSegment', { purpose });
      const more = [...keysOf(plan).values()].filter(
        ({ key, severity }) => severity !== 'note' && !before.has(key),
      );
      expect(more.filter(({ check }) => !LEFT_TO_PEOPLE.includes(check)).map(({ what }) => what)).toEqual([]);
    }
  });
  test('its router hears it, and so does the one that takes over from it', () => {
    const clinic = done(sites['2-clinic']!, 'addSegment', { purpose: 'iot' });
    const vlan = vlansOf(clinic).at(-1)!;
    const gateway = gatewaysOf(clinic, subnetOf(clinic, vlan.id, 4)!.id)[0]!;
    const { device } = clinic.interface.get(gateway.interface)!;
    expect(carries(innerPort(clinic, device)!, vlan.id)).toBe(true);
    const two = done(clinic, 'addDevice', { name: 'core-9', model: { shelf: 'layer3-24' } });
    const core = routersOf(two).find(({ name }) => name === 'core-9')!;
    const moved = done(two, 'routeSegmentBy', { vlan: vlan.id, device: core.id });
    expect(carries(innerPort(moved, core.id)!, vlan.id)).toBe(true);
  });
});
