'use client';

import dynamic from 'next/dynamic';
import { useState } from 'react';
import { type Plan, type Radio, bands } from '@/core/plan';
import {
  type BandProposal,
  type Setting,
  type Wishes,
  channelsOf,
  clashesOf,
  radiosIn,
} from '@/core/model/wireless';
import { problemOf } from '../../session/attempt';
import { useSession } from '../../session/context';
import { useJob } from '../../session/job';
import { ColumnHeads } from '../../parts/column-heads';
import { OneOf } from '../../parts/one-of';
import { Problem } from '../../parts/problem';
import { Toggle } from '../../parts/tick';
import type { LoadRow } from './load-chart';
import { percent } from './words';

const LoadChart = dynamic(() => import('./load-chart').then((m) => m.LoadChart), {
  loading: () => <p className="text-muted">Drawing…</p>,
});

/** Channels for all radios, before and after, to be taken as one change or left. They are worked out off the page. */
export function ChannelPlan({ plan, onClose }: { plan: Plan; onClose: () => void }) {
  const job = useJob();
  const used = bands.filter((band) => radiosIn(plan, band).length > 0);
  const [wishes, setWishes] = useState<Wishes>({ band: null, widths: false, powers: false });
  const ask = (next: Partial<Wishes> = {}) => {
    const asked = { ...wishes, ...next };
    setWishes(asked);
    job.start({ kind: 'channels', wishes: asked });
  };
  const proposals = job.result?.kind === 'channels' ? job.result.proposals : null;
  return (
    <section aria-label="Channels proposed" className="mb-5 border-2 border-ink bg-sheet p-3">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2 pb-2">
        <h3 className="font-bold">Channels proposed</h3>
        <OneOf
          label="Plan for"
          look="bar"
          value={wishes.band ?? 'all'}
          of={[
            { value: 'all' as const, shown: 'all bands' },
            ...used.map((value) => ({ value, shown: `${value} GHz` })),
          ]}
          onChoose={(value) => ask({ band: value === 'all' ? null : value })}
        />
        <Toggle label="widths too" checked={wishes.widths} onChange={(widths) => ask({ widths })} />
        <Toggle label="powers too" checked={wishes.powers} onChange={(powers) => ask({ powers })} />
      </div>
      <p className="pb-2 text-[13px] text-muted">
        Least disturbance first: the same air, overlapping and neighbouring channels, networks of others; then
        the fewest changes. Disturbance is counted in dB above −92 dBm for every 5 MHz shared, at the levels
        of now. A radio whose channel is kept stays.
      </p>
      {!job.running && (!proposals || job.stale) && (
        <p className="flex flex-wrap items-center gap-3">
          {job.stale && <span className="text-stop">The plan has changed since.</span>}
          <button type="button" className="button button-primary" autoFocus onClick={() => ask()}>
            Work them out
          </button>
          <button type="button" className="button" onClick={onClose}>
            Leave it
          </button>
        </p>
      )}
      {job.running && <p role="status">Working out channels…</p>}
      {proposals && !job.stale && <Proposed plan={plan} proposals={proposals} onClose={onClose} />}
    </section>
  );
}

function Proposed({
  plan,
  proposals,
  onClose,
}: {
  plan: Plan;
  proposals: readonly BandProposal[];
  onClose: () => void;
}) {
  const session = useSession();
  const [problem, setProblem] = useState('');
  const changes = proposals.flatMap(({ settings }) => settings.filter((one) => differs(plan, one)));
  const take = () => {
    const found = problemOf(() =>
      session.perform({ operation: 'setChannels', input: { settings: changes.map((one) => ({ ...one })) } }),
    );
    setProblem(found);
    if (!found) onClose();
  };
  return (
    <>
      {proposals.map((proposal) => (
        <BandPart key={proposal.band} plan={plan} proposal={proposal} />
      ))}
      {changes.length > 0 && <Changes plan={plan} settings={changes} />}
      <div className="flex flex-wrap items-center gap-3 pt-3">
        <button
          type="button"
          className="button button-primary"
          disabled={changes.length === 0}
          onClick={take}
        >
          Take this
        </button>
        <button type="button" className="button" onClick={onClose}>
          Leave it
        </button>
        <span role="status">
          {changes.length === 0
            ? 'What is set is as good: nothing to change.'
            : `${changes.length} ${changes.length === 1 ? 'radio changes' : 'radios change'}; ${clashText(plan, proposals)}`}
        </span>
      </div>
      <Problem text={problem} className="mt-2" />
    </>
  );
}

const differs = (plan: Plan, { radio: id, channel, width, power }: Setting): boolean => {
  const radio = plan.radio.get(id)!;
  return radio.channel !== channel || radio.width !== width || radio.power !== power;
};

function clashText(plan: Plan, proposals: readonly BandProposal[]): string {
  const [loudest] = proposals
    .flatMap(({ band }) => radiosIn(plan, band).flatMap((radio) => clashesOf(plan, radio)))
    .sort((a, b) => b.level.dbm - a.level.dbm);
  return loudest ? `loudest on the same air now ${loudest.level.dbm} dBm` : 'nobody shares the air now';
}

/** What a band gains, with how sure that is. */
function BandPart({ plan, proposal }: { plan: Plan; proposal: BandProposal }) {
  const { band, before, after, bound, best, without, loads } = proposal;
  const unset = radiosIn(plan, band).filter(({ channel }) => channel === null).length;
  const rows = channelsOf[band].flatMap((channel): LoadRow[] => {
    const [was, will] = [loads.before, loads.after].map((list) =>
      list.find((one) => one.channel === channel),
    );
    return was || will ? [{ channel, was: was ?? null, will: will ?? null }] : [];
  });
  return (
    <div className="pb-3">
      <h4 className="border-b border-ink font-semibold">
        {band} GHz: disturbance <span className="mono">{before}</span> → <span className="mono">{after}</span>{' '}
        <span className="font-normal text-muted">
          {best
            ? '(nothing is better: proved)'
            : after === 0
              ? '(none is left)'
              : `(no plan of these widths is below ${bound})`}
          {unset > 0 && `; ${unset} choose for themselves now, which counts as nothing`}
        </span>
      </h4>
      {without.length > 0 && (
        <p className="text-stop">
          For {without.map((id) => plan.device.get(plan.radio.get(id)!.device)!.name).join(', ')} no channel
          is allowed at its width.
        </p>
      )}
      <div className="grid gap-3 pt-2 min-[1000px]:grid-cols-[minmax(0,1fr)_360px]">
        <LoadChart rows={rows} label={`Pairs that hear each other on each channel at ${band} GHz`} />
        <div className="max-h-[200px] overflow-y-auto">
          <table
            className="schedule text-[13px]"
            aria-label={`Each channel at ${band} GHz, before and after`}
          >
            <ColumnHeads columns={['Channel', 'Radios', 'Pairs', 'Beacons', 'Of others']} />
            <tbody>
              {rows.map(({ channel, was, will }) => (
                <tr key={channel} className="mono whitespace-nowrap">
                  <td>{channel}</td>
                  <td>{arrow(String(was?.radios ?? 0), String(will?.radios ?? 0))}</td>
                  <td>{arrow(String(was?.clashes ?? 0), String(will?.clashes ?? 0))}</td>
                  <td>{arrow(percent(was?.beacons ?? 0), percent(will?.beacons ?? 0))}</td>
                  <td>{(was ?? will)!.foreign}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      </div>
    </div>
  );
}

const arrow = (from: string, to: string) => (from === to ? to : `${from} → ${to}`);
const most = (power: number | null) => (power === null ? 'most' : String(power));

function Changes({ plan, settings }: { plan: Plan; settings: readonly Setting[] }) {
  return (
    <div className="max-h-[260px] overflow-y-auto">
      <table className="schedule text-[14px]" aria-label="What changes">
        <ColumnHeads columns={['Radio', 'Channel', 'Width, MHz', 'Power, dBm']} />
        <tbody>
          {settings.map(({ radio: id, channel, width, power }) => {
            const radio: Radio = plan.radio.get(id)!;
            return (
              <tr key={id} className="mono">
                <td>
                  {plan.device.get(radio.device)!.name} {radio.band}
                </td>
                <td>{arrow(radio.channel === null ? 'itself' : String(radio.channel), String(channel))}</td>
                <td>{arrow(radio.width, width)}</td>
                <td>{arrow(most(radio.power), most(power))}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}
