'use client';

import { useRouter } from 'next/navigation';
import { type ReactNode, Suspense, useMemo, useRef, useState } from 'react';
import { SessionProvider, useSession, useSite } from '../session/context';
import { countOpen, useFindings } from '../session/open-findings';
import { useView } from '../session/view';
import { AuthorDialog } from './author-dialog';
import { Conflicts } from './conflicts';
import { ExerciseStrip } from './exercise-strip';
import { FindBox } from './find-box';
import { FindingsPanel, useGoToFinding, usePageFindings, useStation } from './findings-panel';
import { Header } from './header';
import { KeysDialog, useKeys, useUndoKeys } from './keys';
import { Nav } from './nav';
import { ProbeBar } from './probe-bar';
import { KeepProgram } from './keep-program';
import { Notices } from './notices';
import { ReviewDialog } from './review-dialog';
import { ViewInAddress } from './view-in-address';
import { stations } from './stations';
import { WhereItIs } from './where-it-is';
import { focusStation } from '../parts/focus';

export function SiteShell({
  siteId,
  children,
  inspector,
}: {
  siteId: string;
  children: ReactNode;
  inspector: ReactNode;
}) {
  return (
    <SessionProvider siteId={siteId}>
      <Loaded>
        <Suspense>
          <ViewInAddress />
        </Suspense>
        <KeepProgram />
        <Frame inspector={inspector}>{children}</Frame>
      </Loaded>
    </SessionProvider>
  );
}

function Loaded({ children }: { children: ReactNode }) {
  const { status, problem } = useSite((state) => state);
  if (status === 'ready') return children;
  return (
    <main className="p-6">
      {status === 'loading' ? (
        <p role="status">Loading the plan…</p>
      ) : (
        <>
          <p role="alert" className="border-l-4 border-stop px-3 font-bold">
            {problem}
          </p>
          <p className="pt-3">
            <a className="link" href="/">
              All sites
            </a>
          </p>
        </>
      )}
    </main>
  );
}

type Tab = 'stations' | 'find' | 'details' | 'findings' | 'probe' | null;

function Frame({ children, inspector }: { children: ReactNode; inspector: ReactNode }) {
  const session = useSession();
  const router = useRouter();
  const findRef = useRef<HTMLInputElement>(null);
  const probeRef = useRef<HTMLInputElement>(null);
  const [keysOpen, setKeysOpen] = useState(false);
  const [tab, setTab] = useState<Tab>(null);
  const { finding, set } = useView();
  const station = useStation();
  const findings = usePageFindings();
  const go = useGoToFinding();
  const keys = useMemo(
    () => ({
      '/': () => findRef.current?.focus(),
      q: () => probeRef.current?.focus(),
      '?': () => setKeysOpen(true),
      u: () => void session.undo('undo'),
      U: () => void session.undo('redo'),
      ...Object.fromEntries(
        stations.map(({ path }, i) => [String(i + 1), () => router.push(`/site/${session.siteId}/${path}`)]),
      ),
      n: () => {
        const at = findings.findIndex((candidate) => candidate.key === finding);
        const next = findings[(at + 1) % findings.length];
        if (!next) return;
        set({ panelOpen: true, panelFolded: false });
        go(next);
        requestAnimationFrame(() => {
          const card = document.querySelector(`[data-finding="${CSS.escape(next.key)}"]`);
          card?.scrollIntoView({ block: 'nearest' });
          card?.querySelector('button')?.focus();
        });
      },
    }),
    [session, findings, finding, go, set, router],
  );
  useKeys(keys);
  useUndoKeys();
  return (
    <div className="flex h-dvh flex-col print:block print:h-auto">
      <a
        href="#station"
        className="button button-primary sr-only focus:not-sr-only focus:absolute focus:top-2 focus:left-2 focus:z-50"
        onClick={(event) => {
          event.preventDefault();
          focusStation();
        }}
      >
        Skip to the station
      </a>
      <Header findRef={findRef} onKeys={() => setKeysOpen(true)} />
      <WhereItIs />
      <Notices />
      <Conflicts />
      <ExerciseStrip />
      <div className="flex min-h-0 flex-1">
        <div className="no-print w-[196px] shrink-0 overflow-y-auto border-r border-ink max-[699px]:hidden">
          <Nav />
        </div>
        <main
          className="min-w-0 flex-1 overflow-auto bg-sheet px-4 pt-3 pb-8 max-[699px]:px-3 outline-none"
          id="station"
          tabIndex={-1}
        >
          {children}
        </main>
        {station !== 'findings' && <SidePanel>{inspector}</SidePanel>}
      </div>
      <div className="relative max-[699px]:hidden">
        <DrawerButton />
        <ProbeBar fromRef={probeRef} />
      </div>
      {tab !== null && (
        <div
          className="fixed inset-x-0 top-[46px] bottom-[56px] z-30 overflow-auto bg-paper p-3 min-[700px]:hidden"
          role="region"
          aria-label={tab}
        >
          {tab === 'stations' && <Nav onGo={() => setTab(null)} />}
          {tab === 'probe' && <ProbeBar />}
          {tab === 'find' && <FindBox inputRef={findRef} />}
          {tab === 'details' && inspector}
          {tab === 'findings' && <FindingsPanel everywhere />}
        </div>
      )}
      <ThumbTabs tab={tab} onTab={setTab} />
      <ReviewDialog />
      <KeysDialog open={keysOpen} onClose={() => setKeysOpen(false)} />
      <AuthorDialog />
    </div>
  );
}

/** The right side: what is selected, then the findings of this page. Beside the station, or a drawer over it. */
function SidePanel({ children }: { children: ReactNode }) {
  const { panelOpen, panelWidth, panelFolded, set } = useView();
  if (panelFolded)
    return (
      <button
        type="button"
        className="no-print w-7 shrink-0 border-l border-ink bg-paper font-bold [writing-mode:vertical-rl] hover:bg-chosen max-[1099px]:hidden"
        onClick={() => set({ panelFolded: false })}
      >
        Details and findings
      </button>
    );
  return (
    <>
      <PanelEdge />
      <aside
        aria-label="Details and findings"
        style={{ '--panel': `${panelWidth}px` } as React.CSSProperties}
        className={`no-print overflow-y-auto border-l border-ink bg-paper px-3 py-3 max-[1099px]:fixed max-[1099px]:inset-y-0 max-[1099px]:right-0 max-[1099px]:z-30 max-[1099px]:w-[min(360px,100vw)] max-[1099px]:border-l-[3px] max-[699px]:hidden min-[1100px]:w-(--panel) min-[1100px]:shrink-0 ${panelOpen ? '' : 'max-[1099px]:hidden'}`}
      >
        <button
          type="button"
          className="button float-right min-[1100px]:hidden"
          onClick={() => set({ panelOpen: false })}
        >
          Close
        </button>
        <button
          type="button"
          className="link float-right text-[13px] max-[1099px]:hidden"
          onClick={() => set({ panelFolded: true })}
        >
          fold
        </button>
        {children}
        <FindingsPanel />
      </aside>
    </>
  );
}

/** The edge of the right side: drag or use the arrow keys to resize it. */
function PanelEdge() {
  const { panelWidth, set } = useView();
  const resize = (width: number) => set({ panelWidth: Math.min(560, Math.max(220, width)) });
  return (
    <div
      role="separator"
      aria-label="Width of the right side"
      aria-orientation="vertical"
      aria-valuenow={panelWidth}
      aria-valuemin={220}
      aria-valuemax={560}
      tabIndex={0}
      className="no-print w-[5px] shrink-0 cursor-col-resize hover:bg-hivis max-[1099px]:hidden"
      onKeyDown={(event) => {
        if (event.key === 'ArrowLeft') resize(panelWidth + 20);
        if (event.key === 'ArrowRight') resize(panelWidth - 20);
      }}
      onPointerDown={(event) => event.currentTarget.setPointerCapture(event.pointerId)}
      onPointerMove={(event) => {
        if (event.currentTarget.hasPointerCapture(event.pointerId)) resize(window.innerWidth - event.clientX);
      }}
    />
  );
}

function DrawerButton() {
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

function ThumbTabs({ tab, onTab }: { tab: Tab; onTab: (tab: Tab) => void }) {
  const { ports } = useView();
  const counts = countOpen(useFindings());
  const ready = useSite((state) => state.findingsReady);
  const entries: readonly (readonly [Exclude<Tab, null>, string])[] = [
    ['stations', 'Stations'],
    ['find', 'Find'],
    ['details', ports.length > 0 ? `${ports.length} ${ports.length === 1 ? 'port' : 'ports'}` : 'Details'],
    ['findings', ready ? `Findings ${counts.stop + counts.fix}` : 'Findings …'],
    ['probe', 'Probe'],
  ];
  return (
    <div
      className="no-print grid h-[56px] shrink-0 grid-cols-5 border-t-[3px] border-ink bg-paper min-[700px]:hidden"
      role="toolbar"
      aria-label="Tabs"
    >
      {entries.map(([name, label]) => (
        <button
          key={name}
          type="button"
          aria-pressed={tab === name}
          className={`min-h-11 font-bold ${tab === name ? 'bg-hivis text-on-hivis' : ''}`}
          onClick={() => onTab(tab === name ? null : name)}
        >
          {label}
        </button>
      ))}
    </div>
  );
}
