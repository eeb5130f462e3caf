import type { Box, Device } from '../../plan';

/**
 * How the ports of a block are numbered on the case: with two rows, column by column (odd above even, or even above
 * odd) or the upper row first; and with any of them from the left, or from the right.
 */
export const numberings = ['odd-above', 'even-above', 'by-row'] as const;

/** Ports of one sort on a case: how many, in one row or in two. */
export interface PortBlock {
  readonly count: number;
  readonly media: 'copper' | 'fibre' | 'combo';
  /** Megabits per second. */
  readonly speed: number;
  readonly rows: 1 | 2;
  /** Left out: odd above even, from the left. */
  readonly numbering?: (typeof numberings)[number];
  readonly fromRight?: boolean;
  /** Highest PoE class of each; null for none. */
  readonly poeClass: number | null;
}

type Capabilities = Pick<
  Box,
  | 'vlanAware'
  | 'vlanLimit'
  | 'mixesTags'
  | 'passes'
  | 'layer3'
  | 'filter'
  | 'spanningTree'
  | 'snooping'
  | 'dot1x'
  | 'factory'
  | 'poeBudget'
  | 'powerFeeds'
>;

/** A generic model: what a box of this sort usually can do. Everything can be changed on the box afterwards. */
export interface Model extends Capabilities {
  readonly id: string;
  readonly name: string;
  readonly kind: Device['kind'];
  readonly blocks: readonly PortBlock[];
  /** Ports that face a provider as they come, by number. */
  readonly uplinks: readonly number[];
}

const managed: Capabilities = {
  vlanAware: true,
  vlanLimit: 256,
  mixesTags: true,
  passes: [],
  layer3: false,
  filter: 'none',
  spanningTree: 'rstp',
  snooping: true,
  dot1x: true,
  factory: 'default-vlan',
  poeBudget: null,
  powerFeeds: 1,
};
const copper = (count: number, rows: 1 | 2, poeClass: number | null = null, speed = 1000): PortBlock => ({
  count,
  media: 'copper',
  speed,
  rows,
  poeClass,
});
const fibre = (count: number, rows: 1 | 2, speed = 1000): PortBlock => ({
  count,
  media: 'fibre',
  speed,
  rows,
  poeClass: null,
});
const model = (
  id: string,
  name: string,
  kind: Device['kind'],
  blocks: readonly PortBlock[],
  fields: Partial<Model> = {},
): Model => ({ ...managed, id, name, kind, blocks, uplinks: [], ...fields });

const router: Partial<Model> = {
  layer3: true,
  filter: 'stateful',
  spanningTree: 'none',
  snooping: false,
  dot1x: false,
};
const plain: Partial<Model> = {
  vlanAware: false,
  vlanLimit: null,
  spanningTree: 'none',
  snooping: false,
  dot1x: false,
  passes: ['bpdu', 'lldp'],
};
/** A panel or an outlet passes everything: it is only metal. */
const passive: Partial<Model> = { ...plain, passes: ['bpdu', 'eapol', 'lldp'] };

/** Models of our own that stand for what is commonly found. */
export const shelf: readonly Model[] = [
  model('gateway-6', 'gateway, 6 ports', 'gateway', [copper(6, 1)], { ...router, uplinks: [1] }),
  model('gateway-4', 'home gateway, 1 + 4', 'gateway', [copper(1, 1), copper(4, 1)], {
    ...router,
    vlanLimit: 16,
    uplinks: [1],
  }),
  model('provider-4', 'provider box, 1 + 4', 'provider-box', [copper(1, 1), copper(4, 1)], {
    ...plain,
    layer3: true,
    filter: 'stateful',
    uplinks: [1],
  }),
  model('switch-8', '8 ports', 'switch', [copper(8, 1)], { vlanLimit: 64, dot1x: false }),
  model('switch-8p', '8 + 2 fibre, PoE 65 W', 'switch', [copper(8, 2, 4), fibre(2, 2)], {
    vlanLimit: 128,
    poeBudget: 65,
  }),
  model('switch-24', '24 + 4 fibre', 'switch', [copper(24, 2), fibre(4, 2)]),
  model('switch-24f', '24 fibre + 4', 'switch', [copper(4, 2), fibre(24, 2, 10_000)], { vlanLimit: 1000 }),
  model('switch-24p', '24 + 4 fibre, PoE 190 W', 'switch', [copper(24, 2, 4), fibre(4, 2)], {
    poeBudget: 190,
  }),
  model('switch-48p', '48 + 4 fibre, PoE 740 W', 'switch', [copper(48, 2, 4), fibre(4, 2, 10_000)], {
    vlanLimit: 1000,
    poeBudget: 740,
    powerFeeds: 2,
  }),
  model('rail-8', '8 + 2 DIN rail, dual 24 V', 'switch', [copper(8, 2, null, 100), fibre(2, 2)], {
    vlanLimit: 64,
    powerFeeds: 2,
    dot1x: false,
  }),
  model('rail-8p', '8 + 2 DIN rail, PoE 60 W, dual 24 V', 'switch', [copper(8, 2, 4, 100), fibre(2, 2)], {
    vlanLimit: 64,
    powerFeeds: 2,
    poeBudget: 60,
    dot1x: false,
  }),
  model('layer3-24', 'layer 3, 24 + 4 fibre', 'layer3-switch', [copper(24, 2), fibre(4, 2, 10_000)], {
    vlanLimit: 1000,
    layer3: true,
    filter: 'stateless',
    powerFeeds: 2,
  }),
  model('plain-5', 'unmanaged, 5 ports', 'unmanaged-switch', [copper(5, 1)], plain),
  model('plain-8', 'unmanaged, 8 ports', 'unmanaged-switch', [copper(8, 1)], plain),
  model('ap-1', 'access point, 1 port', 'access-point', [copper(1, 1, 4)], {
    vlanLimit: 16,
    spanningTree: 'none',
    snooping: false,
    dot1x: false,
  }),
  model('ap-2', 'access point, 2 ports', 'access-point', [copper(2, 1, 4)], {
    vlanLimit: 16,
    spanningTree: 'none',
    snooping: false,
    dot1x: false,
  }),
  model('server-2', 'server, 2 ports', 'server', [copper(2, 1)], {
    spanningTree: 'none',
    snooping: false,
    dot1x: false,
    factory: 'every-vlan',
  }),
  model('panel-24', 'patch panel, 24', 'patch-panel', [copper(24, 1)], passive),
  model('outlet-2', 'wall outlet, 2', 'outlet', [copper(2, 1)], passive),
];

export const modelById: ReadonlyMap<string, Model> = new Map(shelf.map((entry) => [entry.id, entry]));

export interface PortPlace {
  readonly number: number;
  readonly row: number;
  readonly column: number;
  readonly block: PortBlock;
}

/** Where the port at one place of a block stands, from the block's top left. */
function placeIn({ count, rows, numbering = 'odd-above', fromRight = false }: PortBlock, i: number) {
  const columns = Math.ceil(count / rows);
  const [row, column] =
    rows === 1
      ? [0, i]
      : numbering === 'by-row'
        ? [Math.floor(i / columns), i % columns]
        : [numbering === 'odd-above' ? i % 2 : 1 - (i % 2), Math.floor(i / 2)];
  return { row, column: fromRight ? columns - 1 - column : column };
}

/** Where the ports of blocks stand on the face, numbered from 1 block by block. */
export function placesOf(blocks: readonly PortBlock[]): PortPlace[] {
  const places: PortPlace[] = [];
  let number = 1;
  let left = 0;
  for (const block of blocks) {
    for (let i = 0; i < block.count; i++) {
      const { row, column } = placeIn(block, i);
      places.push({ number: number++, row, column: left + column, block });
    }
    // A gap of one column between blocks, as on a case.
    left += Math.ceil(block.count / block.rows) + 1;
  }
  return places;
}
