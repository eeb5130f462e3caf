import { type Plan, type Purpose, vlansOf } from '@/core/plan';

/** Cautions that belong to a purpose, said once and in place. */
const cautions: Partial<Record<Purpose, string>> = {
  'control-cell':
    'A change here can move a running machine: agree a stop with the operator. Safety functions must not depend on this network.',
  supervisory: 'Operators rely on this network: agree a stop before changing it.',
  cameras: 'Cameras and recordings touch privacy law.',
  guest: 'Running a guest network may carry legal duties.',
  voice:
    'Emergency, lift and alarm lines need power and a path when the Internet or the mains fails; test them.',
};

/** What has to be minded with segments of some purposes, each once. */
export function Cautions({ purposes }: { purposes: readonly Purpose[] }) {
  return [...new Set(purposes)].map(
    (purpose) =>
      cautions[purpose] && (
        <p key={purpose} role="note" className="border-b border-rule bg-chosen px-2 py-1 text-[13px]">
          {cautions[purpose]}
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
