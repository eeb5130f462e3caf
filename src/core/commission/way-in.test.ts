import { asANewSite } from '../edit';
import { Draft, type Plan, encodePlan, modelNamed } from '../plan';
import { commissionSite, plainDrawing } from '../testing/commission';
import { done } from '../testing/plans';
import {
  type WayIn,
  kitOf,
  laptopFor,
  modelInShort,
  orderOf,
  plannedState,
  presentState,
  reachedFrom,
  sheetOf,
  wayInto,
} from './index';

const { plan: bare } = commissionSite(plainDrawing);
const { model: name } = [...bare.box.values()][0]!;

function knowing(set: object, site = bare): Plan {
  const draft = new Draft(done(site, 'addModel', { name }), 'known');
  draft.update('model', modelNamed(draft.plan, name)!.id, set);
  return draft.plan;
}
const read = (lines: readonly WayIn[]) => Object.fromEntries(lines.map(({ what, value }) => [what, value]));
const firstSeat = (plan: Plan) => {
  const now = presentState(plan);
  return sheetOf(plan, now, orderOf(now, plannedState(plan)).entries).seats[0]!;
};

test('what a model is known to come with is what its boxes come with, unless somebody said otherwise of one', () => {
  const plan = knowing({ address: 0xc0a80a01, length: 16 });
  const addresses = (site: Plan) => presentState(site).boxes.map(({ management }) => management!.address);
  expect(addresses(plan)).toEqual([0xc0a80a01, 0xc0a80a01]);
  // Two with one address never meet on one wire.
  expect(presentState(plan).apart.size).toBe(2);
  const [first] = [...plan.box.values()];
  const other = done(plan, 'setPresent', {
    devices: [first!.device],
    set: { address: '192.168.99.1', length: 24 },
  });
  expect(addresses(other)).toEqual([0xc0a86301, 0xc0a80a01]);
  expect(presentState(other).apart.size).toBe(0);
});

test('a box that answers at one port is reached there and nowhere else, until it has its address', () => {
  const plan = knowing({ way: 'one-port', port: 8, address: 0xc0a80a01 });
  const now = presentState(plan);
  const at = (number: number) =>
    [...plan.port.values()].find((one) => one.device === 'b1' && one.number === number)!.id;
  expect([...reachedFrom(now, at(8)).keys()]).toEqual(['b1']);
  expect([...reachedFrom(now, at(7)).keys()]).toEqual([]);
  // Where links carry every VLAN as they come, that port is still its own.
  const { plan: open } = commissionSite({ ...plainDrawing, factory: 'every-vlan' });
  const loose = presentState(knowing({ way: 'one-port', port: 8, address: 0xc0a80a01 }, open));
  expect([...reachedFrom(loose, at(8)).keys()]).toEqual(['b1']);
  expect(firstSeat(plan).steps[0]!.device).toBe(plan.port.get(firstSeat(plan).socket!)!.device);
});

test('a box that gives itself an address is looked for among such; one with a console only is begun there', () => {
  const local = knowing({ way: 'link-local' });
  expect(laptopFor(local, presentState(local), 'b0')).toMatchObject({ length: 16 });
  expect(firstSeat(local).laptop).toBe('169.254.254.255 255.255.0.0');
  const console = knowing({ way: 'console', console: 'usb', consoleSpeed: 115200 });
  const seat = firstSeat(console);
  expect([seat.socket, seat.laptop]).toEqual([null, null]);
  expect(seat.steps.map(({ kind }) => kind)).toContain('management');
  expect(read(wayInto(console, seat.device)).Console).toBe('USB, 115200 bit/s');
  expect(kitOf(console).map(({ what }) => what)).toContain('console lead, USB');
});

test('what is known is told in short and in full, and nothing where nothing is known', () => {
  expect(wayInto(bare, 'b0')).toEqual([]);
  const plan = knowing({ way: 'one-port', port: 3, starts: 90, reset: 'pin', quirks: 'forgets its clock' });
  expect(modelInShort(modelNamed(plan, name)!)).toBe(
    'answers at port 3 until the first restart; starts in 90 s; reset: pin; has quirks',
  );
  expect(read(wayInto(plan, 'b0'))).toEqual({
    'As it comes': 'its address answers at one port until the first restart',
    'Begin at': 'port 3',
    'Starts in': '90 s',
    Reset: 'pin',
    Quirks: 'forgets its clock',
  });
  // Once it is set up the port to begin at is of no use.
  const set = done(plan, 'setPresent', { devices: ['b0'], set: { state: 'as-planned' } });
  expect(read(wayInto(set, 'b0'))).not.toHaveProperty('Begin at');
  expect(() => done(plan, 'addModel', { name: name.toUpperCase() })).toThrow('There is a model');
});

test('what a file of another site says of changes there says nothing here', () => {
  const here = done(bare, 'setPresent', { devices: ['b0', 'b1'], set: { state: 'as-planned', asOf: 4 } });
  const asOf = (site: Plan) => [...site.present.values()].map((one) => one.asOf);
  const file = encodePlan(here);
  expect(asOf(done(bare, 'bringInPlan', { file: 'other.json', plan: file }))).toEqual([null, null]);
  expect(asOf(done(here, 'bringInPlan', { file: 'own.json', plan: file }))).toEqual([4, 4]);
  expect(asOf(asANewSite(here))).toEqual([null, null]);
});
