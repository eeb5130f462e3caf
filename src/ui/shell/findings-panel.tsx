'use client';

import { usePathname, useRouter } from 'next/navigation';
import { useCallback } from 'react';
import { type Severity, type Station, severities } from '@/core/findings';
import { boxOf, type TableName, type RecordRef } from '@/core/plan';
import { usePlan, useSession, useSite } from '../session/context';
import {
  type About,
  type JudgedFinding,
  airPlaceOf,
  countOpen,
  gearPlaceOf,
  internetPlaceOf,
  locationOf,
  policyPlaceOf,
  useFindings,
} from '../session/open-findings';
import { isSolving } from '../session/state';
import { useView } from '../session/view';
import { SeverityMark } from '../parts/marks';
import { countIn, withAlike } from './alike';
import { AlikeLine, useOpened } from './alike-line';
import { FindingCard } from './finding-card';
import { stations } from './stations';

const SHOWN = 60;

export const useStation = () => usePathname().split('/')[3] ?? 'segments';

/** The findings of a page: of its station, all of them on the pages that are no station. */
export function usePageFindings(everywhere = false): readonly JudgedFinding[] {
  const station = useStation();
  const all = useFindings();
  const own = stations.find((entry) => entry.path === station)?.findings ?? null;
  const shown = useView((state) => state.severities);
  return all.filter(
    (finding) => (everywhere || own === null || finding.station === own) && shown.has(finding.severity),
  );
}

/** Goes to a station and chooses there what something is about. */
function useGoTo() {
  const plan = usePlan();
  const router = useRouter();
  const session = useSession();
  const station = useStation();
  const { select, set } = useView();
  return useCallback(
    (about: About, home: Station) => {
      const place = locationOf(plan, about);
      if (place.vlan) select(place.vlan, place.address);
      if (home === 'gear' || home === 'guards') set(gearPlaceOf(plan, about));
      if (home === 'wireless') set(airPlaceOf(plan, about));
      if (home === 'internet') set(internetPlaceOf(plan, about));
      if (home === 'policy') set(policyPlaceOf(plan, about));
      if (station !== 'findings' && home !== station) router.push(`/site/${session.siteId}/${home}`);
    },
    [plan, router, session, station, select, set],
  );
}

/** Goes to what a finding is about: its station, segment and address. */
export function useGoToFinding() {
  const go = useGoTo();
  const set = useView((state) => state.set);
  return useCallback(
    (finding: JudgedFinding) => {
      go(finding, finding.station);
      set({ finding: finding.key });
    },
    [go, set],
  );
}

const homes: Partial<Record<TableName, Station>> = {
  vlan: 'segments',
  port: 'gear',
  ssid: 'wireless',
  radio: 'wireless',
  spot: 'wireless',
  wall: 'wireless',
  level: 'wireless',
  foreignSsid: 'wireless',
  vlanGuard: 'guards',
  portGuard: 'guards',
  binding: 'guards',
  uplink: 'internet',
  forward: 'internet',
  route: 'internet',
  tunnel: 'internet',
  translation: 'internet',
  zone: 'policy',
  cell: 'policy',
  rule: 'policy',
  question: 'rehearse',
};

/** Goes to a record: boxes under Gear & ports, other devices under Addresses. */
export function useGoToRecord() {
  const go = useGoTo();
  const plan = usePlan();
  return useCallback(
    (on: RecordRef) => {
      const box = on.table === 'device' && boxOf(plan, on.id) !== undefined;
      go({ where: [on] }, homes[on.table] ?? (box ? 'gear' : 'addresses'));
    },
    [go, plan],
  );
}

export function SeverityFilter() {
  const counts = countOpen(useFindings());
  const { severities: shown, set } = useView();
  const toggle = (severity: Severity) => {
    const next = new Set(shown);
    if (!next.delete(severity)) next.add(severity);
    set({ severities: next });
  };
  return (
    <div className="flex gap-1" role="group" aria-label="Show findings of severity">
      {severities.map((severity) => (
        <button
          key={severity}
          type="button"
          aria-pressed={shown.has(severity)}
          aria-label={`${severity}: ${counts[severity]}`}
          className={`flex items-center gap-1 border-2 px-1.5 py-0.5 text-[13px] ${shown.has(severity) ? 'border-ink bg-sheet' : 'border-transparent'}`}
          onClick={() => toggle(severity)}
        >
          <SeverityMark severity={severity} size={13} /> {counts[severity]}
        </button>
      ))}
    </div>
  );
}

export const PUT_AWAY =
  'Findings are put away until the exercise is handed in: here you find the faults yourself.';

/** `everywhere` shows the whole site, as on a phone, where the list is a page of its own. */
export function FindingsPanel({ everywhere = false }: { everywhere?: boolean }) {
  const findings = usePageFindings(everywhere);
  const ready = useSite((state) => state.findingsReady);
  const solving = useSite(isSolving);
  const vlan = useView((state) => state.vlan);
  const current = useView((state) => state.finding);
  const station = useStation();
  const { ports, uplink, forward, zone, rule } = useView();
  const plan = usePlan();
  const go = useGoToFinding();
  const { opened, toggle } = useOpened();
  // What is selected first; the rest of the page's findings after it.
  // On these stations what is chosen are records themselves; elsewhere it is a segment.
  const chosen = { gear: ports, internet: [forward ?? uplink ?? ''], policy: [rule ?? zone ?? ''] }[station];
  const here = findings.filter((finding) =>
    chosen
      ? finding.where.some(({ id }) => chosen.includes(id))
      : vlan !== null && locationOf(plan, finding).vlan === vlan,
  );
  const others = findings.filter((finding) => !here.includes(finding));
  const selected = vlan ? plan.vlan.get(vlan) : undefined;
  const section = (title: string, list: readonly JudgedFinding[]) => {
    const listed = withAlike(list, opened, current);
    return (
      list.length > 0 && (
        <section aria-label={title}>
          <h3 className="pt-3 text-[13px] font-bold text-muted">{title}</h3>
          {listed
            .slice(0, SHOWN)
            .map((row) =>
              row.alike !== undefined ? (
                <AlikeLine
                  key={row.alike}
                  count={row.count}
                  open={row.open}
                  onToggle={(open) => toggle(row.alike, open)}
                />
              ) : (
                <FindingCard
                  key={row.finding.key}
                  finding={row.finding}
                  current={row.finding.key === current}
                  onGo={() => go(row.finding)}
                />
              ),
            )}
          {listed.length > SHOWN && (
            <p className="py-2 text-[14px]">
              and {countIn(listed.slice(SHOWN))} more; all of them are under Findings
            </p>
          )}
        </section>
      )
    );
  };
  return (
    <section aria-label="Findings here">
      <div className="flex items-center gap-2 border-b border-ink pb-1 whitespace-nowrap">
        <h2 className="mono font-bold">
          Findings <span className="key">n</span>
        </h2>
        <SeverityFilter />
      </div>
      {solving && <p className="py-2">{PUT_AWAY}</p>}
      {!ready && <p className="py-2">Checking…</p>}
      {ready && !solving && findings.length === 0 && <p className="py-2">Nothing to mend on this page.</p>}
      {section(chosen ? 'Of what is chosen' : selected ? `In ${selected.name}` : 'Selected', here)}
      {section(here.length ? 'Elsewhere on this page' : 'On this page', others)}
    </section>
  );
}
