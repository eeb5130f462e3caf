export { type Block, type Cell, type Column, type Signature, cellText } from './blocks';
export { type Book, type Chapter, bookChapters, writeBook } from './book';
export type { Sources } from './chapter';
