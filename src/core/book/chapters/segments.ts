import { type ScheduleBlock, scheduleOf } from '../../formats';
import { subnetsOf, vlansOf } from '../../plan';
import { type Block, column, facts, heading, table } from '../blocks';
import { type ChapterKind, jacketOf, joined } from '../chapter';

/** Segments, and every address that is fixed. */

const rangesOf = ({ pools }: ScheduleBlock): string => joined(pools.map(({ range }) => range));

export const segments: ChapterKind = {
  id: 'segments',
  title: 'Segments',
  write: ({ plan }) => {
    const blocks = scheduleOf(plan);
    const without = vlansOf(plan).filter(({ id }) => subnetsOf(plan, id).length === 0);
    return table(
      'Segments',
      [
        column('VLAN', 0.75, true),
        column('Name', 1.2),
        column('Network', 1.5, true),
        column('Gateway', 1.2, true),
        column('Given out', 1.9, true),
        column('Lease', 0.6),
        column('Name servers', 1.2, true),
      ],
      [
        ...blocks.map((block) => [
          jacketOf(block.vlan),
          block.vlan.name,
          block.prefix,
          block.gateway,
          rangesOf(block),
          joined([...new Set(block.pools.map(({ lease }) => lease))]),
          block.dns,
        ]),
        ...without.map((vlan) => [jacketOf(vlan), vlan.name, 'no network of its own', '', '', '', '']),
      ],
    );
  },
};

function subnetBlocks(block: ScheduleBlock): Block[] {
  if (block.hosts.length + block.exclusions.length === 0) return [];
  return [
    heading(`${block.vlan.name}, ${block.prefix}`),
    facts([
      ['mask', block.mask],
      ['gateway', block.gateway],
      ['given out', rangesOf(block)],
      ['kept free', joined(block.exclusions.map(({ range, why }) => `${range} ${why}`.trim()))],
      ['domain', block.domain],
    ]),
    ...table(
      `Addresses of ${block.vlan.name}, ${block.prefix}`,
      [
        column('Address', 1.3, true),
        column('Name', 1.5, true),
        column('Kind', 1),
        column('MAC address', 1.4, true),
        column('Set', 1.1),
        column('Note', 1.8),
      ],
      block.hosts.map(({ address, name, kind, mac, assignment, own, note }) => [
        address,
        name,
        kind.replaceAll('-', ' '),
        mac,
        assignment,
        joined([own, note]),
      ]),
    ),
  ];
}

export const addresses: ChapterKind = {
  id: 'addresses',
  title: 'Addresses',
  write: ({ plan }) => scheduleOf(plan).flatMap(subnetBlocks),
};
