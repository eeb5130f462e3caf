import { formatAddress } from '../address';
import { type Plan, hostOf, portTitle } from '../plan';
import { macOf } from '../model/guards';
import { socketPort } from '../rehearse';
import { csvText } from './csv';

/** The bindings that are entered at boxes by hand, one row each: for whoever types them in. */

export const bindingHead = ['Box', 'Segment', 'VLAN', 'Address', 'MAC address', 'Device', 'Plugged into'];

export interface BindingRow {
  /** The record of the binding. */
  readonly id: string;
  readonly box: string;
  readonly segment: string;
  readonly vid: string;
  readonly address: string;
  /** Empty where nobody recorded it; the row cannot be entered then. */
  readonly mac: string;
  readonly device: string;
  readonly port: string;
}

/** The bindings of all boxes, or of one. */
export function bindingRows(plan: Plan, at: string | null = null): BindingRow[] {
  return [...plan.binding.values()]
    .filter(({ device }) => at === null || device === at)
    .map(({ id, device: box, address: entered }): BindingRow => {
      const address = plan.address.get(entered)!;
      const { interface: card, device } = hostOf(plan, address);
      const vlan = plan.vlan.get(plan.subnet.get(address.subnet)!.vlan)!;
      const port = socketPort(plan, device.id);
      return {
        id,
        box: plan.device.get(box)!.name,
        segment: vlan.name,
        vid: String(vlan.vid),
        address: formatAddress(address.address),
        mac: macOf(plan, card) ?? '',
        device: device.name,
        port: port ? portTitle(plan, port) : '',
      };
    })
    .sort(
      (a, b) =>
        a.box.localeCompare(b.box) || a.address.localeCompare(b.address, undefined, { numeric: true }),
    );
}

/** The same as cells, under `bindingHead`. */
export const bindingCells = (plan: Plan): string[][] =>
  bindingRows(plan).map(({ box, segment, vid, address, mac, device, port }) => [
    box,
    segment,
    vid,
    address,
    mac,
    device,
    port,
  ]);

export const bindingsCsv = (plan: Plan): string => csvText([bindingHead, ...bindingCells(plan)]);
