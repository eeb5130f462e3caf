import {
  type Plan,
  planOf,
  type Box,
  type BridgeRecord,
  type Cable,
  type Device,
  type Instance,
  type Port,
} from '../plan';
import { factoryBridge } from '../model/tree';
import { plainBox, plainPort, plainVlan } from './networks';
import { emptySite } from './plans';

/** Plans of switches joined by links, for tests of trees: every port a trunk with all VLANs. */

export interface Made {
  /** The last octet of its documentation MAC; null for a MAC that is not known. */
  readonly mac?: number | null;
  readonly box?: Partial<Box>;
  readonly bridge?: Partial<BridgeRecord>;
  /** VLAN ids by instance, and the priority there. */
  readonly instances?: Readonly<Record<number, { vids?: string; priority?: number }>>;
}
/** From box and port to box and port. */
export type MadeLink = readonly [string, number, string, number];

export const PORTS_OF_SWITCH = 8;
export const portAt = (box: string, number: number): string => `${box}p${number}`;

export function switches(
  boxes: Readonly<Record<string, Made>>,
  links: readonly MadeLink[],
  vids: readonly number[] = [10, 20],
): Plan {
  const base = emptySite();
  const lan = [...base.lan.values()][0]!;
  const devices: Device[] = [];
  const records: Box[] = [];
  const bridges: BridgeRecord[] = [];
  const instances: Instance[] = [];
  const ports: Port[] = [];
  for (const [name, { mac, box, bridge, instances: trees }] of Object.entries(boxes)) {
    devices.push({ id: name, name, kind: 'switch', firewall: 'unknown' });
    const octet = (mac === undefined ? devices.length : (mac ?? 0))
      .toString(16)
      .toUpperCase()
      .padStart(2, '0');
    const baseMac = mac === null ? null : `00:00:5E:00:53:${octet}`;
    const record = plainBox({ id: `x${name}`, device: name, spanningTree: 'rstp', baseMac, ...box });
    records.push(record);
    if (bridge)
      bridges.push({ ...factoryBridge(record.spanningTree), id: `t${name}`, device: name, ...bridge });
    for (const [number, tree] of Object.entries(trees ?? {}))
      instances.push({
        id: `i${name}${number}`,
        device: name,
        number: Number(number),
        vids: tree.vids ?? '',
        priority: tree.priority ?? 32_768,
      });
    for (let number = 0; number <= PORTS_OF_SWITCH; number++)
      ports.push(
        plainPort({
          id: portAt(name, number),
          device: name,
          number,
          taggedMode: 'all',
          pvid: null,
          untagged: null,
        }),
      );
  }
  const vlans = vids.map((vid, i) =>
    plainVlan({ id: `v${vid}`, lan: lan.id, vid, code: `V${i}`, rank: `a${String(i).padStart(4, '0')}x` }),
  );
  const cables = links.map(([a, from, b, to], i): Cable => ({
    id: `c${i}`,
    from: portAt(a, from),
    fromSide: 'front',
    to: portAt(b, to),
    toSide: 'front',
    media: 'copper',
    length: null,
    label: '',
  }));
  return planOf({
    site: [...base.site.values()],
    lan: [lan],
    vlan: vlans,
    device: devices,
    box: records,
    bridge: bridges,
    instance: instances,
    port: ports,
    cable: cables,
  });
}
