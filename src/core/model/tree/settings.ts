import {
  groupBy,
  memo,
  type Plan,
  type Box,
  type BridgeRecord,
  type Instance,
  type StpPort,
} from '../../plan';
import { configurationDigest } from './digest';
import { parseVids } from './ranges';

/** How boxes and ports take part in spanning trees: what is recorded, else what a box does as it comes. */

export type BridgeSettings = Omit<BridgeRecord, 'id' | 'device'>;

/** IEEE 802.1Q-2022 table 13-5: priority 32768, hello 2 s, max age 20 s, forward delay 15 s, 20 hops. */
export const factoryBridge = (mode: Box['spanningTree']): BridgeSettings => ({
  mode,
  priority: 32_768,
  costScale: 'long',
  hello: 2,
  maxAge: 20,
  forwardDelay: 15,
  maxHops: 20,
  region: '',
  revision: 0,
  ringManager: false,
  ringPorts: [],
  recovery: null,
});

export type StpPortSettings = Omit<StpPort, 'id' | 'port' | 'instance'>;
export const factoryStpPort: StpPortSettings = { cost: null, priority: 128, edge: false, guard: 'none' };

export const bridgeRecordOf = (plan: Plan, device: string): BridgeRecord | undefined =>
  plan.bridge.by('device', device).at(-1);

/** What the settings of a box are read off. */
type TreeBox = Pick<Box, 'device' | 'spanningTree'>;

const factories = memo((box: TreeBox) => factoryBridge(box.spanningTree));
export const settingsOf = (plan: Plan, box: TreeBox): BridgeSettings =>
  bridgeRecordOf(plan, box.device) ?? factories(box);

const inOrder = memo((group: ReadonlyMap<string, Instance>): readonly Instance[] =>
  [...group.values()].sort((a, b) => a.number - b.number || (a.id < b.id ? -1 : 1)),
);
/** The instances of a box by number, rising. */
export const instancesOf = (plan: Plan, device: string): readonly Instance[] =>
  inOrder(plan.instance.group(device));

const byNumber = memo((group: ReadonlyMap<string, Instance>) => {
  const found = new Map<number, Instance>();
  for (const item of inOrder(group)) if (!found.has(item.number)) found.set(item.number, item);
  return found;
});
export const instanceOf = (plan: Plan, device: string, number: number): Instance | undefined =>
  byNumber(plan.instance.group(device)).get(number);

export const stpPortRecordsOf = (plan: Plan, port: string): readonly StpPort[] =>
  plan.stpPort.by('port', port);
/** A port in one instance; what is set for the common tree alone says nothing of the others, but for edge and guard. */
export function stpPortOf(plan: Plan, port: string, instance: number): StpPortSettings {
  const records = stpPortRecordsOf(plan, port);
  const own = records.find((record) => record.instance === instance);
  const common = records.find((record) => record.instance === 0);
  return { ...(own ?? factoryStpPort), edge: common?.edge ?? false, guard: common?.guard ?? 'none' };
}

const mapped = memo((group: ReadonlyMap<string, Instance>): ReadonlyMap<number, number> => {
  const map = new Map<number, number>();
  for (const { number, vids } of inOrder(group))
    for (const vid of parseVids(vids) ?? []) if (!map.has(vid)) map.set(vid, number);
  return map;
});
/** Which instance each VLAN is in, where it is not in the common tree; a VLAN named twice is in the first. */
export const vlanMapOf = (plan: Plan, device: string): ReadonlyMap<number, number> =>
  mapped(plan.instance.group(device));

const inverted = memo((group: ReadonlyMap<string, Instance>) =>
  groupBy(mapped(group).keys(), (vid) => mapped(group).get(vid)!),
);
/** The VLAN ids of an instance of a box. */
export const vidsOfInstance = (plan: Plan, device: string, number: number): readonly number[] =>
  inverted(plan.instance.group(device)).get(number) ?? [];

const digests = new Map<string, string>();
const digestOf = memo((group: ReadonlyMap<string, Instance>): string => {
  const key = inOrder(group)
    .map(({ number, vids }) => `${number}:${vids}`)
    .join(' ');
  let digest = digests.get(key);
  if (digest === undefined) {
    if (digests.size > 1000) digests.clear();
    digests.set(key, (digest = configurationDigest(mapped(group))));
  }
  return digest;
});
/** What makes bridges one region (clause 13.8): name, revision and digest of the VLAN map. */
export interface Region {
  readonly name: string;
  readonly revision: number;
  readonly digest: string;
}
export function regionOf(plan: Plan, box: TreeBox): Region {
  const { region, revision } = settingsOf(plan, box);
  const digest = digestOf(plan.instance.group(box.device));
  // A region without a name of its own is called by the bridge’s MAC address (clause 13.8), so it is alone.
  return { name: region === '' ? `(${box.device})` : region, revision, digest };
}
