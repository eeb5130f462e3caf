import { purposeCautions } from '@/core/model/segments';
import { type Plan, type Purpose, vlansOf } from '@/core/plan';

/** What has to be minded with segments of some purposes, each once. */
export function Cautions({ purposes }: { purposes: readonly Purpose[] }) {
  return [...new Set(purposes)].map(
    (purpose) =>
      purposeCautions[purpose] && (
        <p key={purpose} role="note" className="border-b border-rule bg-chosen px-2 py-1 text-[13px]">
          {purposeCautions[purpose]}
        </p>
      ),
  );
}

/** What has to be minded by whoever changes boxes while the site works. */
export const WorkCautions = ({ plan }: { plan: Plan }) => (
  <Cautions
    purposes={vlansOf(plan)
      .map(({ purpose }) => purpose)
      .filter((purpose) => purpose === 'control-cell' || purpose === 'supervisory')}
  />
);
