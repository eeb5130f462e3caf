import * as z from 'zod';
import { badInput, kinds, operation } from '../../plan';

/** Where boxes stand on the map, so that everybody sees them there and the book too. */

/** Puts a box somewhere on the map; null is the Internet. */
export const putOnMap = operation(
  'putOnMap',
  z.strictObject(kinds.mapPosition.fields),
  (draft, { device, ...where }) => {
    const name = device === null ? 'The Internet' : draft.need('device', device).name;
    const known = [...draft.plan.mapPosition.values()].find((position) => position.device === device);
    if (known) draft.update('mapPosition', known.id, where);
    else draft.insert('mapPosition', { device, ...where });
    return `${name} moved on the map`;
  },
);

/** Takes back every position that somebody chose. */
export const arrangeMap = operation('arrangeMap', z.strictObject({}), (draft) => {
  const chosen = [...draft.plan.mapPosition.values()];
  if (chosen.length === 0) throw badInput('Nothing on the map was moved.', 'map');
  for (const { id } of chosen) draft.put('mapPosition', id, null);
  return 'Map arranged anew';
});
