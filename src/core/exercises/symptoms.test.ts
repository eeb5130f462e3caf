import { readFileSync } from 'node:fs';
import path from 'node:path';
import { readPlanFile } from '../formats';
import type { Plan } from '../plan';
import { type PlantedFault, fallout } from './draw';
import { complaintOf } from './hints';
import { type Spot, stepsOf } from './kind';
import { kinds } from './kinds';
import { Readings } from './trials';

const TODAY = '2026-05-04';
const demo = (name: string) =>
  readPlanFile(readFileSync(path.join(process.cwd(), 'demo', `${name}.json`), 'utf8'));
const clinic = demo('2-clinic');
const creamery = demo('3-creamery');

/** The complaints of a kind of fault at the places whose report reads like this, without what was done before. */
function complaints(plan: Plan, kind: string, told: RegExp, level: 1 | 3 = 1): string[] {
  const sound = new Readings(plan, TODAY);
  const found = kinds.find(({ id }) => id === kind)!;
  const spots = found.spots(plan).filter((spot: Spot) => told.test(spot.told));
  expect(spots.length).toBeGreaterThan(0);
  return spots.map((spot) => {
    const { since, station } = found;
    const steps = stepsOf(plan, spot, 'x');
    const fault: PlantedFault = { kind, told: spot.told, near: spot.near, since, station, steps };
    return complaintOf(fault, fallout(sound, fault, TODAY)!, level).text.replace(`, ${since}.`, '.');
  });
}

describe('what people say', () => {
  test.each([
    ['a camera', clinic, 'port-off', /^sw-kennels 5 was/, 'kennel-cam-04 shows no picture.'],
    ['a telephone', clinic, 'port-off', /^sw-rack 12 was/, 'phone-02 has no dial tone.'],
    ['a server', clinic, 'port-off', /^sw-rack 5 was/, 'records does not answer anybody.'],
    ['a sensor', creamery, 'port-parked', /silo-level-01/, 'silo-level-01 sends no values.'],
    [
      'the Internet',
      clinic,
      'no-internet',
      /^Reception/,
      'printer-01 and 8 more in Reception and practice have no Internet.',
    ],
    [
      'an address',
      clinic,
      'pool-excluded',
      /10\.20\.60\./,
      'A laptop plugged in at sw-rack 21 gets no address.',
    ],
    [
      'a shared address',
      clinic,
      'address-twice',
      /^printer-01 /,
      'printer-01 and printer-02 come and go: now the one answers, now the other.',
    ],
    [
      'what is open',
      clinic,
      'pair-opened',
      /^From Staff to Voice/,
      'From Reception and practice one gets to Voice (web pages), and must not.',
    ],
    ['a forward', clinic, 'forward-off', /to images/, 'From outside nobody gets to images (web pages).'],
    ['names', clinic, 'dns-wrong', /^printer-01 asks/, 'printer-01 finds no page by its name.'],
    [
      'a loop',
      creamery,
      'tree-off',
      /^sw-a runs/,
      'Everything stands still, and every lamp on the switches flickers at once.',
    ],
    [
      'a box',
      clinic,
      'native-changed',
      /^At sw-rack 2 VLAN 20 /,
      'Near ap-01 Harrow Lane is there, and who joins it gets no address.',
    ],
  ] as const)('of %s is what they notice', (_, plan, kind, told, said) =>
    expect(complaints(plan, kind, told)).toContain(said),
  );

  test('names a few, counts many, and when it is hard speaks of one', () => {
    const easy = complaints(clinic, 'segment-dns-wrong', /^10\.20\.50\./);
    expect(easy[0]).toMatch(/^\S+ and \d+ more in Cameras find no page by its name\.$/);
    const [hard] = complaints(clinic, 'segment-dns-wrong', /^10\.20\.50\./, 3);
    expect(hard).toMatch(/^\S+ finds no page by its name\.$/);
  });

  test('of a link is what hangs on it', () => {
    const all = complaints(creamery, 'vlan-forgotten', /^VLAN 130 Voice is missing from what gw-1 3/);
    expect(all).toEqual(['phone-01 and 11 more in Voice get no further than their neighbours.']);
  });
});
