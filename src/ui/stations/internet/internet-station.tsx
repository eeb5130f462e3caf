'use client';

import { useCallback, useMemo, useState } from 'react';
import { type Plan, type Uplink, portTitle } from '@/core/plan';
import { mssOf, mtuOf, letsForwardsIn, uplinksOf } from '@/core/model/uplink';
import { problemOf } from '../../session/attempt';
import { usePlan, useSession } from '../../session/context';
import { useView } from '../../session/view';
import { useCommands } from '../../shell/commands';
import { Problem } from '../../parts/problem';
import { StationHead } from '../../parts/station-head';
import { Routes, Translations, Tunnels } from './tunnels-and-routes';
import { VoiceBoxes } from './voice-boxes';
import { Cascades } from './cascades';
import { FailoverTable } from './failover-table';
import { ForwardsTable } from './forwards-table';
import { ReachAdviser } from './reach-adviser';
import { WayOutLine } from './way-out-line';
import { WorksMark } from '../../parts/works-mark';

/** What stands between the gateway and the Internet, what gets in, and what happens when a link fails. */
export function InternetStation() {
  const plan = usePlan();
  const session = useSession();
  const set = useView((state) => state.set);
  const [problem, setProblem] = useState('');
  const uplinks = uplinksOf(plan);
  const add = useCallback(() => {
    setProblem(
      problemOf(() => {
        const change = session.perform({ operation: 'addUplink', input: {} });
        const added = change.steps.find(({ table }) => table === 'uplink');
        if (added) set({ uplink: added.id, forward: null });
      }),
    );
  }, [session, set]);
  const commands = useMemo(() => [{ key: '+', name: 'add an uplink', run: add }], [add]);
  useCommands(commands);
  return (
    <>
      <StationHead title="Internet side" about="who translates, what gets in, what a failure costs">
        <button type="button" className="button button-primary" onClick={add}>
          Add uplink <span className="key">+</span>
        </button>
      </StationHead>
      <Problem text={problem} className="mb-2" />
      {uplinks.length === 0 && (
        <p>
          No uplink is recorded yet. Press + : the port that faces the provider is taken, and what you know of
          the line is written at the right.
        </p>
      )}
      {uplinks.map((uplink) => (
        <UplinkSection key={uplink.id} plan={plan} uplink={uplink} />
      ))}
      {uplinks.length > 1 && <FailoverTable plan={plan} />}
      {uplinks.length > 0 && <ReachAdviser plan={plan} />}
      <div className="pt-5">
        <Cascades plan={plan} />
        <VoiceBoxes plan={plan} />
        <Tunnels plan={plan} />
        <Routes plan={plan} />
        <Translations plan={plan} />
      </div>
    </>
  );
}

function UplinkSection({ plan, uplink }: { plan: Plan; uplink: Uplink }) {
  const { uplink: chosen, forward, set } = useView();
  const here = chosen === uplink.id && forward === null;
  const port = uplink.port === null ? undefined : plan.port.get(uplink.port);
  const mtu = mtuOf(uplink);
  const { works, why } = letsForwardsIn(uplink);
  const facts = [
    port ? `at ${portTitle(plan, port)}` : 'no port recorded',
    uplink.down === null && uplink.up === null
      ? ''
      : `${uplink.down ?? '?'} down, ${uplink.up ?? '?'} up Mbit/s`,
    uplink.cap === null ? '' : `${uplink.cap} GB a month`,
    `packets of ${mtu} bytes, in them ${mssOf(mtu, 4)} of TCP (${mssOf(mtu, 6)} over IPv6)`,
  ];
  return (
    <section aria-label={`Uplink ${uplink.name}`} className="mb-5">
      <button
        type="button"
        aria-pressed={here}
        className={`flex w-full flex-wrap items-baseline gap-x-3 border-b-2 border-ink px-1 text-left hover:bg-chosen max-[699px]:min-h-touch ${here ? 'bg-chosen' : ''}`}
        onClick={() => set({ uplink: uplink.id, forward: null, finding: null })}
      >
        <b className="mono">{uplink.name}</b>
        <span className="text-[14px] text-muted">
          {facts.filter(Boolean).join(' · ')}
          {!uplink.enabled && ' · switched off'}
        </span>
      </button>
      <WayOutLine plan={plan} uplink={uplink} />
      <p className="flex items-center gap-2 pb-1 text-[15px]">
        <WorksMark works={works} />
        <span>
          <b>
            {works === null
              ? 'Whether forwards get in is not known'
              : works
                ? 'Forwards get in'
                : 'No forward gets in'}
          </b>
          : {why}.
        </span>
      </p>
      <ForwardsTable plan={plan} uplink={uplink} />
    </section>
  );
}
