import { ref, whole } from './fields';
import { deviceName, kind } from './kind';

/** How far from the corner of the map anything may be put, in pixels at full size. */
const FAR = 100_000;

/** Where somebody put a box on the map. */
export const mapPosition = kind({
  word: 'position on the map',
  about:
    'where somebody put a box on the map, in pixels right and down at full size; without a device the Internet',
  since: 15,
  table: 'map_position',
  fields: {
    device: ref('device', 'removed', 'device').nullable(),
    x: whole('right', -FAR, FAR, { unit: 'px', column: 'right_px' }),
    y: whole('down', -FAR, FAR, { unit: 'px', column: 'down_px' }),
  },
  title: ({ device }, plan) =>
    `position of ${device === null ? 'the Internet' : deviceName(plan, device)} on the map`,
});
