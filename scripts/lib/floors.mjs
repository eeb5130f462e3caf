import path from 'node:path';

/**
 * The floors of the core, lowest first. A file imports only from floors below its own, and from another folder only by that
 * folder’s index. Types count like values.
 */
export const floors = [
  'address',
  'plan',
  'model/segments',
  'model/hosts',
  'model/pools',
  'model/wireless',
  'model/wiring',
  'model/tree',
  'model/switching',
  'model/guards',
  'model/uplink',
  'model/map',
  'model/routing',
  'model/policy',
  'rehearse',
  'edit',
  'findings',
  'formats',
  'imports',
  'lab',
  'exercises',
  'commission',
  'brief',
  'log',
  'book',
  'find',
];

const CORE = `${path.sep}src${path.sep}core${path.sep}`;

/** The floor of a path below src/core, and the path within it; null for what is on none. */
function place(file) {
  const at = file.lastIndexOf(CORE);
  if (at < 0) return null;
  const inside = file
    .slice(at + CORE.length)
    .split(path.sep)
    .join('/');
  const floor = floors.findIndex((name) => inside === name || inside.startsWith(`${name}/`));
  return floor < 0 ? null : { floor, rest: inside.slice(floors[floor].length + 1) };
}

const sources = ['ImportDeclaration', 'ExportNamedDeclaration', 'ExportAllDeclaration'];

/** An ESLint rule that keeps the floors. */
export const floorsRule = {
  meta: {
    type: 'problem',
    schema: [],
    messages: {
      up: '{{from}} stands below {{to}}: imports go down only (scripts/lib/floors.mjs).',
      deep: 'Import from the index of {{to}}, not from a file in it.',
    },
  },
  create(context) {
    const file = context.filename;
    const root = file.slice(0, file.lastIndexOf(`${path.sep}src${path.sep}`));
    const isTest = /\.test\.tsx?$/.test(file) || file.includes(`${CORE}testing${path.sep}`);
    const check = (node) => {
      const source = node.source?.value;
      if (typeof source !== 'string') return;
      const target = source.startsWith('@/')
        ? path.join(root, 'src', source.slice(2))
        : source.startsWith('.')
          ? path.resolve(path.dirname(file), source)
          : null;
      const to = target && place(target);
      if (!to) return;
      const from = place(file);
      if (from?.floor === to.floor) return;
      if (to.rest !== '') context.report({ node, messageId: 'deep', data: { to: floors[to.floor] } });
      if (from && !isTest && from.floor < to.floor)
        context.report({
          node,
          messageId: 'up',
          data: { from: floors[from.floor], to: floors[to.floor] },
        });
    };
    return Object.fromEntries(sources.map((type) => [type, check]));
  },
};
