export {
  type FileKind,
  type FoundFile,
  type FoundTable,
  type LeftOut,
  fileKinds,
  kindOfFile,
  readAs,
} from './files';
export { type AskedTable, type Import, MOST_ROWS, type ReadTable, importing } from './import';
export type { ReadRow } from './row';
export { kindOfTable, tableKindOf, tableKinds } from './tables';
