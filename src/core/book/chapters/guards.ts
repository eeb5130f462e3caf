import {
  accessWords,
  askingPorts,
  guardWords,
  hardenable,
  hardeningFor,
  hardeningTitles,
  hostWords,
  methodWords,
  tickOf,
  trustOf,
} from '../../model/guards';
import { boxesInOrder } from '../../model/switching';
import { rangeText } from '../../model/wiring';
import { type Plan, groupBy } from '../../plan';
import { type Block, column, heading, table } from '../blocks';
import type { ChapterKind } from '../chapter';

/** What boxes watch, who is let in at a port, and what is done about the boxes themselves. */

function watched(plan: Plan): string[][] {
  return boxesInOrder(plan).flatMap(({ device }) => {
    const trusted = [...plan.port.group(device).values()].filter(({ id }) =>
      Object.values(trustOf(plan, id)).includes(true),
    );
    return [...plan.vlanGuard.group(device).values()].map((guard) => [
      plan.device.get(device)!.name,
      plan.vlan.get(guard.vlan)!.name,
      guardWords
        .filter((one) => guard[one.guard])
        .map(({ about }) => about.split(':')[0]!)
        .join(', '),
      trusted.length === 0 ? 'none' : rangeText(trusted),
    ]);
  });
}

function asked(plan: Plan): string[][] {
  const groups = groupBy(askingPorts(plan), ({ port, access }) => `${port.device} ${access.id}`);
  return [...groups.values()].map((all) => {
    const { port, access } = all[0]!;
    return [
      plan.device.get(port.device)!.name,
      rangeText(all.map((one) => one.port)),
      `${methodWords[access.methods]}; ${accessWords[access.mode]}; ${hostWords[access.hosts]}`,
    ];
  });
}

const done = (plan: Plan): string[][] =>
  hardenable(plan).map(({ id, name }) => {
    const items = hardeningFor(plan, id);
    const open = items.filter((item) => tickOf(plan, id, item) === null);
    return [
      name,
      `${items.length - open.length} of ${items.length}`,
      open.length === items.length ? 'all of it' : open.map((item) => hardeningTitles[item]).join('; '),
    ];
  });

const under = (title: string, blocks: readonly Block[]): Block[] =>
  blocks.length === 0 ? [] : [heading(title), ...blocks];

export const guards: ChapterKind = {
  id: 'guards',
  title: 'Guards',
  write: ({ plan }) => [
    ...under(
      'What boxes watch',
      table(
        'What boxes watch',
        [
          column('Box', 1, true),
          column('Segment', 1.2),
          column('Watches', 2.6),
          column('Trusted ports', 1, true),
        ],
        watched(plan),
      ),
    ),
    ...under(
      'Who is asked at a port',
      table(
        'Who is asked at a port',
        [column('Box', 1, true), column('Ports', 1, true), column('How', 3.6)],
        asked(plan),
      ),
    ),
    ...under(
      'Boxes made safe',
      table(
        'Boxes made safe',
        [column('Box', 1, true), column('Done', 0.7), column('Still to do', 4)],
        done(plan),
      ),
    ),
  ],
};
