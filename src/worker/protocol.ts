import type { Finding } from '@/core/findings/finding';
import type { Step } from '@/core/plan/change';

/**
 * What the page and the findings worker say to each other. The page hands over the very text its plan came from and
 * then every step it applies, numbered, so both hold the same plan without asking the server twice.
 */
export type ToWorker =
  | { readonly type: 'load'; readonly plan: string; readonly steps: readonly Step[] }
  | { readonly type: 'advance'; readonly sequence: number; readonly steps: readonly Step[] };

export type FromWorker =
  | { readonly type: 'all'; readonly findings: readonly Finding[] }
  | {
      readonly type: 'diff';
      readonly sequence: number;
      readonly removed: readonly string[];
      readonly added: readonly Finding[];
    };
