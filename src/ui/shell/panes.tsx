'use client';

import { type ReactNode, useState, useSyncExternalStore } from 'react';
import { Group, Panel, Separator } from 'react-resizable-panels';
import { useSite } from '../session/context';
import { countOpen, useFindings } from '../session/open-findings';
import { useView } from '../session/view';
import { FindingsPanel } from './findings-panel';

/** From this width on the right side stands beside the station; below it is a drawer over it. */
const WIDE = '(min-width: 1100px)';
const useWide = () =>
  useSyncExternalStore(
    (changed) => {
      const query = window.matchMedia(WIDE);
      query.addEventListener('change', changed);
      return () => query.removeEventListener('change', changed);
    },
    () => window.matchMedia(WIDE).matches,
    () => true,
  );

/** The station, and at the right what is chosen with the findings of this page; `inspector` is null where there is no right side. */
export function Panes({ children, inspector }: { children: ReactNode; inspector: ReactNode | null }) {
  const { panelOpen, panelFolded, set } = useView();
  const wide = useWide();
  const side = inspector !== null;
  return (
    <>
      <Group className="min-w-0 flex-1">
        <Panel id="station-pane" minSize={360}>
          {children}
        </Panel>
        {side && wide && !panelFolded && <Beside>{inspector}</Beside>}
      </Group>
      {side && wide && panelFolded && (
        <button
          type="button"
          className="no-print w-7 shrink-0 border-l border-ink bg-paper font-bold [writing-mode:vertical-rl] hover:bg-chosen"
          onClick={() => set({ panelFolded: false })}
        >
          Details and findings
        </button>
      )}
      {side && !wide && panelOpen && (
        <Side className="fixed inset-y-0 right-0 z-30 w-[min(360px,100vw)] border-l-[3px] max-[699px]:hidden">
          <button type="button" className="button float-right" onClick={() => set({ panelOpen: false })}>
            Close
          </button>
          {inspector}
        </Side>
      )}
    </>
  );
}

/** The right side beside the station, as wide as it was made. */
function Beside({ children }: { children: ReactNode }) {
  const set = useView((state) => state.set);
  // Only where it begins: while the edge is dragged a new default would call the drag off.
  const [width] = useState(() => useView.getState().panelWidth);
  return (
    <>
      <Separator
        aria-label="Width of the right side"
        className="no-print w-[5px] outline-none hover:bg-hivis focus-visible:bg-hivis data-[separator=active]:bg-hivis"
      />
      <Panel
        id="side-pane"
        defaultSize={width}
        minSize={220}
        maxSize={560}
        groupResizeBehavior="preserve-pixel-size"
        onResize={({ inPixels }) => inPixels > 0 && set({ panelWidth: Math.round(inPixels) })}
      >
        <Side className="h-full border-l">
          <button
            type="button"
            className="link float-right text-[13px]"
            onClick={() => set({ panelFolded: true })}
          >
            fold
          </button>
          {children}
        </Side>
      </Panel>
    </>
  );
}

function Side({ className, children }: { className: string; children: ReactNode }) {
  return (
    <aside
      aria-label="Details and findings"
      className={`no-print overflow-y-auto border-ink bg-paper px-3 py-3 ${className}`}
    >
      {children}
      <FindingsPanel />
    </aside>
  );
}

/** Opens the drawer where the right side is one. */
export function DrawerButton() {
  const counts = countOpen(useFindings());
  const ready = useSite((state) => state.findingsReady);
  const { panelOpen, set } = useView();
  if (panelOpen) return null;
  return (
    <button
      type="button"
      className="button button-primary no-print absolute -top-11 right-3 z-20 max-[699px]:hidden min-[1100px]:hidden"
      onClick={() => set({ panelOpen: true })}
    >
      Details, {ready ? counts.stop + counts.fix : '…'} findings
    </button>
  );
}
