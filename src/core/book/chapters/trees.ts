import { fabric } from '../../model/switching';
import { type Grown, Reasons, forwards, identifierText, treeTitle, treesOf } from '../../model/tree';
import { type Plan, portTitle } from '../../plan';
import { type Block, column, table, text } from '../blocks';
import { type ChapterKind, joined } from '../chapter';

/** Where each tree begins, and which ports it keeps silent. */

function row(plan: Plan, tree: Grown): string[] {
  const reasons = new Reasons(plan, fabric(plan), tree);
  const roots = reasons.roots();
  const silent = tree.tree.roles.flatMap((role, end) => (forwards(role) ? [] : [reasons.portName(end)]));
  return [
    treeTitle(tree),
    joined(roots.map((at) => `${reasons.name(at)} (${identifierText(tree.identifiers[at]!)})`)),
    joined(roots.map((at) => reasons.ofRoot(at))),
    joined(silent) || 'none',
  ];
}

function ringWords(plan: Plan): Block[] {
  const nameAt = (bridge: number) => plan.device.get(fabric(plan).bridges[bridge]!.device)!.name;
  return treesOf(plan).rings.map(({ manager, boxes, broken, blocked, recovery }) =>
    text(
      `Ring of ${nameAt(manager)}: ${boxes.length} boxes, ${
        broken
          ? `open at ${nameAt(broken.bridge)}, where ${broken.why}`
          : `kept open at ${portTitle(plan, plan.port.get(blocked!)!)}`
      }${recovery === null ? '' : `; closes a gap within ${recovery} ms`}.`,
    ),
  );
}

export const trees: ChapterKind = {
  id: 'trees',
  title: 'Trees',
  write: ({ plan }) => [
    ...table(
      'Trees',
      [
        column('Tree', 0.9),
        column('Root', 1.4, true),
        column('Why it is', 2.2),
        column('Ports kept silent', 1.7, true),
      ],
      treesOf(plan).grown.map((tree) => row(plan, tree)),
    ),
    ...ringWords(plan),
  ],
};
