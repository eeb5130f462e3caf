import { type Plan, addressesOn, subnetOf } from '../plan';
import { addOffset, formatAddress } from '../address';
import { isOutside, zonesOf } from '../model/policy';
import { cardOf } from '../testing/internet';
import { deviceNamed, put, vlanFor } from '../testing/gear';
import { done } from '../testing/plans';
import { soundPolicy, zoneNamed } from '../testing/policy';
import { suggestedEnds, typedReceiver, typedSender } from './typed';
import { ask } from '../testing/asking';

const sound = soundPolicy();
const addressIn = (plan: Plan, purpose: string) => subnetOf(plan, vlanFor(plan, purpose).id, 4)!;

describe('an end as it is typed', () => {
  const guests = vlanFor(sound, 'guest').name;
  test('a segment in which nobody is recorded is asked by a device as it would be leased, never by the gateway', () => {
    const answer = ask(sound, 'desk', guests, 'ping');
    expect(answer.delivered).toBe(false);
    expect(answer.summary).toContain('between zones nothing passes unless it is allowed');
    const opened = done(sound, 'decidePairs', {
      pairs: [{ from: zoneNamed(sound, 'Staff').id, to: zoneNamed(sound, 'Guests').id }],
      decision: 'allow',
    });
    const { delivered, forth } = ask(opened, 'desk', guests, 'ping');
    expect(delivered).toBe(true);
    expect(forth.at(-1)).toMatchObject({ what: `a device in ${guests}`, decision: 'receives it' });
  });
  test('two that are imagined in one segment are two', () => {
    const { delivered, forth } = ask(sound, guests, guests, 'ping');
    expect(delivered).toBe(true);
    expect(forth.map(({ what }) => what)).toEqual([
      `a laptop in ${guests}`,
      'cables',
      `a device in ${guests}`,
    ]);
  });
  test('an address is who has it, else its segment; a zone is its one segment, the gateway or the Internet', () => {
    const [desk] = addressesOn(sound, cardOf(sound, 'desk').id);
    expect(typedSender(sound, formatAddress(desk!.address))).toEqual({
      device: deviceNamed(sound, 'desk').id,
    });
    const { prefix: network } = addressIn(sound, 'guest');
    const free = formatAddress(addOffset(network.address, 99));
    expect(typedSender(sound, free)).toEqual({ vlan: vlanFor(sound, 'guest').id });
    expect(typedSender(sound, '198.51.100.7')).toEqual({ internet: true });
    expect(typedReceiver(sound, 'guests')).toEqual({ vlan: vlanFor(sound, 'guest').id });
    const renamed = put(sound, 'zone', zoneNamed(sound, 'Guests'), { name: 'Hall' });
    expect(typedReceiver(renamed, 'hall')).toEqual({ vlan: vlanFor(sound, 'guest').id });
    const outside = zonesOf(sound).find(isOutside)!;
    expect(typedSender(put(sound, 'zone', outside, { name: 'Street' }), 'street')).toEqual({
      internet: true,
    });
    const both = [vlanFor(sound, 'guest'), vlanFor(sound, 'staff')];
    const wide = put(renamed, 'zone', zoneNamed(renamed, 'Hall'), { vlans: both.map(({ id }) => id) });
    expect(() => typedSender(wide, 'hall')).toThrow(/The zone Hall has the segments .*; name one of them/);
  });
  test('what is nearly right is offered, and what begins with it comes first', () => {
    expect(() => ask(sound, 'cam', 'desk', 'ping')).toThrow(/Nearest here: Cameras, cam-1, cam-2\.$/);
    expect(suggestedEnds(sound, 'A')).toContain('sw-a');
    expect(suggestedEnds(sound, 'sw')).toEqual(['sw-a', 'sw-b']);
    expect(suggestedEnds(sound, '', 3)).toHaveLength(3);
  });
});
