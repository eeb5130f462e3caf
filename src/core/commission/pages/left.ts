import type { Plan } from '../../plan';
import { wiredFabric } from '../../model/wiring';
import { type Formers, formerBox, isSetUp } from '../formers';
import { plannedManagement } from '../state';
import { addressLines, dhcpLines, internetLines, routeLines } from './addressing';
import { identityLines, timeLines } from './care';
import { guardLines, ruleLines, wirelessLines } from './letting-in';
import { type SettingLine, changedLines } from './page';
import { type PlainPage, plainPages } from './plain';
import { treeLines } from './switching';

/** What is left to set on the pages that cut nobody off. */

type Lines = Readonly<Record<PlainPage, readonly SettingLine[]>>;

function linesOf(plan: Plan, device: string, today: string | null): Lines {
  const bridge = wiredFabric(plan).bridges.find((one) => one.device === device);
  return {
    identity: identityLines(plan, device),
    addresses: addressLines(plan, device, bridge?.box.vlanAware ? plannedManagement(plan, device) : null),
    dhcp: dhcpLines(plan, device),
    routes: routeLines(plan, device),
    internet: internetLines(plan, device),
    rules: ruleLines(plan, device, today),
    wireless: wirelessLines(plan, device),
    guards: guardLines(plan, device),
    trees: bridge ? treeLines(plan, bridge) : [],
    time: timeLines(plan, device),
  };
}

const NOTHING = Object.fromEntries(plainPages.map((page) => [page, []])) as unknown as Lines;

/** What is left to set on these pages of a box, from how it is now. */
export function plainLines(plan: Plan, device: string, formers: Formers, today: string | null): Lines {
  const former = formerBox(plan, device, formers);
  if (!former && isSetUp(plan, device, formers)) return NOTHING;
  const now = linesOf(plan, device, today);
  if (!former) return now;
  const was = linesOf(former, device, today);
  return Object.fromEntries(
    plainPages.map((page) => [page, changedLines(was[page], now[page])]),
  ) as unknown as Lines;
}

const withLines = (lines: Lines): PlainPage[] => plainPages.filter((page) => lines[page].length > 0);

/** The pages of a box that have something left to set. */
export const pagesLeft = (plan: Plan, device: string, formers: Formers): PlainPage[] =>
  withLines(plainLines(plan, device, formers, null));

/** Those of one that comes new. */
export const pagesOfNew = (plan: Plan, device: string): PlainPage[] => withLines(linesOf(plan, device, null));
