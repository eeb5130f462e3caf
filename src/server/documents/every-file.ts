import { type Written, madeFiles, mapDrawing, openFiles, svgOf } from '../../core/formats';
import type { Plan } from '../../core/plan';
import { arranged } from './map';
import { networkArchive } from './network';
import { workbookOf } from './workbook';

type Bytes = Uint8Array<ArrayBuffer>;
/** A file of a plan as it lies in the archive of all. */
export interface MadeFile {
  readonly path: string;
  readonly title: string;
  readonly bytes: () => Promise<Bytes>;
}

const encoder = new TextEncoder();
const makers: Readonly<Record<string, (plan: Plan, written: Written) => Promise<Bytes>>> = {
  'schedules.xlsx': (plan, { today }) => workbookOf(plan, today),
  'network.zip': (plan, { today }) => Promise.resolve(networkArchive(plan, today)),
  'map.svg': async (plan) => encoder.encode(svgOf(mapDrawing(plan, await arranged(plan))!)),
};

/** Every file of a plan: its texts, and what is drawn or packed on top of them. */
export const everyFile = (plan: Plan, written: Written): MadeFile[] => [
  ...openFiles(plan).map(({ path, title, text }) => ({
    path,
    title,
    bytes: () => Promise.resolve(encoder.encode(text(written))),
  })),
  ...madeFiles(plan).map(({ path, title }) => ({
    path,
    title,
    bytes: () => makers[path]!(plan, written),
  })),
];
