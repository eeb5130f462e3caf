import { readFileSync } from 'node:fs';
import path from 'node:path';
import { formatAddress, parseMac } from '../../address';
import { readPlanFile } from '../../formats';
import { type Plan, addressesOn, boxOf, devicesNamed, interfacesOf } from '../../plan';
import { portsOf } from '../../model/wiring';
import { behind } from '../../rehearse';
import { foundAgainst } from './compare';
import type { FoundAt, FoundRow } from './row';
import { readFound } from './sniff';
import { done } from '../../testing/plans';

const demo = (name: string) =>
  readPlanFile(readFileSync(path.join(process.cwd(), 'demo', `${name}.json`), 'utf8'));
const clinic = demo('2-clinic');
const at = (text: string, box: string | null = null): FoundAt => ({
  ...readFound(text),
  box: box === null ? null : devicesNamed(clinic, box)[0]!.id,
});
const compared = (...lists: FoundAt[]) => foundAgainst(clinic, lists);
const device = (name: string) => devicesNamed(clinic, name)[0]!;
const taken = ({ take }: FoundRow): Plan => done(clinic, take!.call.operation, take!.call.input);
const macOf = (name: string) => interfacesOf(clinic, device(name).id).find(({ mac }) => mac)!.mac!;
const addressOf = (name: string) =>
  formatAddress(
    interfacesOf(clinic, device(name).id).flatMap(({ id }) => addressesOn(clinic, id))[0]!.address,
  );

describe('lists are understood as what they are', () => {
  const MAC = '00:00:5E:00:53:31';
  test.each([
    [
      'leases',
      'leases',
      `1796040000 00:00:5e:00:53:31 192.0.2.31 pump-1 01:00:00:5e:00:53:31\nduid 00:01:00:01`,
    ],
    [
      'leases in blocks',
      'leases',
      `lease 192.0.2.31 {\n  starts 1 2026/11/30 08:00:00;\n  binding state active;\n  hardware ethernet 00:00:5e:00:53:31;\n  client-hostname "pump-1";\n}\nlease 192.0.2.32 {\n  binding state free;\n  hardware ethernet 00:00:5e:00:53:32;\n}`,
    ],
    [
      'neighbours of a kernel',
      'neighbours',
      `192.0.2.31 dev eth0 lladdr 00:00:5e:00:53:31 REACHABLE\n192.0.2.40 dev eth0  FAILED\nfe80::1 dev eth0 lladdr 00:00:5e:00:53:01 router STALE`,
    ],
    ['neighbours in brackets', 'neighbours', `? (192.0.2.31) at 0:0:5e:0:53:31 on en0 ifscope [ethernet]`],
    [
      'neighbours as a table',
      'neighbours',
      `Address                  HWtype  HWaddress           Flags Mask            Iface\n192.0.2.31               ether   00:00:5e:00:53:31   C                     eth0\n192.0.2.40                       (incomplete)                              eth0`,
    ],
    [
      'neighbours of the proc file system',
      'neighbours',
      `IP address       HW type     Flags       HW address            Mask     Device\n192.0.2.31       0x1         0x2         00:00:5e:00:53:31     *        eth0`,
    ],
    [
      'a scan',
      'scan',
      `Any scan report for pump-1.example.net (192.0.2.31)\nHost is up (0.0010s latency).\nMAC Address: 00:00:5E:00:53:31 (Unknown)`,
    ],
    ['CSV', 'table', `Host name;IP address;MAC address\npump-1;192.0.2.31;00-00-5e-00-53-31`],
    ['a table without heads', 'table', `192.0.2.31\t0000.5e00.5331\tsomebody`],
    [
      'JSON of a kernel',
      'table',
      `[{"dst":"192.0.2.31","dev":"eth0","lladdr":"00:00:5e:00:53:31","state":["STALE"]}]`,
    ],
    [
      'JSON with a head',
      'table',
      `{"leases":[{"ip-address":"192.0.2.31","hw-address":"00:00:5e:00:53:31"}]}`,
    ],
  ])('%s', (_, kind, text) => {
    const found = readFound(text);
    expect(found.kind).toBe(kind);
    expect(found.sightings.map(({ mac, address }) => [mac, address && formatAddress(address)])).toEqual([
      [MAC, '192.0.2.31'],
    ]);
  });

  test('a MAC table, without the cards of the box itself and without groups', () => {
    const found = readFound(
      '00:00:5e:00:53:31 dev swp5 vlan 20 master br0 \n00:00:5e:00:53:01 dev swp5 vlan 20 master br0 permanent\n33:33:00:00:00:01 dev swp5 self permanent\n01:00:5e:00:00:01 dev swp6 vlan 20 master br0',
    );
    expect(found.kind).toBe('mac-table');
    expect(found.sightings.map(({ mac, port, vid }) => [mac, port, vid])).toEqual([[MAC, 'swp5', 20]]);
    expect(found.skipped).toEqual([
      { line: 4, why: '01:00:5E:00:00:01 is no address of a single network card' },
    ]);
    const json = readFound(
      '[{"mac":"00:00:5e:00:53:31","ifname":"swp5","vlan":20,"flags":[],"state":""},{"mac":"00:00:5e:00:53:01","ifname":"swp5","state":"permanent"}]',
    );
    expect(json).toMatchObject({ kind: 'mac-table', sightings: [{ mac: MAC, port: 'swp5', vid: 20 }] });
    const table = readFound('VLAN  MAC address        Port\n20    0000.5e00.5331     5');
    expect(table).toMatchObject({ kind: 'mac-table', sightings: [{ mac: MAC, port: '5', vid: 20 }] });
  });

  test('the addresses of a box', () => {
    const found = readFound('lo UNKNOWN 127.0.0.1/8 ::1/128\nlan0@if2 UP 192.0.2.1/24 fe80::1/64');
    expect(found.kind).toBe('interfaces');
    expect(found.sightings.map(({ port, address }) => [port, formatAddress(address!)])).toEqual([
      ['lan0@if2', '192.0.2.1'],
    ]);
  });

  test.each([
    ['', /no list that is understood/],
    ['Dear colleague,\nplease call me back.', /no list that is understood/],
    ['[{"dst":"192.0.2.31","lladdr":"00:00:5e', /does not end like it; copy all of it/],
    ['{"answer":42}', /JSON without a list/],
    ['name,mac\npump-1,00:00:5e:00:53', /line 2: “00:00:5e:00:53” is no MAC address/],
    ['mac,vlan\n00:00:5e:00:53:31,9999', /line 2: “9999” is no VLAN id; it is a number from 1 to 4094/],
    ['x'.repeat(2_000_001), /longer than two million characters/],
  ])('what is none is refused with why: %#', (text, message) => {
    expect(() => readFound(text)).toThrow(message);
  });

  test('half a row is passed over with its line, and the rest is read', () => {
    const found = readFound('mac,ip\n00:00:5e:00:53:31,192.0.2.31\n00:00:5e:00:53:32,192.0.2');
    expect(found.sightings).toHaveLength(1);
    expect(found.skipped).toEqual([{ line: 3, why: '“192.0.2” is no IP address' }]);
  });
});

/** Everything that a site as planned would show: neighbours everywhere, and the MAC table of every box. */
function shownBy(plan: Plan): FoundAt[] {
  const cards = [...plan.interface.values()].filter(({ mac }) => mac !== null);
  const neighbours = cards.flatMap((card) =>
    addressesOn(plan, card.id).map(
      ({ address }) => `${formatAddress(address)} dev lan0 lladdr ${card.mac} REACHABLE`,
    ),
  );
  const tables = [...plan.box.values()].flatMap(({ device: box }): FoundAt[] => {
    const lines = portsOf(plan, box).flatMap((port) =>
      cards
        .filter((card) => port.number > 0 && behind(plan, port).includes(card.device))
        .map(({ mac }) => `${mac} dev swp${port.number} master br0`),
    );
    return lines.length > 0 ? [{ ...readFound(lines.join('\n')), box }] : [];
  });
  return [{ ...readFound(neighbours.join('\n')), box: null }, ...tables];
}

test.each(['1-row-house', '2-clinic', '3-creamery'])(
  '%s: a site that is as planned shows nothing otherwise, but for what the plan itself gives twice',
  (name) => {
    const plan = demo(name);
    const rows = foundAgainst(plan, shownBy(plan));
    expect(rows.filter(({ verdict }) => verdict !== 'as planned')).toEqual([]);
    expect(rows.length).toBeGreaterThan(20);
  },
);

describe('what is otherwise is named, worst first', () => {
  const first = (...lists: FoundAt[]) => compared(...lists)[0]!;

  test('somebody at the address of another', () => {
    const row = first(at(`${addressOf('printer-01')} dev lan0 lladdr 00:00:5e:00:53:f1 REACHABLE`));
    expect(row).toMatchObject({
      verdict: 'address of another',
      planned: `printer-01, ${macOf('printer-01')}`,
    });
  });

  test('a device with an address of its segment that nobody has is taken into the plan', () => {
    const row = first(at(`10.20.20.77 dev lan0 lladdr ${macOf('printer-01')} REACHABLE`));
    expect(row).toMatchObject({ verdict: 'other address', who: 'printer-01', found: '10.20.20.77' });
    const plan = taken(row);
    const own = interfacesOf(plan, device('printer-01').id).flatMap(({ id }) => addressesOn(plan, id));
    expect(own.map(({ address }) => formatAddress(address))).toContain('10.20.20.77');
    expect(
      foundAgainst(plan, [at(`10.20.20.77 dev lan0 lladdr ${macOf('printer-01')} STALE`)])[0]!.verdict,
    ).toBe('as planned');
  });

  test('a device in another segment, by its address and by the VLAN it shows in, is no change of the plan', () => {
    const byAddress = first(at(`10.20.80.77 dev lan0 lladdr ${macOf('printer-01')} REACHABLE`));
    expect(byAddress).toMatchObject({ verdict: 'other segment', take: null });
    const byVlan = first(at(`mac,vlan\n${macOf('printer-01')},80`));
    expect(byVlan).toMatchObject({ verdict: 'other segment', found: 'VLAN 80', take: null });
  });

  test('a device at another port: its plug is planned there, and only where nothing else hangs on the port', () => {
    const { id } = device('printer-01');
    const box = [...clinic.box.values()]
      .map((item) => clinic.device.get(item.device)!)
      .find(
        (item) =>
          item.kind === 'switch' && portsOf(clinic, item.id).some((port) => behind(clinic, port)[0] === id),
      )!;
    const free = portsOf(clinic, box.id).find(
      (port) => port.number > 0 && behind(clinic, port).length === 0,
    )!;
    const row = first(at(`${macOf('printer-01')} dev swp${free.number} vlan 20 master br0`, box.name));
    expect(row).toMatchObject({
      verdict: 'other port',
      who: 'printer-01',
      found: `${box.name} ${free.number}`,
    });
    const plan = taken(row);
    expect(
      behind(
        plan,
        portsOf(plan, box.id).find((port) => port.number === free.number)!,
      ),
    ).toContain(id);
    const link = portsOf(clinic, box.id).find(
      (port) =>
        port.number > 0 &&
        behind(clinic, port).some((other) => boxOf(clinic, other)) &&
        !behind(clinic, port).includes(id),
    )!;
    const far = first(at(`${macOf('printer-01')} dev swp${link.number} vlan 20 master br0`, box.name));
    expect(far).toMatchObject({ verdict: 'other port', take: null });
  });

  test('a port goes by its label before its number', () => {
    const box = device('sw-rack');
    const [five] = portsOf(clinic, box.id).filter(({ number }) => number === 5);
    const plan = done(clinic, 'edit', { table: 'port', id: five!.id, set: { label: 'desk 2' } });
    const list = { ...readFound('mac,port\n00:00:5e:00:53:f2,Desk 2'), box: box.id };
    expect(foundAgainst(plan, [list])).toMatchObject([{ verdict: 'unknown', found: 'sw-rack 5' }]);
  });

  test('a stranger is added where it is, or by a fixed address of its own where it was leased one', () => {
    const still = first(at('10.20.30.77 dev lan0 lladdr 00:00:5e:00:53:f2 REACHABLE'));
    expect(still).toMatchObject({ verdict: 'unknown', planned: 'nobody' });
    expect(still.take!.call.input).toMatchObject({ address: '10.20.30.77', mac: '00:00:5E:00:53:F2' });
    const [pool] = [...clinic.pool.values()].filter(({ start }) =>
      formatAddress(start).startsWith('10.20.20.'),
    );
    const leased = first(at(`1796040000 00:00:5e:00:53:f3 ${formatAddress(pool!.start)} tablet *`));
    expect(leased).toMatchObject({ verdict: 'unknown', found: `${formatAddress(pool!.start)}, leased` });
    const plan = taken(leased);
    const [tablet] = devicesNamed(plan, 'tablet');
    expect(interfacesOf(plan, tablet!.id).map(({ mac }) => mac)).toEqual([parseMac('00:00:5e:00:53:f3')]);
  });

  test('an address of the pool without a lease, where the leases are known', () => {
    const [pool] = [...clinic.pool.values()].filter(({ start }) =>
      formatAddress(start).startsWith('10.20.20.'),
    );
    const start = formatAddress(pool!.start);
    const end = formatAddress(pool!.end);
    const leases = at(`1796040000 00:00:5e:00:53:f3 ${start} tablet *`);
    const neighbours = at(
      `${end} dev lan0 lladdr 00:00:5e:00:53:f4 REACHABLE\n${start} dev lan0 lladdr 00:00:5e:00:53:f3 REACHABLE`,
    );
    const rows = compared(leases, neighbours);
    expect(rows.filter(({ verdict }) => verdict === 'in the pool').map(({ found }) => found)).toEqual([end]);
    expect(compared(neighbours).some(({ verdict }) => verdict === 'in the pool')).toBe(false);
  });

  test('a second DHCP server, and an address of a network nobody planned', () => {
    const rows = compared(
      at(
        'server,address,mac\n192.168.1.1,192.168.1.100,00:00:5e:00:53:f5\n10.20.20.1,10.20.20.130,00:00:5e:00:53:f6',
      ),
    );
    expect(rows[0]).toMatchObject({ verdict: 'second server', take: null });
    expect(rows[0]!.sentence).toBe('A second DHCP server answers: 192.168.1.1, nobody planned.');
    expect(rows.filter(({ verdict }) => verdict === 'second server')).toHaveLength(1);
    expect(rows.some(({ verdict, found }) => verdict === 'other network' && found === '192.168.1.100')).toBe(
      true,
    );
  });

  test('a MAC address that was not recorded is recorded', () => {
    const bare = [...clinic.interface.values()].find(
      ({ id, mac }) => mac === null && addressesOn(clinic, id).length === 1,
    )!;
    const [own] = addressesOn(clinic, bare.id);
    const row = first(at(`${formatAddress(own!.address)} dev lan0 lladdr 00:00:5e:00:53:f7 STALE`));
    expect(row.verdict).toBe('not recorded');
    expect(taken(row).interface.get(bare.id)!.mac).toBe('00:00:5E:00:53:F7');
  });

  test('an address on the wrong box', () => {
    const rows = compared(at(`lan0 UP ${addressOf('ap-01')}/24`, 'ap-02'));
    expect(rows).toMatchObject([{ verdict: 'address of another', who: 'ap-02', planned: 'ap-01 has it' }]);
    expect(compared(at(`lan0 UP ${addressOf('ap-02')}/24`, 'ap-02'))).toMatchObject([
      { verdict: 'as planned' },
    ]);
  });
});
