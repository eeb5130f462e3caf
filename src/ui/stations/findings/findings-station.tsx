'use client';

import { useVirtualizer } from '@tanstack/react-virtual';
import { useRef, useState } from 'react';
import { useFindings } from '../../session/open-findings';
import { useSite } from '../../session/context';
import { isSolving } from '../../session/state';
import { useView } from '../../session/view';
import { type ListedFinding, withAlike } from '../../shell/alike';
import { AlikeLine, useOpened } from '../../shell/alike-line';
import { FindingCard } from '../../shell/finding-card';
import { PUT_AWAY, SeverityFilter, useGoToFinding } from '../../shell/findings-panel';
import { stations } from '../../shell/stations';
import { Toggle } from '../../parts/tick';
import { StationHead } from '../../parts/station-head';

type Row = { readonly head: string } | ListedFinding;
const keyOf = (row: Row): string =>
  'head' in row ? row.head : row.alike !== undefined ? row.alike : row.finding.key;

/** Every finding of the site, grouped by station; the long list exists only where it is seen. */
export function FindingsStation() {
  const all = useFindings();
  const ready = useSite((state) => state.findingsReady);
  const solving = useSite(isSolving);
  const { severities, finding: current } = useView();
  const [showAccepted, setShowAccepted] = useState(true);
  const go = useGoToFinding();
  const { opened, toggle } = useOpened();
  const scroller = useRef<HTMLDivElement>(null);
  const shown = all.filter(
    (finding) => severities.has(finding.severity) && (showAccepted || !finding.accepted),
  );
  const rows: Row[] = stations.flatMap((station) => {
    const own = shown.filter((finding) => finding.station === station.findings);
    return own.length
      ? [{ head: `${station.label}: ${own.length}` }, ...withAlike(own, opened, current)]
      : [];
  });
  // eslint-disable-next-line react-hooks/incompatible-library
  const list = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: (index) => ('head' in rows[index]! ? 36 : 104),
    overscan: 6,
    getItemKey: (index) => keyOf(rows[index]!),
  });
  return (
    <div className="-mb-8 flex h-[calc(100%+2rem)] flex-col">
      <StationHead
        title="Findings"
        about="everything that is wrong or worth knowing, with what would mend it"
      >
        <SeverityFilter />
        <Toggle label="accepted ones too" checked={showAccepted} onChange={setShowAccepted} />
      </StationHead>
      {!ready && <p role="status">Checking the plan…</p>}
      {solving && <p>{PUT_AWAY}</p>}
      {ready && !solving && rows.length === 0 && (
        <p>Nothing to mend. {all.length > 0 && `${all.length} findings are hidden by the filter.`}</p>
      )}
      <div
        ref={scroller}
        className="min-h-0 flex-1 overflow-y-auto"
        tabIndex={0}
        role="region"
        aria-label="All findings"
      >
        <div className="relative" style={{ height: list.getTotalSize() }}>
          {list.getVirtualItems().map((item) => {
            const row = rows[item.index]!;
            return (
              <div
                key={item.key}
                data-index={item.index}
                ref={list.measureElement}
                className="absolute inset-x-0 max-w-[900px]"
                style={{ top: item.start }}
              >
                {'head' in row ? (
                  <h3 className="border-b-2 border-ink pt-2 font-bold">{row.head}</h3>
                ) : row.alike !== undefined ? (
                  <AlikeLine count={row.count} open={row.open} onToggle={(open) => toggle(row.alike, open)} />
                ) : (
                  <FindingCard
                    finding={row.finding}
                    current={row.finding.key === current}
                    onGo={() => go(row.finding)}
                  />
                )}
              </div>
            );
          })}
        </div>
      </div>
    </div>
  );
}
