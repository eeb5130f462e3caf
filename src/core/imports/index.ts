export {
  type FileKind,
  type FoundFile,
  type FoundTable,
  type LeftOut,
  fileKinds,
  kindOfFile,
  readAs,
} from './files';
export { type AskedTable, type Import, type ReadTable, importing, tooManyRows } from './import';
export type { ReadRow } from './row';
export { kindOfTable, tableKindOf, tableKinds } from './tables';
