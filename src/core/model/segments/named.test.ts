import { put, soundGear, vlanFor } from '../../testing/gear';
import { vlanMeant } from './named';

const plan = soundGear();
const staff = vlanFor(plan, 'staff');
const guest = vlanFor(plan, 'guest');

test('a segment is meant by its id, both, its code or its name, capitals or not', () => {
  for (const text of [
    String(staff.vid),
    `${staff.vid} ${staff.code}`,
    staff.code.toLowerCase(),
    ` ${staff.name} `,
  ])
    expect(vlanMeant(plan, text)).toBe(staff);
  expect(vlanMeant(plan, 'attic')).toBeUndefined();
});

test('an id goes before a code that reads like one', () => {
  const coded = put(plan, 'vlan', guest, { code: String(staff.vid) });
  expect(vlanMeant(coded, String(staff.vid))!.id).toBe(staff.id);
});

test('which of several of a name is meant is not guessed', () => {
  const twice = put(plan, 'vlan', guest, { name: staff.name.toUpperCase() });
  const [first, second] = [staff, guest].sort((a, b) => a.vid - b.vid);
  expect(() => vlanMeant(twice, staff.name)).toThrow(
    new RegExp(`may be VLAN ${first!.vid} \\S+ or VLAN ${second!.vid} \\S+; write the id\\.$`),
  );
  expect(vlanMeant(twice, String(guest.vid))!.id).toBe(guest.id);
});
