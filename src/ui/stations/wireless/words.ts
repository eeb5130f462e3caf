import type { Security } from '@/core/plan';
import { securityWords } from '@/core/model/wireless';

export const securityOptions = (Object.keys(securityWords) as Security[]).map((value) => ({
  value,
  label: securityWords[value],
}));

export const percent = (share: number): string => `${(share * 100).toFixed(1)} %`;
/** Centimetres as metres. */
export const metres = (cm: number): string => (cm / 100).toFixed(1);
