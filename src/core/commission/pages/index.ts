import { type Device, type Plan, boxOf, groupBy } from '../../plan';
import { hardenable } from '../../model/guards';
import { type Formers, NO_FORMERS, formerBox, isSetUp } from '../formers';
import { presentState } from '../present';
import { type SiteState, placeIn, plannedState } from '../state';
import { equalManagement } from '../steps';
import { managementLines } from './addressing';
import { protectionLines, saveLines } from './care';
import { plainLines } from './left';
import { type PageName, type SettingLine, type SettingsPage, pageNames } from './page';
import { portLines, vlanLines } from './switching';

export { type PageName, type SettingLine, type SettingsPage, pageNames } from './page';
export { alsoCalled, pageTitles } from './titles';

/** What is to be set on boxes: on one, or alike on several of one model. */
export interface SettingsSheet {
  readonly devices: readonly Device[];
  readonly model: string;
  readonly pages: readonly SettingsPage[];
}

/** What a sheet is made from. */
interface Made {
  readonly plan: Plan;
  readonly before: SiteState;
  readonly after: SiteState;
  readonly today: string | null;
  readonly formers: Formers;
}

/** The pages of a box that has something to set; none for one that is as planned already. */
function pagesOf({ plan, before, after, today, formers }: Made, device: string): SettingsPage[] {
  const former = formerBox(plan, device, formers);
  if (!former && isSetUp(plan, device, formers)) return [];
  const at = placeIn(after, device);
  const [now, then] = at < 0 ? [null, null] : [before.boxes[at]!, after.boxes[at]!];
  const management = then?.management ?? null;
  const moves = !former || !equalManagement(now?.management ?? null, management);
  const working = {
    ...plainLines(plan, device, formers, today),
    management: [
      ...(moves ? managementLines(plan, device, management) : []),
      ...(former ? [] : protectionLines(plan, device)),
    ],
    vlans: now ? vlanLines(plan, now, then) : [],
    ports: now ? portLines(plan, now, then, former) : [],
  };
  const isLeft = Object.values(working).some((lines) => lines.length > 0);
  const lines: Readonly<Record<PageName, readonly SettingLine[]>> = {
    ...working,
    save: isLeft ? saveLines(plan, device) : [],
  };
  return pageNames.filter((page) => lines[page].length > 0).map((page) => ({ page, lines: lines[page] }));
}

const keyOf = (page: PageName, { what, value }: SettingLine): string => `${page}\n${what}\n${value}`;
const keep = (
  pages: readonly SettingsPage[],
  holds: (page: PageName, line: SettingLine) => boolean,
): SettingsPage[] =>
  pages
    .map(({ page, lines }) => ({ page, lines: lines.filter((one) => holds(page, one)) }))
    .filter(({ lines }) => lines.length > 0);

/**
 * Everything that is to be set, box by box in the order of the site: only what is otherwise than it is now. What is the same
 * at all boxes of one model stands once, before the first of them.
 */
export function settingsSheets(
  plan: Plan,
  today: string | null,
  formers: Formers = NO_FORMERS,
): SettingsSheet[] {
  const [before, after] = [presentState(plan, undefined, formers), plannedState(plan)];
  const made = { plan, before, after, today, formers };
  const boxes = hardenable(plan)
    .map((device) => ({
      device,
      model: boxOf(plan, device.id)?.model ?? '',
      pages: pagesOf(made, device.id),
    }))
    .filter(({ pages }) => pages.length > 0);
  const alike = groupBy(boxes, ({ model }) => model);
  const sheets: SettingsSheet[] = [];
  for (const { device, model, pages } of boxes) {
    const like = alike.get(model)!;
    const counts = new Map<string, number>();
    if (like.length > 1)
      for (const one of like)
        for (const key of new Set(one.pages.flatMap(({ page, lines }) => lines.map((l) => keyOf(page, l)))))
          counts.set(key, (counts.get(key) ?? 0) + 1);
    const isShared = (page: PageName, one: SettingLine) => counts.get(keyOf(page, one)) === like.length;
    const shared = keep(pages, isShared);
    if (like[0]!.device === device && shared.length > 0)
      sheets.push({ devices: like.map((one) => one.device), model, pages: shared });
    sheets.push({ devices: [device], model, pages: keep(pages, (page, one) => !isShared(page, one)) });
  }
  return sheets;
}
