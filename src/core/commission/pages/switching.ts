import { type Plan, type Port, kinds, pick } from '../../plan';
import { type Bridge, portsOf, rangeText } from '../../model/wiring';
import {
  bridgeRecordOf,
  factoryBridge,
  factoryStpPort,
  instancesOf,
  stpPortRecordsOf,
} from '../../model/tree';
import type { BoxState } from '../state';
import { sameFacts } from '../steps';
import { factsText } from '../words';
import { type SettingLine, changedLines, differing, inOneLine, line } from './page';

/** VLANs, ports and trees of a box. */

export const vlanLines = (plan: Plan, now: BoxState, then: BoxState): SettingLine[] =>
  [...then.vids]
    .filter((vid) => !now.vids.has(vid))
    .sort((a, b) => a - b)
    .map((vid) => line(`VLAN ${vid}`, [...plan.vlan.values()].find((vlan) => vlan.vid === vid)?.name ?? ''));

/** Ports as on the case, with what they are called inside where that differs. */
function portsText(ports: readonly Port[]): string {
  const inside = ports.map(({ number, name, index }) =>
    [name, index === null || index === number ? '' : `index ${index}`].filter(Boolean).join(', '),
  );
  const called = inside.some(Boolean) ? ` (inside: ${inside.map((one) => one || '–').join('; ')})` : '';
  return `${ports.length > 1 ? 'Ports' : 'Port'} ${rangeText(ports)}${called}`;
}

/** Every port that is set otherwise, those set alike together. */
export function portLines(plan: Plan, now: BoxState, then: BoxState, former: Plan | null): SettingLine[] {
  const { ports, facts, device } = then.bridge;
  const alike = new Map<string, Port[]>();
  ports.forEach(({ id, number }, at) => {
    if (number <= 0 || sameFacts(now.bridge.facts[at]!, facts[at]!)) return;
    const port = plan.port.get(id)!;
    const voice = port.voice === null ? '' : `, VLAN ${plan.vlan.get(port.voice)!.vid} told to telephones`;
    const own = facts[at];
    const text = own ? `${factsText(own)}${voice}` : 'off';
    alike.set(text, [...(alike.get(text) ?? []), port]);
  });
  const [named, was] = [namedLines(plan, device), former ? namedLines(former, device) : []];
  return [...[...alike].map(([text, group]) => line(portsText(group), text)), ...changedLines(was, named)];
}

/** Bundles and labels of ports. */
function namedLines(plan: Plan, device: string): SettingLine[] {
  const bundles = [...plan.lag.group(device).values()].map(({ id, name, lacp }) => {
    const members = portsOf(plan, device).filter(({ lag }) => lag === id);
    return line(`Bundle ${name}`, `ports ${rangeText(members)}, ${lacp ? 'LACP' : 'without LACP'}`);
  });
  const labels = portsOf(plan, device).flatMap(({ number, label }) =>
    label === '' || number === 0 ? [] : [line(`Label of port ${number}`, label)],
  );
  return [...bundles, ...labels];
}

const OF_BRIDGE = Object.keys(kinds.bridge.fields).filter((name) => name !== 'device');

export function treeLines(plan: Plan, { device, box, ports }: Bridge): SettingLine[] {
  const record = bridgeRecordOf(plan, device);
  const common = record
    ? differing(plan, 'bridge', record, pick(factoryBridge(box.spanningTree) as never, OF_BRIDGE as never[]))
    : [];
  const instances = instancesOf(plan, device).map(({ number, vids, priority }) =>
    line(`Instance ${number}`, `${vids === '' ? '' : `VLAN ${vids}, `}priority ${priority}`),
  );
  const atPorts = ports.flatMap(({ id }) =>
    stpPortRecordsOf(plan, id).flatMap((one) => {
      const lines = differing(plan, 'stpPort', one, { ...factoryStpPort });
      const of = one.instance === 0 ? '' : ` in instance ${one.instance}`;
      const { number } = plan.port.get(id)!;
      return lines.length === 0 ? [] : [line(`Port ${number}${of}`, inOneLine(lines))];
    }),
  );
  return [...common, ...instances, ...atPorts];
}
