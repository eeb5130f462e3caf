import { boxOf, interfacesOf, type Plan, type Port } from '../../plan';
import { targetOf } from '../../model/guards';
import { hopped, listens, soundAccess, withTelephones } from '../../testing/access';
import { deviceNamed, portNamed, put, vlanFor } from '../../testing/gear';
import { done } from '../../testing/plans';
import { helpfulRemedies } from '../opening-helps';
import { probe } from '../probe';
import type { ProbeQuestion } from '../question';
import { type Telephone, telephoneAt, voiceThrough } from './telephone';
import { voiceSwitchAt } from './voice-switch';

const sound = withTelephones({ boot: 'http://boot.example.net/', registrar: 'sip.example.net' });
const at = (plan: Plan, name: string, number: number, phone: string | null = null): Telephone =>
  telephoneAt(plan, portNamed(plan, name, number), phone === null ? null : deviceNamed(plan, phone), null);
const step = ({ steps }: Telephone, what: Telephone['steps'][number]['what']) =>
  steps.find((one) => one.what === what);
/** A free port for a telephone with a computer behind it. */
function voicePort(plan: Plan, fields: Partial<Port> = {}): Plan {
  const { id } = portNamed(plan, 'sw-a', 6);
  const made = done(plan, 'assignPorts', { ports: [id], role: 'voice', vlan: vlanFor(plan, 'staff').id });
  return put(made, 'port', portNamed(made, 'sw-a', 6), fields);
}
const every = (plan: Plan): Plan =>
  ['sw-a', 'sw-b', 'gw-1'].reduce(
    (next, name) => hopped(next, name, { announces: 'yes', marks: 'kept', queue: 'yes' }),
    plan,
  );

test('a new telephone is powered, told its VLAN, leased an address of it, and registers', () => {
  const found = at(every(voicePort(sound)), 'sw-a', 6);
  expect(found.works).toBe(true);
  expect(found.vlan?.purpose).toBe('voice');
  expect(step(found, 'Power')?.says).toBe('class 2 (7 W) from sw-a 6');
  expect(step(found, 'Voice VLAN')?.says).toBe('LLDP-MED at sw-a 6: VLAN 50 tagged, priority 5, DSCP 46');
  expect(step(found, 'Address')?.says).toMatch(/^10\.20\.50\.\d+ from gw-1/);
  expect(step(found, 'Boot server')?.says).toBe('option 66: http://boot.example.net/, TCP 80');
  expect(step(found, 'Priority')?.says).toBe('kept and sent first by sw-a, gw-1');
});

test('what nobody recorded is not known, neither good nor bad', () => {
  const found = at(voicePort(sound), 'sw-a', 6);
  expect(found.works).toBeNull();
  expect(step(found, 'Voice VLAN')?.works).toBeNull();
  expect(step(found, 'Priority')?.says).toBe('not recorded at sw-a, gw-1');
});

test.each([
  [
    'no announcement',
    (plan: Plan) => hopped(plan, 'sw-a', { announces: 'no' }),
    'Voice VLAN',
    /cannot announce/,
  ],
  ['no power', (plan: Plan) => voicePort(plan, { poeClass: null }), 'Power', /sw-a 6 gives none$/],
  ['too little power', (plan: Plan) => voicePort(plan, { poeClass: 1 }), 'Power', /gives class 1 at most$/],
  [
    'no budget',
    (plan: Plan) => put(plan, 'box', boxOf(plan, deviceNamed(plan, 'sw-a').id)!, { poeBudget: 1 }),
    'Power',
    /the budget of sw-a is spent$/,
  ],
  [
    'a port that is off',
    (plan: Plan) => voicePort(plan, { enabled: false }),
    'Voice VLAN',
    /lets nothing pass/,
  ],
  [
    'no boot server',
    (plan: Plan) => withTelephones({ boot: 'tftp://10.99.0.1' }, plan),
    'Boot server',
    /Stopped at/,
  ],
  [
    'a box that clears marks',
    (plan: Plan) => hopped(plan, 'gw-1', { marks: 'cleared' }),
    'Priority',
    /^gw-1 clears/,
  ],
] as const)('%s is said where it happens', (_name, damage, what, says) => {
  const found = at(damage(every(voicePort(sound))), 'sw-a', 6);
  expect(found.works).toBe(false);
  expect(step(found, what)).toMatchObject({ works: false, says: expect.stringMatching(says) });
});

test('a telephone that stays untagged ends in the segment of the computer', () => {
  const found = at(hopped(voicePort(sound), 'sw-a', { announces: 'no' }), 'sw-a', 6);
  expect(found.vlan?.purpose).toBe('staff');
});

test('a telephone with a fixed address hears no options, and is asked as itself', () => {
  const found = at(every(sound), 'sw-a', 4, 'phone');
  expect(step(found, 'Address')?.says).toMatch(/set at the telephone$/);
  expect(step(found, 'Boot server')?.works).toBeNull();
  expect(found.through).toEqual(voiceThrough(sound, deviceNamed(sound, 'phone').id, null));
  expect(interfacesOf(sound, deviceNamed(sound, 'phone').id)).toHaveLength(1);
});

test('hosts, ports and URLs are read; names of the site are its devices', () => {
  const plan = soundAccess();
  const auth = { device: deviceNamed(plan, 'auth').id };
  expect(targetOf(plan, 'auth', 'tftp')).toMatchObject({ to: auth, wanted: { protocol: 'udp', port: 69 } });
  expect(targetOf(plan, 'sips:auth', 'sip')).toMatchObject({
    to: auth,
    wanted: { protocol: 'tcp', port: 5061 },
  });
  expect(targetOf(plan, 'http://198.51.100.7:8080/a', 'tftp')).toMatchObject({
    wanted: { protocol: 'tcp', port: 8080 },
    literal: false,
  });
  expect(targetOf(plan, '198.51.100.7', 'tftp')).toMatchObject({ literal: true });
  expect(targetOf(plan, '[2001:db8::7]:5070', 'sip')).toMatchObject({ wanted: { port: 5070 } });
  expect(targetOf(plan, 'sip.example.net', 'sip')).toMatchObject({ to: { internet: true } });
  for (const wrong of ['', 'auth:x', 'auth:70000', 'gopher://auth', 'a b'])
    expect(targetOf(plan, wrong, 'sip')).toBeNull();
});

test('a switch that announces another voice VLAN: its telephones end where that VLAN leads', () => {
  const port = portNamed(sound, 'sw-a', 6);
  const stray = voiceSwitchAt(sound, port, 77, null);
  expect(stray.telephone.works).toBe(false);
  expect(stray.telephone.vlan?.name).toBe('VLAN 77 (no segment of this site)');
  const cameras = voiceSwitchAt(sound, port, 20, null).telephone;
  expect(step(cameras, 'Voice VLAN')?.says).toMatch(/that is Cameras, no segment for voice$/);
  // At a port that carries it, the right one leads to an address.
  const trunk = done(sound, 'assignPorts', {
    ports: [port.id],
    role: 'trunk',
    vlan: null,
    tagged: [vlanFor(sound, 'voice').id],
  });
  expect(step(voiceSwitchAt(trunk, portNamed(trunk, 'sw-a', 6), 50, null).telephone, 'Address')?.works).toBe(
    true,
  );
  expect(step(voiceSwitchAt(sound, port, 50, null).telephone, 'Address')?.works).toBe(false);
});

test('its announcement is heard by the box, which may set itself by it, and by telephones where a box passes it on', () => {
  const port = portNamed(sound, 'sw-a', 6);
  expect(voiceSwitchAt(sound, port, 77, null).heard).toEqual([
    { title: 'sw-a 6', says: 'hears it and changes nothing', wrong: false },
  ]);
  const willing = put(sound, 'port', port, { setsItself: 'neighbour' });
  expect(voiceSwitchAt(willing, portNamed(willing, 'sw-a', 6), 77, null).heard).toEqual([
    { title: 'sw-a 6', says: expect.stringContaining('VLAN 77 as well'), wrong: true },
  ]);
  const plain = put(sound, 'box', boxOf(sound, deviceNamed(sound, 'sw-a').id)!, {
    vlanAware: false,
    passes: ['lldp'],
  });
  const { heard } = voiceSwitchAt(plain, port, 77, null);
  expect(heard.find(({ title }) => title === 'phone')).toMatchObject({ wrong: true });
  expect(heard.length).toBeGreaterThan(1);
});

test('a rule is offered only where the telephone gets through with it', () => {
  const auth = deviceNamed(sound, 'auth').id;
  const voice = vlanFor(sound, 'voice').id;
  const denied = done(sound, 'addRule', { action: 'deny', from: [{ vlan: voice }], to: [{ device: auth }] });
  const question: ProbeQuestion = {
    from: { vlan: voice },
    to: { device: auth },
    wanted: { protocol: 'udp', port: 5060 },
  };
  const offered = (plan: Plan) => helpfulRemedies(plan, question, probe(plan, question, null), null);
  expect(offered(denied)).toHaveLength(1);
  // Nothing listens there, so the rule would open for nothing.
  expect(offered(listens(denied, 'tcp', 22))).toEqual([]);
});
