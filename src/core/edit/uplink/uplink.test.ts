import fc from 'fast-check';
import type { Plan, Uplink } from '../../plan';
import { deviceNamed, portNamed, put, vlanFor } from '../../testing/gear';
import { buildInternet, cardOf, damagedInternet, soundInternet, uplinkNamed } from '../../testing/internet';
import { done, prefix } from '../../testing/plans';
import { adviseReach, visitors, ways } from './advise';
import {
  sharesOf,
  survivals,
  switchingOf,
  knownServiceAt,
  forwardsOf,
  listenersOf,
  uplinksOf,
  kindOfAddress,
  letsForwardsIn,
  mssOf,
  mtuOf,
  translatorsOf,
  wayOut,
} from '../../model/uplink';
import { freeOutside, takenBy } from './operations';
import { runs } from '../../testing/runs';

const sound = soundInternet();
const v4 = (text: string) => prefix(`${text}/32`).address;
const v6 = (text: string) => prefix(`${text}/128`).address;
const fibre = (fields: Partial<Uplink>, plan = sound): Plan =>
  put(plan, 'uplink', uplinkNamed(plan, 'fibre'), fields);
const asIs = uplinkNamed(sound, 'fibre');

describe('outside addresses', () => {
  test.each([
    ['203.0.113.9', 'public'],
    ['10.0.0.1', 'private'],
    ['172.31.255.254', 'private'],
    ['172.32.0.1', 'public'],
    ['192.168.1.1', 'private'],
    ['100.63.255.255', 'public'],
    ['100.64.0.0', 'shared'],
    ['100.127.255.255', 'shared'],
    ['100.128.0.0', 'public'],
    ['169.254.3.4', 'private'],
  ])('%s is %s', (text, kind) => expect(kindOfAddress(v4(text))).toBe(kind));
  test('IPv6: unique local is private, global is public', () => {
    expect(kindOfAddress(v6('fd00::1'))).toBe('private');
    expect(kindOfAddress(v6('2001:db8::1'))).toBe('public');
  });
});

describe('what gets in', () => {
  const cases: readonly (readonly [Partial<Uplink>, boolean | null, readonly string[]])[] = [
    [{}, true, []],
    [{ outside: 'unknown' }, null, []],
    [{ outside: 'shared' }, false, ['provider']],
    [{ outside: 'private' }, false, ['somebody']],
    [{ outside: 'public', address: v4('100.70.0.1') }, false, ['provider']],
    [{ upstream: 'routing', outside: 'private' }, false, ['upstream-router']],
    [{ upstream: 'routing', outside: 'private', passes: 'everything' }, true, ['upstream-router']],
    [{ upstream: 'routing', outside: 'private', passes: 'listed' }, true, ['upstream-router']],
    [
      { upstream: 'routing', outside: 'shared', passes: 'everything' },
      false,
      ['upstream-router', 'provider'],
    ],
    [{ noForwards: true }, false, []],
    [{ enabled: false }, false, []],
  ];
  test.each(cases)('%j: %s, translated by %j', (fields, works, translators) => {
    expect(letsForwardsIn({ ...asIs, ...fields }).works).toBe(works);
    expect(translatorsOf({ ...asIs, ...fields })).toEqual(translators);
  });
  test('the way out names each who translates', () => {
    const plan = fibre({ upstream: 'routing', outside: 'shared', providerVlan: 7 });
    expect(
      wayOut(plan, uplinkNamed(plan, 'fibre')).map(({ what, translates }) => [what, translates]),
    ).toEqual([
      ['gw-1 1', true],
      ['provider’s router', true],
      ['provider', true],
    ]);
    expect(wayOut(plan, uplinkNamed(plan, 'fibre'))[0]!.after).toBe('shared address, tagged 7');
  });
});

describe('packet sizes', () => {
  test('RFC 2516: PPPoE leaves 1492 bytes, in which 1452 of TCP fit over IPv4 and 1432 over IPv6', () => {
    const mtu = mtuOf({ addressing: 'pppoe', mtu: null });
    expect([mtu, mssOf(mtu, 4), mssOf(mtu, 6)]).toEqual([1492, 1452, 1432]);
  });
  test('Ethernet: 1500, 1460, 1440; what is set goes before what is usual', () => {
    const mtu = mtuOf({ addressing: 'dhcp', mtu: null });
    expect([mtu, mssOf(mtu, 4), mssOf(mtu, 6)]).toEqual([1500, 1460, 1440]);
    expect(mtuOf({ addressing: 'pppoe', mtu: 1400 })).toBe(1400);
  });
});

describe('several uplinks', () => {
  test('the worst case counts the ping that was just answered, and the wait for the last', () => {
    expect(switchingOf({ monitorEvery: 10, lossesDown: 3, repliesUp: 6 })).toEqual({
      away: 40,
      back: 60,
      arithmetic: '(3 + 1) × 10 s = 40 s away, 6 × 10 s = 60 s back',
    });
  });
  test('the worst case is one: no moment of failure is noticed later', () => {
    const draw = fc.record({
      monitorEvery: fc.integer({ min: 1, max: 60 }),
      lossesDown: fc.integer({ min: 1, max: 10 }),
      repliesUp: fc.integer({ min: 1, max: 10 }),
      failsAt: fc.integer({ min: 0, max: 59_999 }),
    });
    fc.assert(
      fc.property(draw, ({ failsAt, ...rule }) => {
        // Millisecond by ping: sent at 0, every, 2 × every …; lost when the line is down, known when the next is due.
        const every = rule.monitorEvery * 1000;
        const at = failsAt % every;
        let lost = 0;
        for (let sent = 0; ; sent += every) {
          if (sent > at) lost++;
          if (lost === rule.lossesDown) {
            expect((sent + every - at) / 1000).toBeLessThanOrEqual(switchingOf(rule).away);
            break;
          }
        }
      }),
    );
  });
  test('shares by weight add up to 100', () => {
    expect([
      ...sharesOf([
        { id: 'a', weight: 1 },
        { id: 'b', weight: 1 },
        { id: 'c', weight: 1 },
      ]).values(),
    ]).toEqual([34, 33, 33]);
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 256 }), { minLength: 1, maxLength: 9 }), (weights) => {
        const shares = sharesOf(weights.map((weight, i) => ({ id: `u${i}`, weight })));
        expect([...shares.values()].reduce((sum, share) => sum + share, 0)).toBe(100);
      }),
    );
  });
  test('a forward works over the other uplink only when it is recorded there and gets in', () => {
    const over = (plan: Plan) =>
      survivals(plan)
        .find(({ what }) => what === 'tcp 443 to desk')!
        .over.map(({ works }) => works);
    expect(over(sound)).toEqual([true, false]);
    const both = done(sound, 'addForward', {
      uplink: uplinkNamed(sound, 'mobile').id,
      target: cardOf(sound, 'desk').id,
      inside: 443,
    });
    expect(over(both)).toEqual([true, true]);
    expect(over(put(both, 'uplink', uplinkNamed(both, 'mobile'), { outside: 'shared' }))).toEqual([
      true,
      false,
    ]);
  });
  test('a name follows where somebody keeps it; telephones register again where their segment may go out', () => {
    const plan = fibre({ dynamicName: 'site.example.net', updater: asIs.device });
    const rows = new Map(survivals(plan).map(({ what, over }) => [what, over.map(({ works }) => works)]));
    expect(rows.get('the name site.example.net')).toEqual([true, false]);
    const voice = [...plan.vlan.values()].find(({ purpose }) => purpose === 'voice')!;
    expect(rows.get(`telephones in ${voice.name}`)).toEqual([voice.internet, voice.internet]);
  });
  test('an uplink of another router takes nothing over that does not get there', () => {
    let plan = done(sound, 'addDevice', { name: 'gw-2', model: { shelf: 'gateway-6' } });
    const second = deviceNamed(plan, 'gw-2').id;
    plan = done(plan, 'addUplink', { device: second, name: 'second' });
    plan = put(plan, 'uplink', uplinkNamed(plan, 'second'), { outside: 'public', tier: 2 });
    plan = done(plan, 'addForward', {
      uplink: uplinkNamed(plan, 'second').id,
      target: cardOf(plan, 'desk').id,
      inside: 443,
    });
    const at = uplinksOf(plan).findIndex(({ name }) => name === 'second');
    const over = (what: RegExp, now = plan) => survivals(now).find((row) => what.test(row.what))!.over[at]!;
    expect(over(/^tcp 443 to desk$/)).toMatchObject({
      works: false,
      why: 'it is on gw-2, and gw-1 sends nothing there',
    });
    const voice = put(plan, 'vlan', vlanFor(plan, 'voice'), { internet: true });
    expect(over(/^telephones in/, voice).works).toBe(false);
    const item = [...voice.interface.values()].find(({ vlan }) => vlan === vlanFor(voice, 'voice').id)!;
    expect(over(/^telephones in/, put(voice, 'interface', item, { device: second })).works).toBe(true);
  });
  test('a tunnel that the other side opens needs a way in, one bound to an uplink that uplink', () => {
    const over = (plan: Plan) =>
      survivals(plan)
        .find(({ what }) => what === 'the tunnel north')!
        .over.map(({ works }) => works);
    const shared = put(sound, 'uplink', uplinkNamed(sound, 'mobile'), { outside: 'shared' });
    const tunnel = { name: 'north', remote: ['10.60.0.0/16'] };
    expect(over(done(shared, 'addTunnel', tunnel))).toEqual([true, true]);
    const awaited = done(shared, 'addTunnel', { ...tunnel, initiates: false });
    expect(over(awaited)).toEqual([true, false]);
    const [made] = [...awaited.tunnel.values()];
    const bound = done(awaited, 'bindTunnel', { tunnel: made!.id, uplink: uplinkNamed(sound, 'mobile').id });
    expect(over(bound)).toEqual([false, false]);
  });
});

describe('uplinks and forwards', () => {
  test('a new uplink takes the port that waits for it, then the next name and tier', () => {
    expect(
      uplinksOf(sound).map(({ name, tier, port }) => [name, tier, sound.port.get(port!)!.number]),
    ).toEqual([
      ['fibre', 1, 1],
      ['mobile', 2, 6],
    ]);
    const third = done(sound, 'addUplink', {});
    expect(uplinksOf(third).at(-1)).toMatchObject({ name: 'Internet', tier: 3, port: null });
    expect(() => done(sound, 'addUplink', { device: 'nowhere' })).toThrow('no longer in the plan');
  });
  test('a port of another box is refused', () =>
    expect(() =>
      done(sound, 'setUplinkPort', { uplink: asIs.id, port: portNamed(sound, 'sw-a', 1).id }),
    ).toThrow('sw-a 1 is no port of gw-1; choose one of its own.'));
  test('a taken outside port is refused and a free one named', () => {
    const input = { uplink: asIs.id, target: cardOf(sound, 'till').id, inside: 443 };
    expect(() => done(sound, 'addForward', { ...input, from: 443 })).toThrow(
      'tcp 443 on fibre leads to desk already; tcp 8443 is free.',
    );
    const plan = done(sound, 'addForward', input);
    expect(forwardsOf(plan, asIs.id).map(({ from }) => from)).toEqual([443, 8443]);
    // The same number over the other protocol is another port.
    expect(freeOutside(sound, asIs.id, 'udp', 443)).toBe(443);
    expect(freeOutside(sound, asIs.id, 'both', 443)).toBe(8443);
  });
  test('IPv6 is let in by a rule, not by a forward; and it is what a provider delegates', () => {
    const input = { uplink: asIs.id, target: cardOf(sound, 'till').id, inside: 443 };
    const refused =
      '2001:db8::/32 is IPv6, and a forward is for IPv4, which is translated. Let it in by a rule.';
    const [forward] = forwardsOf(sound, asIs.id);
    expect(() => done(sound, 'addForward', { ...input, sources: ['2001:db8::/32'] })).toThrow(refused);
    const edited = { table: 'forward', id: forward!.id, set: { sources: ['192.0.2.0/24', '2001:db8::/32'] } };
    expect(() => done(sound, 'edit', edited)).toThrow(refused);
    const own = { table: 'uplink', id: asIs.id, set: { delegated: '192.0.2.0/24' } };
    expect(() => done(sound, 'edit', own)).toThrow('192.0.2.0/24 is IPv4; a provider delegates IPv6');
    const outside = { table: 'uplink', id: asIs.id, set: { address: '2001:db8::5' } };
    expect(() => done(sound, 'edit', outside)).toThrow(
      '2001:db8::5 is IPv6; the outside address is the IPv4 one that senders are translated to.',
    );
  });
  test('a proposed outside port is never taken', () => {
    fc.assert(
      fc.property(
        damagedInternet,
        fc.integer({ min: 1, max: 65_535 }),
        fc.integer({ min: 1, max: 20 }),
        fc.constantFrom('tcp' as const, 'udp' as const, 'both' as const),
        (damage, wish, count, protocol) => {
          const plan = buildInternet(damage, sound);
          for (const { id } of uplinksOf(plan)) {
            const from = freeOutside(plan, id, protocol, wish, count)!;
            expect(takenBy(plan, id, { protocol, from, to: from + count - 1 })).toEqual([]);
          }
        },
      ),
      { numRuns: runs(100) },
    );
  });
  test('backwards or overflowing ranges name field and remedy', () => {
    const forward = [...sound.forward.values()][0]!;
    const set = (fields: object) => () =>
      done(sound, 'edit', { table: 'forward', id: forward.id, set: fields });
    expect(set({ to: 400 })).toThrow('The last outside port lies before the first; swap them');
    expect(set({ from: 1, to: 1000, inside: 65_000 })).toThrow('would end after 65535');
    expect(set({ inside: 70_000 })).toThrow('The inside port is 70000; write a whole number from 1 to 65535');
  });
  test('an uplink goes with its forwards, a device with its uplinks, listeners and the names it kept', () => {
    expect(done(sound, 'removeUplink', { uplink: asIs.id }).forward.size).toBe(0);
    const offered = done(sound, 'addListener', { device: deviceNamed(sound, 'desk').id, port: 443 });
    const kept = put(offered, 'uplink', asIs, { updater: deviceNamed(sound, 'desk').id });
    const address = [...kept.address.values()].find(
      ({ interface: item }) => item === cardOf(kept, 'desk').id,
    )!;
    const gone = done(kept, 'removeHosts', { addresses: [address.id] });
    expect([gone.forward.size, gone.listener.size, uplinkNamed(gone, 'fibre').updater]).toEqual([0, 0, null]);
  });
  test('a service is named by its port, and listed once', () => {
    const device = deviceNamed(sound, 'cam-1').id;
    const plan = done(sound, 'addListener', { device, port: 554 });
    expect(listenersOf(plan, device)[0]!.name).toBe('RTSP, camera pictures');
    expect(() => done(plan, 'addListener', { device, port: 554, protocol: 'both' })).toThrow(
      'lists tcp 554 already',
    );
    expect(knownServiceAt('udp', 554)).toBeUndefined();
    expect(done(plan, 'removeListener', { listener: listenersOf(plan, device)[0]!.id }).listener.size).toBe(
      0,
    );
  });
});

describe('reaching a device from outside', () => {
  const desk = cardOf(sound, 'desk').id;
  const ask = (plan: Plan, who: (typeof visitors)[number] = 'own people', port = 443) =>
    adviseReach(plan, { target: desk, protocol: 'tcp', port, who });
  test('own people come by VPN first, anybody does not', () => {
    expect(ask(sound)[0]).toMatchObject({ way: 'vpn', works: true });
    expect(ask(sound, 'anybody')[0]).toMatchObject({ way: 'forward', works: true });
    expect(ask(sound)[0]!.needs.join()).toContain('a dynamic name for fibre');
  });
  test('on a shared address only what calls out works, and each other says why not', () => {
    const shared = { outside: 'shared' as const };
    const plan = put(fibre(shared), 'uplink', uplinkNamed(sound, 'mobile'), shared);
    const advice = ask(plan);
    expect(advice.filter(({ works }) => works !== false).map(({ way }) => way)).toEqual(['calls-out']);
    expect(advice.find(({ way }) => way === 'forward')!.why).toContain('shared by customers of the provider');
  });
  test('where nobody knows whether anything gets in, the forward does not say that it works', () => {
    const unknown = { outside: 'unknown' as const };
    const plan = put(fibre(unknown), 'uplink', uplinkNamed(sound, 'mobile'), unknown);
    const forward = ask(plan).find(({ way }) => way === 'forward')!;
    expect(forward.works).toBeNull();
    expect(forward.why).toMatch(/^Not known whether anything gets in on fibre: /);
  });
  test('a device that may call out works also after its own opening, and not where it is cut off', () => {
    const zoned = done(sound, 'startPolicy', { kind: 'office' });
    const { id: vlan } = vlanFor(zoned, 'cameras');
    const shut = put(zoned, 'vlan', zoned.vlan.get(vlan)!, { internet: false });
    const camera = cardOf(shut, 'cam-1').id;
    const advice = (plan: Plan) =>
      adviseReach(plan, { target: camera, protocol: 'tcp', port: 554, who: 'own people' }).find(
        ({ way }) => way === 'calls-out',
      )!;
    expect(advice(shut).works).toBe(false);
    const uplink = uplinkNamed(shut, 'fibre').id;
    const input = { way: 'calls-out', uplink, target: camera, protocol: 'tcp', port: 554 };
    expect(advice(done(shut, 'takeWay', input)).works).toBe(true);
  });
  test('without an uplink nothing works', () => {
    const cut = uplinksOf(sound).reduce((plan, { id }) => done(plan, 'removeUplink', { uplink: id }), sound);
    expect(ask(cut).map(({ works }) => works)).toEqual([false, false, false, false]);
  });
  test('every way is there once, those that work before those that do not', () => {
    fc.assert(
      fc.property(damagedInternet, fc.constantFrom(...visitors), (damage, who) => {
        const plan = buildInternet(damage, sound);
        if (!plan.interface.get(desk)) return;
        const advice = ask(plan, who);
        expect(advice.map(({ way }) => way).sort()).toEqual([...ways].sort());
        const works = advice.map((item) => item.works !== false);
        expect(works).toEqual([...works].sort((a, b) => Number(b) - Number(a)));
        for (const { way, works: can, uplink } of advice)
          if (way === 'forward' && can === true)
            expect(letsForwardsIn(plan.uplink.get(uplink!)!).works).toBe(true);
      }),
      { numRuns: runs(200) },
    );
  });
  test('taking a forward makes the records: the forward, the name, who keeps it', () => {
    const input = { uplink: asIs.id, target: cardOf(sound, 'till').id, protocol: 'tcp', port: 8883 };
    const plan = done(sound, 'takeForward', { ...input, name: 'till.example.net' });
    expect(uplinkNamed(plan, 'fibre')).toMatchObject({
      dynamicName: 'till.example.net',
      updater: asIs.device,
    });
    expect(forwardsOf(plan, asIs.id).at(-1)).toMatchObject({ from: 8883, inside: 8883 });
    expect(() => done(sound, 'takeForward', { ...input, name: 'no name' })).toThrow(
      '“no name” is not a name in the DNS; write one like site.example.net.',
    );
  });
});
