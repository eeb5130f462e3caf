import fc from 'fast-check';
import { cellVerdict, decide, zoneOfVlan } from '../model/policy';
import { cardOf } from '../testing/internet';
import { deviceNamed, portNamed, put, vlanFor } from '../testing/gear';
import { buildPolicy, damagedPolicy, soundPolicy, zoneNamed } from '../testing/policy';
import { done } from '../testing/plans';
import { classesOf } from './classes';
import { differencesIn, differencesOf } from './differences';
import { probe } from './probe';
import { moreThan, runs } from '../testing/runs';

const sound = soundPolicy();
const hosts = ['desk', 'till', 'cam-1', 'cam-2', 'phone'];
const services = [
  { protocol: 'icmp', port: 8 },
  { protocol: 'tcp', port: 443 },
  { protocol: 'tcp', port: 554 },
] as const;
const TODAY = '2026-05-04';

describe('what is meant against what happens', () => {
  test('a site as it should be has no difference', () => expect(differencesIn(sound)).toEqual([]));

  test('where no difference is named, the probe does exactly what rules and matrix say', () => {
    const counted = { passes: 0, stops: 0, named: 0 };
    fc.assert(
      fc.property(damagedPolicy, (damage) => {
        const plan = buildPolicy(damage, sound);
        const gateway = deviceNamed(plan, 'gw-1');
        for (const a of hosts)
          for (const b of hosts) {
            const [from, to] = [a, b].map((name) => {
              const card = cardOf(plan, name);
              return [...plan.address.values()].find((item) => item.interface === card.id)!;
            });
            const [sender, receiver] = [from!, to!].map((item) => plan.subnet.get(item.subnet)!.vlan);
            const zones = [zoneOfVlan(plan, sender!), zoneOfVlan(plan, receiver!)];
            if (sender === receiver || !zones[0] || !zones[1] || zones[0] === zones[1]) continue;
            // Both directions: the answer of what is allowed one way has to come back the other.
            if (
              differencesOf(plan, zones[0].id, zones[1].id).length > 0 ||
              differencesOf(plan, zones[1].id, zones[0].id).length > 0
            ) {
              counted.named++;
              continue;
            }
            for (const wanted of services) {
              const meant = decide(
                plan,
                gateway,
                { from: from!.address, to: to!.address, wanted },
                { from: { vlan: sender! }, to: { vlan: receiver! } },
                TODAY,
              ).passes;
              const question = {
                from: { device: deviceNamed(plan, a).id },
                to: { device: deviceNamed(plan, b).id },
                wanted,
              };
              const { delivered, stop } = probe(plan, question, TODAY);
              if (!meant) expect([a, b, wanted.port, delivered]).toEqual([a, b, wanted.port, false]);
              // What only a rule allows is no matter of the matrix, whose denied pairs are not rehearsed.
              else if (!cellVerdict(plan, zones[0], zones[1], wanted, sender!).passes) counted.named++;
              else expect([a, b, wanted.port, stop?.why]).toEqual([a, b, wanted.port, undefined]);
              counted[delivered ? 'passes' : 'stops']++;
            }
          }
      }),
      { numRuns: runs(250), seed: 11 },
    );
    expect(counted.passes).toBeGreaterThan(moreThan(300));
    expect(counted.stops).toBeGreaterThan(moreThan(300));
    expect(counted.named).toBeGreaterThan(moreThan(50));
  });

  test('two segments on one wire are named with the port that joins them', () => {
    const staff = vlanFor(sound, 'staff').id;
    const guest = vlanFor(sound, 'guest').id;
    const port = portNamed(sound, 'sw-b', 9);
    const joined = put(sound, 'port', port, {
      untagged: guest,
      pvid: guest,
      accepts: 'all',
      tagged: port.tagged.filter((id) => id !== guest),
    });
    const far = portNamed(joined, 'sw-a', 9);
    const plan = put(joined, 'port', far, {
      untagged: staff,
      pvid: staff,
      accepts: 'all',
      tagged: far.tagged.filter((id) => id !== staff),
    });
    const found = differencesIn(plan).filter(({ kind }) => kind === 'excess');
    expect(found.map(({ why }) => why)).toContainEqual(
      expect.stringMatching(/share a wire: sw-. 9 to sw-. 9 makes VLAN \d+ of it\.$/),
    );
  });

  test('no way out, no gateway and a box without a filter are named', () => {
    const off = [...sound.uplink.values()].reduce(
      (plan, uplink) => put(plan, 'uplink', uplink, { enabled: false }),
      sound,
    );
    const internet = zoneNamed(sound, 'Internet').id;
    const staff = zoneNamed(sound, 'Staff').id;
    expect(differencesOf(off, staff, internet)[0]!.why).toMatch(
      /^gw-1 knows no way to the Internet, so .* has no Internet\.$/,
    );
    const subnet = [...sound.subnet.values()].find(({ vlan }) => vlan === vlanFor(sound, 'staff').id)!;
    const lost = done(sound, 'setGateway', { subnet: subnet.id, address: null });
    expect(differencesOf(lost, staff, internet)[0]!.why).toMatch(/has no gateway/);
    const box = [...sound.box.values()].find(({ device }) => device === deviceNamed(sound, 'gw-1').id)!;
    const open = put(sound, 'box', box, { filter: 'none' });
    const devices = zoneNamed(sound, 'Devices').id;
    expect(differencesOf(open, devices, staff).map(({ kind }) => kind)).toEqual(['excess']);
  });

  test('devices of one kind at one place are one class', () => {
    const classes = classesOf(sound);
    const staff = classes.filter(({ vlan }) => vlan === vlanFor(sound, 'staff').id);
    expect(staff).toHaveLength(1);
    expect(staff[0]!.devices).toHaveLength(2);
    const own = put(sound, 'interface', cardOf(sound, 'desk'), { ownLength: 30 });
    expect(classesOf(own).filter(({ vlan }) => vlan === vlanFor(sound, 'staff').id)).toHaveLength(2);
  });
});
