import { INK, WHITE } from '../../model/segments';
import { type Passing, passing, serviceNames, zonesOf } from '../../model/policy';
import type { Plan } from '../../plan';
import type { Drawing, Shape } from './drawing';

/** Who may talk: from each zone at the left to each at the top, in words. */

const NAMES = 150;
const CELL = { width: 104, height: 30 } as const;
const HEAD = 30;
const RULE = '#d3dbd5';
/** Of a line of this size about so many points wide. */
const LETTER = 5.4;

const cut = (text: string, width: number): string => {
  const most = Math.floor(width / LETTER);
  return text.length > most ? `${text.slice(0, most - 1)}…` : text;
};

const said: Readonly<Record<Exclude<Passing['decision'], 'services'>, string>> = {
  allow: 'everything',
  deny: '–',
  wish: 'as each may',
};
const fills: Readonly<Record<Passing['decision'], string>> = {
  allow: '#dcead9',
  deny: WHITE,
  services: '#f4f0cf',
  wish: '#f4f0cf',
};

/** The matrix of a plan; null where nobody made zones. Rules above it are not in it. */
export function matrixDrawing(plan: Plan): Drawing | null {
  const zones = zonesOf(plan);
  if (zones.length === 0) return null;
  const text = (words: string, x: number, y: number, width: number, bold = false): Shape => ({
    kind: 'text',
    x: x + 5,
    y: y + CELL.height / 2 + 4,
    text: cut(words, width - 8),
    size: 10.5,
    fill: INK,
    ...(bold ? { bold } : {}),
  });
  const cells = zones.flatMap((from, row) =>
    zones.flatMap((to, column): Shape[] => {
      const { decision, services } = passing(plan, from, to);
      const [x, y] = [NAMES + column * CELL.width, HEAD + row * CELL.height];
      const words = decision === 'services' ? serviceNames(plan, services) : said[decision];
      return [
        { kind: 'box', x, y, ...CELL, fill: fills[decision], line: RULE },
        text(words, x, y, CELL.width),
      ];
    }),
  );
  return {
    title: 'Who may talk: from the zones at the left to those at the top, before any rule',
    width: NAMES + zones.length * CELL.width,
    height: HEAD + zones.length * CELL.height,
    shapes: [
      ...zones.map(({ name }, i) => text(name, NAMES + i * CELL.width, 0, CELL.width, true)),
      ...zones.map(({ name }, i) => text(name, 0, HEAD + i * CELL.height, NAMES, true)),
      ...cells,
    ],
  };
}
