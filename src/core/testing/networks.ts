import fc from 'fast-check';
import { type Box, type Cable, type Device, type Port, type Vlan, type Plan, planOf } from '../plan';
import { blankBox, blankPort } from '../model/wiring';
import { emptySite } from './plans';

/** Networks of boxes, panels and end devices for property tests: drawn as small numbers, with every kind of mistake. */

export const plainBox = (fields: Partial<Box> & Pick<Box, 'id' | 'device'>): Box => ({
  ...blankBox,
  model: 'test box',
  vlanAware: true,
  vlanLimit: null,
  mixesTags: true,
  passes: [],
  layer3: false,
  filter: 'none',
  spanningTree: 'none',
  snooping: false,
  dot1x: false,
  factory: 'default-vlan',
  poeBudget: null,
  powerFeeds: 1,
  ...fields,
});

export const plainPort = (fields: Partial<Port> & Pick<Port, 'id' | 'device' | 'number'>): Port => ({
  ...blankPort,
  role: 'trunk',
  ingressFilter: true,
  column: fields.number,
  media: fields.number === 0 ? 'inner' : 'copper',
  ...fields,
});

export const plainVlan = (
  fields: Partial<Vlan> & Pick<Vlan, 'id' | 'lan' | 'vid' | 'code' | 'rank'>,
): Vlan => ({
  name: `Segment ${fields.vid}`,
  colour: '#2d7d3a',
  purpose: 'staff',
  internet: false,
  devices: 1,
  growth: 0,
  transient: null,
  ...fields,
});

const VLANS = 4;
/** Ports of a drawn box: the inner one and these. */
export const PORTS = 5;

const drawnPort = fc.record({
  role: fc.constantFrom('access', 'trunk', 'trunk', 'trunk', 'parked', 'undecided') as fc.Arbitrary<
    Port['role']
  >,
  pvid: fc.option(fc.nat(VLANS - 1), { freq: 4 }),
  untagged: fc.option(fc.nat(VLANS - 1), { freq: 4 }),
  taggedMode: fc.constantFrom('list', 'list', 'all', 'except') as fc.Arbitrary<Port['taggedMode']>,
  tagged: fc.uniqueArray(fc.nat(VLANS - 1), { maxLength: VLANS }),
  accepts: fc.constantFrom('all', 'all', 'tagged', 'untagged') as fc.Arbitrary<Port['accepts']>,
  ingressFilter: fc.boolean(),
  enabled: fc.boolean().map((off) => !off || off),
});

const drawnBox = fc.record({
  vlanAware: fc.constantFrom(true, true, true, false),
  factory: fc.constantFrom('default-vlan', 'every-vlan', 'by-neighbour') as fc.Arbitrary<Box['factory']>,
  ports: fc.array(drawnPort, { minLength: PORTS + 1, maxLength: PORTS + 1 }),
});

/** Ends of cables: a port of a box, of a panel (either side) or of an end device. */
const drawnEnd = fc.record({ at: fc.nat(40), rear: fc.boolean() });

export const drawnNetwork = fc.record({
  boxes: fc.array(drawnBox, { minLength: 1, maxLength: 5 }),
  panels: fc.nat(2),
  cables: fc.array(fc.tuple(drawnEnd, drawnEnd), { minLength: 4, maxLength: 20 }),
});
type DrawnNetwork = typeof drawnNetwork extends fc.Arbitrary<infer T> ? T : never;

export function network({ boxes, panels, cables }: DrawnNetwork): Plan {
  const base = emptySite();
  const lan = [...base.lan.values()][0]!;
  const vlans = Array.from({ length: VLANS }, (_, i) =>
    plainVlan({ id: `v${i}`, lan: lan.id, vid: i === 0 ? 1 : i * 10, code: `V${i}`, rank: `a${i}x` }),
  );
  const devices: Device[] = [];
  const records: Box[] = [];
  const ports: Port[] = [];
  boxes.forEach((box, b) => {
    devices.push({ id: `b${b}`, name: `box-${b}`, kind: 'switch', firewall: 'unknown' });
    records.push(plainBox({ id: `x${b}`, device: `b${b}`, vlanAware: box.vlanAware, factory: box.factory }));
    box.ports.forEach(({ pvid, untagged, tagged, ...port }, number) =>
      ports.push(
        plainPort({
          id: `b${b}p${number}`,
          device: `b${b}`,
          number,
          ...port,
          pvid: pvid === null ? null : `v${pvid}`,
          untagged: untagged === null ? null : `v${untagged}`,
          tagged: port.taggedMode === 'all' ? [] : tagged.sort().map((vlan) => `v${vlan}`),
        }),
      ),
    );
  });
  for (let p = 0; p < panels; p++) {
    devices.push({ id: `p${p}`, name: `panel-${p}`, kind: 'patch-panel', firewall: 'unknown' });
    for (let number = 1; number <= 3; number++)
      ports.push(plainPort({ id: `p${p}n${number}`, device: `p${p}`, number }));
  }
  for (let e = 0; e < 4; e++) {
    devices.push({ id: `e${e}`, name: `end-${e}`, kind: 'computer', firewall: 'unknown' });
    ports.push(plainPort({ id: `e${e}n1`, device: `e${e}`, number: 1 }));
  }
  const outer = ports.filter((port) => port.number > 0);
  const end = ({ at, rear }: { at: number; rear: boolean }) => {
    const port = outer[at % outer.length]!;
    return {
      port: port.id,
      side: rear && port.device.startsWith('p') ? ('rear' as const) : ('front' as const),
    };
  };
  const laid = cables.flatMap(([a, b], i): Cable[] => {
    const [from, to] = [end(a), end(b)];
    if (from.port === to.port) return [];
    const sides = { from: from.port, fromSide: from.side, to: to.port, toSide: to.side };
    return [{ id: `c${i}`, ...sides, media: 'copper', length: null, label: '' }];
  });
  return planOf({
    site: [...base.site.values()],
    lan: [lan],
    vlan: vlans,
    device: devices,
    box: records,
    port: ports,
    cable: laid,
  });
}
