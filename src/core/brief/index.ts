export { type Alternative, alternativesOf } from './alternatives';
export { type Figures, type Weakness, figuresOf, weaknessOf } from './figures';
export type { Choice } from './gather';
export type { Accepted } from './keyed';
export { acceptedFrom, countsOf, stepsOfParts } from './parts';
export { type Part, type Proposal, parts, propose } from './propose';
export { type NoProposal, type PartSheet, type ProposalSheet, sheetOf } from './sheet';
