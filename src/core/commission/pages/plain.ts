import { type PageName, pageNames } from './page';

/** The pages whose steps can cut somebody off, and the last one. */
const careful = ['management', 'vlans', 'ports', 'save'] as const satisfies readonly PageName[];
export type PlainPage = Exclude<PageName, (typeof careful)[number]>;

/** All others: no order of theirs cuts anybody off. */
export const plainPages: readonly PlainPage[] = pageNames.filter(
  (page): page is PlainPage => !(careful as readonly PageName[]).includes(page),
);
