import { type BoxBlock, boxPlace, cableRows, faceDrawing, portScheduleOf } from '../../formats';
import { isPassive, rangeText } from '../../model/wiring';
import type { Plan } from '../../plan';
import { type Block, column, drawn, facts, heading, table } from '../blocks';
import { type ChapterKind, joined } from '../chapter';

/** Boxes with their faces and what each port carries, and the cables between them. */

/** Ports that carry the same and lead nowhere stand on one line. */
function portRows({ ports }: BoxBlock): string[][] {
  const rows: { own: { number: number }[]; cells: string[] }[] = [];
  for (const { port, carries, leadsTo, cable } of ports) {
    const cells = [carries, leadsTo, cable, port.label];
    const last = rows.at(-1);
    const alike = last?.cells.every((cell, i) => cell === cells[i]) && leadsTo === '' && port.number > 0;
    if (alike) last!.own.push(port);
    else rows.push({ own: [port], cells });
  }
  return rows.map(({ own, cells }) => [own[0]!.number === 0 ? 'inside' : rangeText(own), ...cells]);
}

function boxBlocks(plan: Plan, block: BoxBlock): Block[] {
  const { device, box, addresses } = block;
  const controller = box.controller === null ? undefined : plan.device.get(box.controller);
  return [
    heading(device.name),
    facts([
      ['kind', device.kind.replaceAll('-', ' ')],
      ['model', box.model],
      ['place', boxPlace(block)],
      ['address', joined(addresses)],
      ['MAC address', box.baseMac ?? ''],
      ['serial number', box.serial],
      ['asset tag', box.assetTag],
      ['firmware', box.firmware],
      ['configured by', controller?.name ?? ''],
      ['licence until', box.licenceUntil ?? ''],
    ]),
    ...(isPassive(device.kind) ? [] : drawn(faceDrawing(plan, device, { named: false }))),
    ...table(
      `Ports of ${device.name}`,
      [
        column('Port', 0.7, true),
        column('Carries', 2.4),
        column('Leads to', 1.9, true),
        column('Cable', 1.3),
        column('Label', 1),
      ],
      portRows(block),
    ),
  ];
}

export const ports: ChapterKind = {
  id: 'ports',
  title: 'Boxes and ports',
  write: ({ plan }) => portScheduleOf(plan).flatMap((block) => boxBlocks(plan, block)),
};

export const cables: ChapterKind = {
  id: 'cables',
  title: 'Cables',
  write: ({ plan }) =>
    table(
      'Cables',
      [
        column('Label', 0.8, true),
        column('From', 1.6, true),
        column('To', 1.6, true),
        column('Medium', 0.9),
        column('Length', 0.6),
      ],
      cableRows(plan).map((cells) => cells.with(-1, cells.at(-1) === '' ? '' : `${cells.at(-1)} m`)),
    ),
};
