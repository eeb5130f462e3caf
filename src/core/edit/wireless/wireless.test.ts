import fc from 'fast-check';
import { perform } from '..';
import { type Plan, applyChange, Refusal, encodePlan, interfacesOf, planOfLists } from '../../plan';
import {
  disturbance,
  networksAt,
  proposeChannels,
  radiosOf,
  readScan,
  sentBy,
  ssidsOf,
} from '../../model/wireless';
import { carries, innerPort } from '../../model/wiring';
import { deviceNamed, portNamed, put, vlanFor } from '../../testing/gear';
import { done, nextSeed } from '../../testing/plans';
import { runs } from '../../testing/runs';
import { buildWireless, damagedWireless, radioOf, soundWireless, ssidNamed } from '../../testing/wireless';

const sound = soundWireless();
const refusal = (operation: string, input: object, plan = sound): string => {
  try {
    perform(plan, { operation, input }, nextSeed());
  } catch (error) {
    if (error instanceof Refusal) return error.message;
    throw error;
  }
  return 'not refused';
};

describe('networks', () => {
  test('for guests keep their clients apart from the start; the name is one to 32 octets', () => {
    const guests = vlanFor(sound, 'guest').id;
    const made = done(sound, 'addSsid', { name: 'Visitors', vlan: guests });
    expect(ssidNamed(made, 'Visitors')).toMatchObject({
      isolated: true,
      security: 'wpa2-wpa3-personal',
      keySet: null,
    });
    expect(refusal('addSsid', { name: 'Office' })).toBe(
      'There is a network “Office” already; give this one another name.',
    );
    expect(refusal('addSsid', { name: 'ä'.repeat(17) })).toMatch(/more than 32 octets/);
    expect(refusal('addSsid', { name: ' ' })).toMatch(/The network’s name is empty/);
  });

  test('are taken off one access point and stay on the others', () => {
    const office = ssidNamed(sound, 'Office').id;
    const one = done(sound, 'takeOffAir', { ssid: office, device: deviceNamed(sound, 'ap').id });
    expect(sentBy(one, ssidNamed(one, 'Office')).map(({ name }) => name)).toEqual(['ap-2']);
    expect(refusal('takeOffAir', { ssid: office, device: deviceNamed(sound, 'ap-2').id }, one)).toMatch(
      /^Office is on no other access point/,
    );
  });

  test('are off the air with the last access point they were listed at, not at all the others', () => {
    const office = ssidNamed(sound, 'Office').id;
    const [first, second] = ['ap', 'ap-2'].map((name) => deviceNamed(sound, name).id);
    const one = done(sound, 'edit', { table: 'ssid', id: office, set: { on: [first] } });
    const gone = done(one, 'removeDevice', { device: first });
    expect(sentBy(gone, ssidNamed(gone, 'Office'))).toEqual([]);
    expect(ssidNamed(planOfLists(encodePlan(gone)), 'Office')).toMatchObject({ on: [], bands: [] });
    const both = done(sound, 'edit', { table: 'ssid', id: office, set: { on: [first, second] } });
    const left = done(both, 'removeDevice', { device: first });
    expect(sentBy(left, ssidNamed(left, 'Office')).map(({ name }) => name)).toEqual(['ap-2']);
    expect(ssidNamed(left, 'Office').bands).toEqual(ssidNamed(sound, 'Office').bands);
  });

  test('a name for each box and one name again is what it was, and who joined stays on', () => {
    const office = ssidNamed(sound, 'Office').id;
    const each = done(sound, 'nameEachBox', { ssid: office });
    expect(ssidsOf(each).map(({ name }) => name)).toEqual(['Office ap', 'Guests', 'Office ap-2']);
    const second = ssidNamed(each, 'Office ap-2').id;
    const [card] = interfacesOf(each, deviceNamed(each, 'desk').id);
    const joined = put(each, 'interface', card!, { joins: second });
    const one = done(joined, 'joinNames', { ssid: office, others: [second] });
    expect(sentBy(one, ssidNamed(one, 'Office ap')).map(({ name }) => name)).toEqual(['ap', 'ap-2']);
    expect(one.interface.get(card!.id)!.joins).toBe(office);
    expect(refusal('joinNames', { ssid: office, others: [ssidNamed(sound, 'Guests').id] })).toMatch(
      /leads elsewhere/,
    );
  });

  test('moves behind another, and to the top', () => {
    const [office, guests] = ssidsOf(sound);
    const moved = done(sound, 'moveSsid', { ssid: office!.id, after: guests!.id });
    expect(ssidsOf(moved).map(({ name }) => name)).toEqual(['Guests', 'Office']);
    expect(ssidsOf(done(moved, 'moveSsid', { ssid: office!.id, after: null }))[0]!.name).toBe('Office');
  });
});

describe('what an access point sends is carried to it', () => {
  test('and nothing else is', () => {
    let plan = done(sound, 'addSsid', { name: 'Cameras', vlan: vlanFor(sound, 'cameras').id });
    const ap = deviceNamed(plan, 'ap').id;
    plan = done(plan, 'carryNetworks', { device: ap });
    const inner = innerPort(plan, ap)!;
    expect(networksAt(plan, ap).every(({ vlan }) => carries(inner, vlan!))).toBe(true);
    expect(carries(portNamed(plan, 'sw-a', 2), vlanFor(plan, 'cameras').id)).toBe(true);
    expect(carries(inner, vlanFor(plan, 'voice').id)).toBe(false);
    // It is carried to every access point that sends it.
    expect(carries(portNamed(plan, 'sw-b', 3), vlanFor(plan, 'cameras').id)).toBe(true);
    for (const device of [ap, deviceNamed(plan, 'ap-2').id])
      expect(refusal('carryNetworks', { device }, plan)).toMatch(/ sends is carried to it already\.$/);
  });
});

describe('what was heard', () => {
  test('levels are noted, replaced, and refused with the line', () => {
    const plan = done(sound, 'noteLevels', { text: 'ap ap-2 5 -67\nap-2, ap, 2.4 GHz, -58 dBm' });
    expect([...plan.level.values()].map(({ band, dbm }) => [band, dbm])).toEqual([
      ['5', -67],
      ['2.4', -58],
    ]);
    expect([...done(plan, 'noteLevels', { text: 'ap ap-2 5 -70' }).level.values()]).toHaveLength(2);
    expect(refusal('noteLevels', { text: 'ap ap-9 5 -67' })).toMatch(
      /^There is no device “ap-9” in this site/,
    );
    expect(refusal('noteLevels', { text: 'ap ap-2 -67' })).toMatch(/^“ap ap-2 -67” is no level; write/);
    expect(refusal('noteLevels', { text: 'ap ap 5 -67' })).toMatch(/does not hear itself/);
  });

  const table =
    'SSID             CHAN  SIGNAL\nNeighbour        6     58\nBakery 2nd floor 100   30\n--               11    20';
  const blocks = `BSS 02:00:5e:00:53:01(on wlan0)
\tfreq: 5180
\tsignal: -61.00 dBm
\tSSID: Bakery
\tHT operation:
\t\t * secondary channel offset: above
\tVHT operation:
\t\t * channel width: 1 (80 MHz)
BSS 02:00:5e:00:53:02(on wlan0)
\tfreq: 2437
\tsignal: -80.00 dBm
\tSSID:
BSS 02:00:5e:00:53:03(on wlan0)
\tfreq: 900
\tsignal: -50.00 dBm`;
  test('reads tables in columns, with separators, and blocks', () => {
    expect(readScan(table).found).toEqual([
      { name: 'Neighbour', band: '2.4', channel: 6, width: '20', dbm: -71 },
      { name: 'Bakery 2nd floor', band: '5', channel: 100, width: '20', dbm: -85 },
      { name: '', band: '2.4', channel: 11, width: '20', dbm: -90 },
    ]);
    expect(readScan('name,frequency,width,level\n"A, B",5955,160 MHz,-70').refused).toHaveLength(1);
    expect(readScan('name;frequency;width;level\nA;5955;160 MHz;-70').found).toEqual([
      { name: 'A', band: '6', channel: 1, width: '160', dbm: -70 },
    ]);
    const read = readScan(blocks);
    expect(read.found).toEqual([
      { name: 'Bakery', band: '5', channel: 36, width: '80', dbm: -61 },
      { name: '', band: '2.4', channel: 6, width: '20', dbm: -80 },
    ]);
    expect(read.refused).toEqual([
      { line: 13, text: 'BSS 02:00:5e:00:53:03(on wlan0)', why: 'it has no frequency of a channel' },
    ]);
  });

  test('a scan replaces what was heard at the same place, without the site’s own names', () => {
    const ap = deviceNamed(sound, 'ap').id;
    let plan = done(sound, 'noteScan', { at: ap, text: 'name;channel;level\nOffice;1;-50\nNeighbour;6;-71' });
    plan = done(plan, 'noteScan', { text: 'name;channel;level\nAll over;1;-80' });
    plan = done(plan, 'noteScan', { at: ap, text: 'name;channel;level\nBakery;6;-71' });
    expect([...plan.foreignSsid.values()].map(({ name, at }) => [name, at])).toEqual([
      ['All over', null],
      ['Bakery', ap],
    ]);
    expect(refusal('noteScan', { text: 'name;channel;level\nX;999;-71' })).toMatch(
      /line 2, “X;999;-71”, it has no channel/,
    );
  });
});

describe('channels', () => {
  test('what is proposed disturbs no more than what is set, keeps what is kept, and says what it costs', () => {
    fc.assert(
      fc.property(damagedWireless, (damage) => {
        // A radio that is too loud for its new channel is turned down, which changes levels; these are quiet enough anywhere.
        const plan = [...buildWireless(damage, sound).radio.values()].reduce(
          (now, radio) => put(now, 'radio', radio, { power: 5 }),
          buildWireless(damage, sound),
        );
        for (const { band, settings, before, after, bound, without } of proposeChannels(plan, {
          band: null,
          widths: false,
          powers: false,
        })) {
          const applied = settings.length ? taken(plan, settings) : plan;
          const clean = without.length === 0;
          // What is measured on the plan is what was promised, but for radios that could be put nowhere.
          if (clean) expect([band, disturbance(applied, band)]).toEqual([band, after]);
          expect(bound).toBeLessThanOrEqual(after);
          const allowed = settings.every(({ radio, channel }) => plan.radio.get(radio)!.channel === channel);
          if (allowed && clean) expect(after).toBe(before);
        }
      }),
      { numRuns: runs(120) },
    );
  });
  const taken = (plan: Plan, settings: readonly object[]): Plan => {
    try {
      return done(plan, 'setChannels', { settings });
    } catch (error) {
      if (error instanceof Refusal && error.message.includes('like this already')) return plan;
      throw error;
    }
  };

  test('two on one channel come apart; one that is kept stays', () => {
    const same = put(sound, 'radio', radioOf(sound, 'ap', '2.4'), { channel: 6, kept: true });
    const [proposal] = proposeChannels(same, { band: '2.4', widths: false, powers: false });
    const of = (name: string) =>
      proposal!.settings.find(({ radio }) => radio === radioOf(sound, name, '2.4').id);
    expect([of('ap')!.channel, of('ap-2')!.channel]).toEqual([6, 1]);
    expect(proposal).toMatchObject({ after: 0, best: true });
    const applied = applyChange(
      same,
      perform(same, { operation: 'planChannels', input: { band: '2.4' } }, nextSeed()),
    );
    expect(applied.ok && radioOf(applied.plan, 'ap-2', '2.4').channel).toBe(1);
    expect(refusal('planChannels', { band: '2.4' })).toMatch(/^No other channels disturb less/);
  });

  test('radios are added in bands that have none; the same twice is refused', () => {
    const ap = deviceNamed(sound, 'ap').id;
    const plan = done(sound, 'addRadios', { devices: [ap], bands: ['5', '6'] });
    expect(radiosOf(plan, ap).map(({ band, width }) => [band, width])).toEqual([
      ['2.4', '20'],
      ['5', '40'],
      ['6', '40'],
    ]);
    expect(refusal('addRadios', { devices: [ap], bands: ['5'] })).toMatch(/already/);
    const [, five] = radiosOf(plan, ap);
    expect(() => done(plan, 'edit', { table: 'radio', id: five!.id, set: { band: '6' } })).toThrow(
      /has a radio at 6 GHz already\.$/,
    );
  });

  test('widths are narrow where many hear each other, powers as low as neighbours are near', () => {
    const near = done(sound, 'setSpot', { device: deviceNamed(sound, 'ap-2').id, floor: 0, x: 700, y: 500 });
    const [, five] = proposeChannels(near, { band: null, widths: true, powers: true });
    expect(five!.settings.map(({ width }) => width)).toEqual(['80', '80']);
    expect(five!.settings.every(({ power }) => power !== null && power >= 11 && power < 23)).toBe(true);
  });
});
