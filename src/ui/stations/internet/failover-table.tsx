'use client';

import { formatAddress } from '@/core/address';
import { type Plan, type Uplink, vlansOf } from '@/core/plan';
import { sharesOf, survivals, switchingOf, uplinksOf } from '@/core/model/uplink';
import { Cautions } from '../../parts/cautions';
import { WorksMark } from '../../parts/works-mark';
import { worksWord } from './words';

/** Several uplinks: in which order they are used, how long a failure goes unnoticed, and what works over which. */
export function FailoverTable({ plan }: { plan: Plan }) {
  const uplinks = uplinksOf(plan);
  const rows = survivals(plan);
  const tiers = [...new Set(uplinks.map(({ tier }) => tier))].map((tier) =>
    uplinks.filter((uplink) => uplink.tier === tier),
  );
  return (
    <section aria-label="When a link fails" className="mb-5">
      <h3 className="border-b-2 border-ink font-bold">When a link fails</h3>
      <ul className="py-1">
        {tiers.map((tier, i) => (
          <li key={tier[0]!.id}>
            {i === 0 ? 'First ' : 'then '}
            <TierText tier={tier} />
            {i < tiers.length - 1 && tier.map((uplink) => <Watch key={uplink.id} uplink={uplink} />)}
          </li>
        ))}
      </ul>
      <p className="pb-1 text-muted">
        Every session is lost at the change, since the outside address is another one.
      </p>
      {rows.length > 0 && (
        <table className="schedule text-[14px]" aria-label="What works over which uplink">
          <thead>
            <tr>
              <th scope="col">What</th>
              {uplinks.map((uplink) => (
                <th key={uplink.id} scope="col">
                  over {uplink.name}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map(({ what, over }) => (
              <tr key={what}>
                <th scope="row" className="text-left font-semibold">
                  {what}
                </th>
                {over.map(({ uplink, works, why }) => (
                  <td key={uplink}>
                    <span className="flex items-start gap-1.5 py-0.5">
                      <span className="pt-0.5">
                        <WorksMark works={works} />
                      </span>
                      <span>
                        <b>{worksWord(works)}</b>, {why}
                      </span>
                    </span>
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {vlansOf(plan).some(({ purpose }) => purpose === 'voice') && <Cautions purposes={['voice']} />}
    </section>
  );
}

function TierText({ tier }: { tier: readonly Uplink[] }) {
  if (tier.length === 1) return <b>{tier[0]!.name}</b>;
  const shares = sharesOf(tier);
  return <b>{tier.map(({ id, name }) => `${name} ${shares.get(id)} %`).join(' beside ')}</b>;
}

function Watch({ uplink }: { uplink: Uplink }) {
  if (uplink.monitor === null) return <span>, which nobody watches</span>;
  const { arithmetic } = switchingOf(uplink);
  return (
    <span>
      , watched by pinging <span className="mono">{formatAddress(uplink.monitor)}</span> over {uplink.name}{' '}
      alone: at most <span className="mono text-[14px]">{arithmetic}</span>
    </span>
  );
}
