/** Where somebody lands who is in no segment: without an address, with one of a network nobody planned, or the network is not on the air. */
export const landings = ['nowhere', 'foreign', 'absent'] as const;
export type Landed = (typeof landings)[number];
