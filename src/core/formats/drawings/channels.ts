import { INK, WHITE } from '../../model/segments';
import { channelsOf, clashesOf, onChannels, spanOf } from '../../model/wireless';
import { type Band, type Plan, bands } from '../../plan';
import type { Drawing, Shape } from './drawing';

/** The air as strips: each radio lies on its band as wide as its channel, one row to a radio. */

const NAMES = 150;
const STRIP = 640;
const ROW = 20;
const HEAD = 34;
const RULE = '#d3dbd5';
const CLEAR = '#cfe3d6';
const CLASHING = '#f0cf8e';

/** Where the channels of a band begin and end, in MHz. */
function edgesOf(band: Band): { readonly from: number; readonly to: number } {
  const spans = channelsOf[band].flatMap((channel) => spanOf(band, channel, '20') ?? []);
  return { from: Math.min(...spans.map(({ from }) => from)), to: Math.max(...spans.map(({ to }) => to)) };
}

function stripOf(plan: Plan, band: Band, top: number): { readonly shapes: Shape[]; readonly height: number } {
  const all = onChannels(plan, band);
  if (all.length === 0) return { shapes: [], height: 0 };
  const edges = edgesOf(band);
  const at = (mhz: number) => NAMES + ((mhz - edges.from) / (edges.to - edges.from)) * STRIP;
  const text = (words: string, x: number, y: number, bold = false): Shape => ({
    kind: 'text',
    x,
    y,
    text: words,
    size: 10.5,
    fill: INK,
    ...(bold ? { bold } : {}),
  });
  const rows = all.flatMap(({ radio, span }, row): Shape[] => {
    const y = top + HEAD + row * ROW;
    const clashes = clashesOf(plan, radio).length > 0;
    const [from, to] = [Math.max(span.from, edges.from), Math.min(span.to, edges.to)];
    const bar = { x: at(from), y: y + 3, width: at(to) - at(from), height: ROW - 6 };
    // A word beside the bar: colour is never the only sign.
    const said = `${radio.channel}, ${radio.width} MHz${clashes ? ', shared' : ''}`;
    const after = bar.x + bar.width + 4;
    const isFar = after + said.length * 5.4 > NAMES + STRIP;
    return [
      text(plan.device.get(radio.device)!.name, 0, y + 14),
      { kind: 'box', x: NAMES, y, width: STRIP, height: ROW, fill: WHITE, line: RULE },
      { kind: 'box', ...bar, fill: clashes ? CLASHING : CLEAR, line: INK },
      text(said, isFar ? bar.x - 4 - said.length * 5.4 : after, y + 14),
    ];
  });
  return {
    shapes: [text(`${band} GHz, ${edges.from} to ${edges.to} MHz`, 0, top + HEAD - 8, true), ...rows],
    height: HEAD + all.length * ROW,
  };
}

/** The channels of all radios that have one; null where none has. */
export function channelsDrawing(plan: Plan): Drawing | null {
  let height = 0;
  const shapes = bands.flatMap((band) => {
    const strip = stripOf(plan, band, height);
    height += strip.height;
    return strip.shapes;
  });
  if (height === 0) return null;
  return { title: 'Which radio is on which channel, band by band', width: NAMES + STRIP, height, shapes };
}
