import fc from 'fast-check';
import { type Party, type Plan, Refusal, devicesNamed, equal, vlansOf } from '../../plan';
import { deviceNamed, put, vlanFor } from '../../testing/gear';
import { done, prefix } from '../../testing/plans';
import { buildPolicy, damagedPolicy, soundPolicy, zoneNamed } from '../../testing/policy';
import { runs } from '../../testing/runs';
import { partiesLine, partyTyped, typedParties, typedServices, zonesOf } from './index';

/** Names that mean other things as well, or hold what stands between names. */
const names = [
  'Office',
  'office',
  'Office, east',
  'east',
  'any',
  'Anybody',
  '30',
  'zone Office',
  'segment 30',
  'till',
];

function renamed(plan: Plan, picks: readonly number[]): Plan {
  let made = plan;
  let at = 0;
  const next = () => names[picks[at++ % picks.length]! % names.length]!;
  zonesOf(plan).forEach((zone, i) => {
    const name = next();
    // No two zones are called the same.
    const taken = zonesOf(made).some((other) => other.name.toLowerCase() === name.toLowerCase());
    if (i % 2 === 0 && !taken) made = put(made, 'zone', zone, { name });
  });
  for (const vlan of vlansOf(plan)) if (vlan.vid % 20 === 0) made = put(made, 'vlan', vlan, { name: next() });
  for (const name of ['desk', 'cam-1', 'phone']) {
    const device = deviceNamed(made, name);
    if (device) made = put(made, 'device', device, { name: next() });
  }
  return made;
}

const everyParty = (plan: Plan): Party[] => [
  ...zonesOf(plan).map(({ id }) => ({ zone: id })),
  ...vlansOf(plan).map(({ id }) => ({ vlan: id })),
  ...[...plan.device.values()].map(({ id }) => ({ device: id })),
  { prefix: prefix('10.20.0.0/16') },
  { prefix: prefix('198.51.100.7/32') },
];

/** What a text is read as; null for a refusal. */
const read = (plan: Plan, text: string): Party[] | null => {
  try {
    return typedParties(plan, text);
  } catch (error) {
    if (!(error instanceof Refusal)) throw error;
    return null;
  }
};

/** A zone of one segment alone says the same as the segment. */
const same = (plan: Plan, a: Party, b: Party): boolean =>
  equal(a, b) ||
  ('vlan' in b &&
    'zone' in a &&
    equal(plan.zone.get(a.zone)!.vlans, [b.vlan]) &&
    !plan.zone.get(a.zone)!.gateway);

test('parties are read back as they were written, or refused, whatever things are called', () => {
  let [told, refused] = [0, 0];
  fc.assert(
    fc.property(damagedPolicy, fc.array(fc.nat(), { minLength: 5, maxLength: 40 }), (damages, picks) => {
      const plan = renamed(buildPolicy(damages, soundPolicy()), picks);
      const parties = everyParty(plan);
      const readable = parties.filter((party) => {
        const back = read(plan, partyTyped(plan, party));
        if (back && same(plan, back[0]!, party)) return true;
        // Only what nothing tells apart is refused; it is never taken for another.
        expect(back).toBeNull();
        if ('device' in party)
          expect(devicesNamed(plan, plan.device.get(party.device)!.name).length).toBeGreaterThan(1);
        refused++;
        return false;
      });
      const some = readable.filter((_, i) => picks[i % picks.length]! % 3 === 0);
      const back = some.length === 0 ? [] : typedParties(plan, partiesLine(plan, some));
      expect(back).toHaveLength(some.length);
      back.forEach((party, i) => expect(same(plan, party, some[i]!)).toBe(true));
      told += some.length;
    }),
    { numRuns: runs(60) },
  );
  expect(told).toBeGreaterThan(200);
  expect(refused).toBeGreaterThan(5);
});

const plan = soundPolicy();
const staff = vlanFor(plan, 'staff');

test('what may be a zone or a segment is refused where they differ, and typed with its word', () => {
  const named = put(plan, 'vlan', staff, { name: 'Devices' });
  expect(() => typedParties(named, 'devices')).toThrow(
    '“devices” may be the zone or the segment; write “zone devices” or “segment devices”.',
  );
  expect(typedParties(named, 'segment Devices, Zone devices')).toEqual([
    { vlan: staff.id },
    { zone: zoneNamed(named, 'Devices').id },
  ]);
  expect(partyTyped(named, { vlan: staff.id })).toBe('segment Devices');
});

test('anybody is everybody, unless something is called so', () => {
  expect(typedParties(plan, ' Anybody ')).toEqual([]);
  expect(typedParties(plan, '')).toEqual([]);
  const named = put(plan, 'device', deviceNamed(plan, 'till'), { name: 'any' });
  expect(typedParties(named, 'any')).toEqual([{ device: deviceNamed(plan, 'till').id }]);
});

test('a network is typed with its length or mask, an address by itself', () =>
  expect(typedParties(plan, '198.51.100.7, 10.20.0.0 255.255.0.0, 2001:db8::/48')).toEqual(
    ['198.51.100.7/32', '10.20.0.0/16', '2001:db8::/48'].map((text) => ({ prefix: prefix(text) })),
  ));

test('a name that is not here is refused with the zones there are', () => {
  const zones = zonesOf(plan).map(({ name }) => name);
  expect(() => typedParties(plan, 'attic')).toThrow(
    `“attic” is no zone, segment, device or network here; there are the zones ${zones.join(', ')}.`,
  );
});

test('services are read by name, commas in it and all; everything is all, unless a service is called so', () => {
  const own = (name: string) => done(plan, 'addService', { name, ports: 'tcp 8443' });
  const made = own('till, upstairs');
  const service = [...made.service.values()][0]!.id;
  expect(typedServices(made, 'Ping, till,upstairs')).toEqual(['stdping', service]);
  expect(typedServices(plan, 'everything')).toEqual([]);
  expect(typedServices(own('any'), 'any')).toHaveLength(1);
  expect(() => typedServices(plan, 'htp')).toThrow('“htp” is no service here; there are HTTP');
});
