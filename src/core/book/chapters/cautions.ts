import { purposeCautions } from '../../model/segments';
import { isPassive } from '../../model/wiring';
import { type Plan, boxOf, byName, vlansOf } from '../../plan';
import { type Block, column, heading, table } from '../blocks';
import type { ChapterKind } from '../chapter';

/** What has to be minded by whoever works on it, where it applies here. */

const MAINS =
  'Cabinets with mains or 24 V are for qualified people: isolate and lock out first. This book replaces neither the local electrical and telecommunications codes nor the permit to work.';

function placesOf(plan: Plan, port: string): string {
  const at = plan.port.get(port)!.device;
  return isPassive(plan.device.get(at)!.kind) ? '' : (boxOf(plan, at)?.location ?? '');
}

function applying(plan: Plan): string[] {
  const cables = [...plan.cable.values()];
  const between = cables.some(({ media, from, to }) => {
    const [a, b] = [placesOf(plan, from), placesOf(plan, to)];
    return media === 'copper' && a !== '' && b !== '' && a !== b;
  });
  const powered = [...plan.port.values()].some(({ poeClass }) => poeClass !== null);
  return [
    MAINS,
    ...(cables.some(({ media }) => media.endsWith('mode')) ? ['Never look into a fibre.'] : []),
    ...(between
      ? ['Copper from one building to another needs earthing and surge protection; fibre needs neither.']
      : []),
    ...(plan.spot.size > 0 || [...plan.device.values()].some(({ kind }) => kind === 'access-point')
      ? ['What hangs on a ceiling is reached from a ladder that somebody holds.']
      : []),
    ...(powered
      ? [
          'Sockets that give power over the cable can harm what does not ask for it: plug in only what is listed.',
        ]
      : []),
    ...[...new Set(vlansOf(plan).map(({ purpose }) => purpose))].flatMap(
      (purpose) => purposeCautions[purpose] ?? [],
    ),
  ];
}

/** What somebody knew of and let be, with the reason. */
const accepted = (plan: Plan): Block[] =>
  table(
    'Known and accepted',
    [column('What', 1.6, true), column('Why it is accepted', 3), column('By', 1), column('On', 0.8)],
    [...plan.acceptance.values()]
      .sort((a, b) => byName(a.finding, b.finding))
      .map(({ finding, reason, who, at }) => [
        finding.split(':')[0]!.replaceAll('-', ' '),
        reason,
        who,
        at.slice(0, 10),
      ]),
  );

export const cautions: ChapterKind = {
  id: 'cautions',
  title: 'Cautions',
  write: ({ plan }) => {
    const known = accepted(plan);
    return [
      ...applying(plan).map((words): Block => ({ kind: 'caution', text: words })),
      ...(known.length === 0 ? [] : [heading('Known and accepted'), ...known]),
    ];
  },
};
