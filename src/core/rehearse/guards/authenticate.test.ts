import { type Access, type Plan, type RadiusServer, interfacesOf } from '../../plan';
import { deviceNamed, portNamed, put, vlanFor } from '../../testing/gear';
import { listens, onAir, soundAccess, withAccess, withServer } from '../../testing/access';
import { done } from '../../testing/plans';
import { type Authentication, type Circumstances, authenticate } from './authenticate';

import { otherWays, serverWays } from './server-ways';
import { unasked } from './unasked';

const sound = soundAccess();
const usual: Circumstances = { servers: 'as planned', credentials: 'good' };
const met = (
  plan: Plan,
  [name, number]: readonly [string, number],
  device: string | null,
  circumstances: Partial<Circumstances> = {},
): Authentication =>
  authenticate(
    plan,
    portNamed(plan, name, number).id,
    device === null ? null : deviceNamed(plan, device).id,
    {
      ...usual,
      ...circumstances,
    },
  )!;
const access = (fields: Partial<Access>, plan = sound): Plan => withAccess(plan, fields);
const server = (fields: Partial<RadiusServer>, plan = sound): Plan => withServer(plan, fields);
const said = ({ outcome, vlan, after }: Authentication) => [outcome, vlan?.name ?? null, after];

describe('a device at a port that asks', () => {
  test('answers 802.1X and is let in at once, in the segment of its address', () => {
    const one = met(sound, ['sw-b', 3], 'leased');
    expect(said(one)).toEqual(['let in', 'Staff', 0]);
    expect(one.lines.map(({ from, what }) => `${from} ${what}`)).toEqual([
      'box link up',
      'box EAP-Request/Identity',
      'device EAP-Response/Identity',
      'box Access-Request',
      'server Access-Accept',
    ]);
  });

  test('known by its MAC address only waits until 802.1X was asked in vain: questions times seconds', () => {
    expect(said(met(sound, ['sw-a', 3], 'cam-1'))).toEqual(['let in', 'Cameras', 20]);
    const slow = access({ period: 30, tries: 3 });
    const one = met(slow, ['sw-a', 3], 'cam-1');
    expect(said(one)).toEqual(['let in', 'Cameras', 90]);
    expect(one.late).toBe(true);
    // With the MAC address first nobody waits.
    expect(said(met(access({ methods: 'mac-dot1x' }), ['sw-a', 3], 'cam-1'))).toEqual([
      'let in',
      'Cameras',
      0,
    ]);
  });

  test('known by a MAC address that nobody recorded is refused', () => {
    const [card] = interfacesOf(sound, deviceNamed(sound, 'cam-1').id);
    const unknown = put(sound, 'interface', card!, { mac: null });
    expect(said(met(unknown, ['sw-a', 3], 'cam-1'))).toEqual(['refused', 'Guests', 20]);
  });

  test('a telephone ends in the segment that is announced to it', () => {
    expect(said(met(sound, ['sw-a', 4], 'phone'))).toEqual(['let in', 'Voice', 20]);
  });

  test('with a wrong password, or unknown to the server, is refused', () => {
    expect(said(met(sound, ['sw-b', 3], 'leased', { credentials: 'bad' }))).toEqual(['refused', 'Guests', 0]);
    expect(said(met(sound, ['sw-b', 3], null))).toEqual(['refused', 'Guests', 0]);
    const shut = met(access({ failed: null }), ['sw-b', 3], null);
    expect(said(shut)).toEqual(['refused', null, 0]);
    expect(shut.why).toBe('no segment is set for it, so it is kept out');
  });

  test('that never speaks first ends where nobody answers', () => {
    const mute = done(sound, 'setIdentity', { devices: [deviceNamed(sound, 'cam-1').id], by: 'neither' });
    expect(said(met(mute, ['sw-a', 3], 'cam-1'))).toEqual(['no answer', 'Guests', 20]);
  });

  test('while no server answers, waits tries times timeout for each of them', () => {
    const silent = { servers: 'silent' } as const;
    expect(said(met(sound, ['sw-b', 3], 'leased', silent))).toEqual(['no server', 'Staff', 9]);
    // After 802.1X was asked in vain comes the wait for the server.
    expect(said(met(server({ timeout: 20 }), ['sw-a', 3], 'cam-1', silent))).toEqual([
      'no server',
      'Staff',
      80,
    ]);
    expect(said(met(access({ critical: null }), ['sw-b', 3], 'leased', silent))).toEqual([
      'no server',
      null,
      9,
    ]);
  });

  test('asked at a port on which the server does not listen, or behind a shut cable, the server is silent', () => {
    const listed = listens(sound, 'udp', 1812);
    expect(said(met(listed, ['sw-b', 3], 'leased'))).toEqual(['let in', 'Staff', 0]);
    const old = met(server({ port: 1645 }, listed), ['sw-b', 3], 'leased');
    expect(said(old)).toEqual(['no server', 'Staff', 9]);
    expect(old.lines.find(({ what }) => what === 'gives up on it')!.detail).toMatch(
      /nothing there listens on udp 1645/,
    );
    const cut = put(sound, 'port', portNamed(sound, 'sw-b', 4), { enabled: false });
    expect(serverWays(cut, deviceNamed(cut, 'sw-a').id, { group: '' })[0]!.why).not.toBeNull();
  });

  test('a port that only watches keeps nobody out', () => {
    const watching = access({ mode: 'watch', failed: null, guest: null, critical: null });
    expect(said(met(watching, ['sw-b', 3], null))).toEqual(['refused', 'Staff', 0]);
    expect(said(met(watching, ['sw-b', 3], 'leased', { servers: 'silent' }))).toEqual([
      'no server',
      'Staff',
      9,
    ]);
  });

  test('a segment that the box does not carry lets nobody anywhere', () => {
    const away = access({ failed: vlanFor(sound, 'parking').id });
    expect(met(away, ['sw-b', 3], null).why).toMatch(/^sw-b does not carry VLAN \d+ .*, so it is kept out$/);
  });

  test('a port that asks nobody has nothing to rehearse', () =>
    expect(authenticate(sound, portNamed(sound, 'sw-b', 1).id, null, usual)).toBeNull());

  test('behind a telephone it is for the host mode to say who else is let in', () => {
    const behind = ['sw-a', 4] as const;
    expect(said(met(sound, behind, 'leased'))).toEqual(['let in', 'Staff', 0]);
    const one = met(access({ hosts: 'one' }), behind, 'leased');
    expect(said(one)).toEqual(['one too many', null, 0]);
    expect(one.lines.at(-1)!.detail).toBe('it lets one device in, and phone is there');
    // After the telephone nobody is asked: a stranger walks in.
    expect(said(met(access({ hosts: 'all' }), behind, null))).toEqual(['let in', 'Staff', 0]);
    expect(said(met(access({ hosts: 'each' }), behind, null))).toEqual(['refused', 'Guests', 0]);
    expect(said(met(access({ hosts: 'one' }), behind, 'phone'))).toEqual(['let in', 'Voice', 20]);
  });
});

describe('ways between boxes and servers', () => {
  const box = deviceNamed(sound, 'sw-a').id;
  test('accounting goes to the server, a change comes from it', () => {
    expect(
      otherWays(sound, box, { group: '', accounting: true }).map(({ purpose, port, why }) => [
        purpose,
        port,
        why,
      ]),
    ).toEqual([
      ['accounting', 1813, null],
      ['change', 3799, null],
    ]);
    const quiet = server({ change: null });
    expect(otherWays(quiet, box, { group: '', accounting: false })).toEqual([]);
    expect(serverWays(sound, box, { group: 'another' })).toEqual([]);
  });
});

describe('ports that must not ask', () => {
  const at = (plan: Plan, name: string, number: number) => unasked(plan, portNamed(plan, name, number));
  test('lead to boxes, to access points, to the server, to who never speaks first', () => {
    expect(at(sound, 'sw-a', 9)).toMatchObject({ kind: 'box', why: 'sw-b passes on what others say' });
    expect(at(sound, 'sw-a', 2)).toMatchObject({ kind: 'box', why: 'ap passes on what others say' });
    expect(at(onAir(), 'sw-a', 2)).toMatchObject({
      kind: 'networks',
      why: 'ap brings people of 2 networks',
    });
    expect(at(sound, 'sw-b', 4)).toMatchObject({ kind: 'server' });
    const mute = done(sound, 'setIdentity', { devices: [deviceNamed(sound, 'cam-1').id], by: 'neither' });
    expect(at(mute, 'sw-a', 3)).toMatchObject({
      kind: 'mute',
      instead: 'a MAC limit of one, and a segment of its own',
    });
    for (const [name, number] of [
      ['sw-a', 3],
      ['sw-a', 4],
      ['sw-b', 3],
      ['sw-b', 7],
    ] as const)
      expect(at(sound, name, number)).toBeNull();
  });
});
