export { foundAgainst } from './compare';
export { type SourceKind, sourceWords } from './readers';
export { type FoundAt, type FoundRow, type FoundVerdict, foundVerdicts } from './row';
export { type FoundList, readFound } from './sniff';
