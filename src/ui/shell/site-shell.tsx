'use client';

import dynamic from 'next/dynamic';
import { useRouter } from 'next/navigation';
import { type ReactNode, Suspense, useCallback, useMemo, useRef, useState } from 'react';
import { useAuthor } from '../session/author';
import { SessionProvider, useSession, useSite } from '../session/context';
import { countOpen, useFindings } from '../session/open-findings';
import { useView } from '../session/view';
import { FindBox } from './find-box';
import { FindingsPanel, useGoToFinding, usePageFindings, useStation } from './findings-panel';
import { Header } from './header';
import { useCommands, useControlKeys } from './commands';
import { Nav } from './nav';
import { ProbeBar } from './probe-bar';
import { KeepProgram } from './keep-program';
import { Loaded } from './loaded';
import { DrawerButton, Panes } from './panes';
import { ViewInAddress } from './view-in-address';
import { stations } from './stations';
import { Toasts } from './toasts';
import { WhereItIs } from './where-it-is';
import { focusStation } from '../parts/focus';

/** What is shown only now and then comes when it is. */
const AuthorDialog = dynamic(() => import('./author-dialog').then((m) => m.AuthorDialog));
const Conflicts = dynamic(() => import('./conflicts').then((m) => m.Conflicts));
const ExerciseStrip = dynamic(() => import('./exercise-strip').then((m) => m.ExerciseStrip));
const KeysDialog = dynamic(() => import('./keys-dialog').then((m) => m.KeysDialog));
const ReviewDialog = dynamic(() => import('./review-dialog').then((m) => m.ReviewDialog));

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

type Tab = 'stations' | 'find' | 'details' | 'findings' | 'probe' | null;

function Frame({ children, inspector }: { children: ReactNode; inspector: ReactNode }) {
  const session = useSession();
  const router = useRouter();
  const findRef = useRef<HTMLInputElement>(null);
  const probeRef = useRef<HTMLInputElement>(null);
  const [keysOpen, setKeysOpen] = useState(false);
  const [tab, setTab] = useState<Tab>(null);
  const { finding, set } = useView();
  const reviewing = useView((state) => state.review !== null);
  const unnamed = useAuthor((state) => state.asked ?? state.name === '');
  const conflicts = useSite((state) => state.conflicts.length > 0);
  const exercising = useSite((state) => state.exercise !== null);
  const station = useStation();
  const findings = usePageFindings();
  const go = useGoToFinding();
  const nextFinding = useCallback(() => {
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
  }, [findings, finding, go, set]);
  const undo = useCallback((direction: 'undo' | 'redo') => void session.undo(direction), [session]);
  const commands = useMemo(
    () => [
      { key: '/', name: 'find an address, name, VLAN, MAC', run: () => findRef.current?.focus() },
      { key: 'q', name: 'ask the probe: who reaches whom', run: () => probeRef.current?.focus() },
      { key: 'n', name: 'next finding', run: nextFinding },
      { key: 'u', name: 'undo your latest change', run: () => undo('undo') },
      { key: 'U', name: 'redo', run: () => undo('redo') },
      { key: '?', name: 'the list of keys', run: () => setKeysOpen(true) },
      ...stations.slice(0, 9).map(({ path, label }, at) => ({
        key: String(at + 1),
        name: `go to ${label}`,
        run: () => router.push(`/site/${session.siteId}/${path}`),
      })),
    ],
    [session, nextFinding, undo, router],
  );
  useCommands(commands);
  useControlKeys(undo, () => findRef.current?.focus());
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
      {conflicts && <Conflicts />}
      {exercising && <ExerciseStrip />}
      <div className="flex min-h-0 flex-1">
        <div className="no-print w-[196px] shrink-0 overflow-y-auto border-r border-ink max-[699px]:hidden">
          <Nav />
        </div>
        <Panes inspector={station === 'findings' ? null : inspector}>
          <main
            className="h-full overflow-auto bg-sheet px-4 pt-3 pb-8 outline-none max-[699px]:px-3"
            id="station"
            tabIndex={-1}
          >
            {children}
          </main>
        </Panes>
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
      {reviewing && <ReviewDialog />}
      {keysOpen && <KeysDialog open onClose={() => setKeysOpen(false)} />}
      {unnamed && <AuthorDialog />}
      <Toasts />
    </div>
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
          className={`min-h-touch font-bold ${tab === name ? 'bg-hivis text-on-hivis' : ''}`}
          onClick={() => onTab(tab === name ? null : name)}
        >
          {label}
        </button>
      ))}
    </div>
  );
}
