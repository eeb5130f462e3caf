import { writeFileSync } from 'node:fs';
import {
  type Choice,
  type Figures,
  alternativesOf,
  countsOf,
  figuresOf,
  parts,
  propose,
} from '../core/brief';
import { writePlanFile } from '../core/formats';
import { finish, kinds } from '../core/plan';
import type { Command } from './command';
import { Misuse, planIn } from './files';

/** One of a few words, as a field of the site has them. */
function oneOf<F extends keyof Choice>(field: F, given: string | undefined): Partial<Choice> {
  if (given === undefined) return {};
  const read = kinds.site.fields[field].safeParse(given);
  if (!read.success)
    throw new Misuse(`“${given}” is none of ${kinds.site.fields[field].unwrap().options.join(', ')}.`);
  return { [field]: read.data };
}

const figuresText = ({
  boxes,
  ports,
  portsUsed,
  watts,
  apart,
  pairs,
  wishes,
  wishesKept,
  hours,
}: Figures): string =>
  `${boxes} boxes, ${portsUsed} of ${ports} ports, ${watts} W, ${apart} of ${pairs} directions closed, ${wishesKept} of ${wishes} wishes kept, ${hours} h`;

/** The whole first plan of a brief, and what else it could be. */
export const proposal: Command = {
  usage: 'PLAN [--separation vlans|flat|separate] [--backbone star|ring] [--to FILE]',
  about:
    'works out the whole first plan from a brief, says why, and writes it; fails where a wish cannot be kept',
  takes: { separation: 'way to keep groups apart', backbone: 'form', to: 'file' },
  run: ({ words: [path], switches }) => {
    const plan = planIn(path);
    const chosen = {
      ...oneOf('separation', switches.get('separation')),
      ...oneOf('backbone', switches.get('backbone')),
    };
    const made = finish(propose(plan, chosen));
    const others = alternativesOf(plan).map((alternative) => ({
      ...alternative,
      figures: figuresOf(finish(propose(plan, alternative.choice))),
    }));
    const to = switches.get('to');
    if (to !== undefined) writeFileSync(to, writePlanFile(made.plan));
    const counts = countsOf(made).filter(({ added, changed, removed }) => added + changed + removed > 0);
    return {
      code: made.unmet.length > 0 ? 1 : 0,
      text: [
        ...made.brief.assumed.map((what) => `assumed: ${what}`),
        ...made.unmet.map(({ what, why }) => `cannot be had: ${what}, because ${why}`),
        ...parts.flatMap((part) =>
          (made.decisions[part] ?? []).map(({ what, why }) => `${part.padEnd(9)} ${what}\n          ${why}`),
        ),
        ...others.map(({ title, figures }) => `${title}: ${figuresText(figures)}`),
        counts
          .map(({ part, added, changed, removed }) => `${part} ${added + changed + removed}`)
          .join(', ') || 'Nothing is otherwise than the plan has it.',
        ...(to === undefined ? [] : [`The plan is in ${to}.`]),
      ].join('\n'),
      json: {
        choice: made.choice,
        assumed: made.brief.assumed,
        unmet: made.unmet,
        decisions: made.decisions,
        figures: figuresOf(made),
        alternatives: others.map(({ title, choice, figures }) => ({ title, choice, figures })),
        parts: counts,
      },
    };
  },
};
