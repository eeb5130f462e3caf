import type { Plan } from '../../plan';
import { ringsOf } from '../../model/switching';
import { whatIf } from '../../rehearse';

/** So many links of a ring are looked at for one that carries something. */
const LINKS = 4;

/** A link to pull of each ring: one that carries somebody, so that something has to take another way. */
export function ringCables(
  plan: Plan,
): readonly { readonly cable: string; readonly ends: readonly string[] }[] {
  return ringsOf(plan).flatMap(({ trunks }) => {
    const links = trunks
      .filter(({ from, to }) => from.device !== to.device)
      .flatMap(({ link, from, to }) =>
        link.cables.slice(0, 1).map((cable) => ({ cable, ends: [from.id, to.id] })),
      );
    const carrying = links
      .slice(0, LINKS)
      .find(({ cable }) => whatIf(plan, [{ kind: 'cable', cable }], null).rerouted.length > 0);
    const found = carrying ?? links[0];
    return found ? [found] : [];
  });
}
